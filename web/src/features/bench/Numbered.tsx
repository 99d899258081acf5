import { benchWords } from "../../words/bench";
import { JointTable } from "../leads/Answer";
import type { Guided } from "./readings";

/** The numbers, as a sheet of tags to print, and the joints by lead letter. */
export function Done({ guided }: { guided: Guided }) {
  const marks = Object.fromEntries(guided.lead_letters.map((name) => [name, name]));
  return (
    <section aria-labelledby="tags" className="space-y-3">
      <h2 id="tags" className="stamp">
        {benchWords.tags}
      </h2>
      <ul className="flex flex-wrap gap-3" data-testid="tags">
        {guided.lead_letters.map((name) => (
          <li
            key={name}
            className="border-2 border-ink bg-sheet px-3 py-1 text-center [clip-path:polygon(0_0,calc(100%-9px)_0,100%_9px,100%_100%,0_100%)]"
          >
            <span className="block font-mono text-sm text-soft">{name}</span>
            <span className="block font-headline text-2xl font-bold">{guided.numbers[name]}</span>
          </li>
        ))}
      </ul>
      {guided.notes.map((note) => (
        <p key={note} className="text-sm text-soft">
          {note}
        </p>
      ))}
      {guided.joinings.map((item) => (
        <details key={item.said} className="border-t border-hair pt-1">
          <summary className="ask">{benchWords.leadLetter(item.said)}</summary>
          <JointTable joints={item.joints} marks={marks} free={[]} />
        </details>
      ))}
    </section>
  );
}
