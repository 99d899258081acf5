import type { Schemas } from "../../api/client";
import { leadsWords } from "../../words/leads";
import { shown } from "./WindingPicture";

type Box = Schemas["BoxOut"];

/** The coils of the picture as a table. */
export function CoilTable({ box }: { box: Box }) {
  return (
    <details>
      <summary className="ask">{leadsWords.table}</summary>
      <table className="w-full" data-testid="coils">
        <thead>
          <tr className="text-left text-sm text-soft">
            <th scope="col">{leadsWords.coil}</th>
            <th scope="col">{leadsWords.from}</th>
            <th scope="col">{leadsWords.standstill}</th>
            <th scope="col">{leadsWords.fullSpeed}</th>
            <th scope="col">{leadsWords.rated}</th>
            <th scope="col">{leadsWords.timesRated}</th>
          </tr>
        </thead>
        <tbody>
          {box.coils.map((coil) => (
            <tr key={coil.name} className="border-t border-hair font-mono">
              <td>{coil.name}</td>
              <td>
                {box.marks[coil.start] ?? coil.start} {box.marks[coil.end] ?? coil.end}
              </td>
              <td>{coil.volts_v.toFixed(1)} V</td>
              <td>{coil.running_v.toFixed(1)} V</td>
              <td>{coil.rated_v.toFixed(1)} V</td>
              <td>
                {box.phases === 3
                  ? leadsWords.startingRunning(coil.starting_times, coil.running_times)
                  : leadsWords.notCalculated}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

/** Every line and lead as a button large enough for gloves. */
export function LeadButtons({
  box,
  more,
  armed,
  onTap,
}: {
  box: Box;
  more: readonly string[];
  armed: string | null;
  onTap: (end: string) => void;
}) {
  return (
    <fieldset className="grid grid-cols-4 gap-3" data-testid="lead-letters">
      <legend className="sr-only">{leadsWords.leadsLinesSized}</legend>
      {[...box.lines, ...box.leads, ...more].map((name) => (
        <button
          key={name}
          type="button"
          className="control font-mono text-xl"
          aria-pressed={armed === name}
          onClick={() => onTap(name)}
        >
          {shown(box.marks[name] ?? name)}
        </button>
      ))}
    </fieldset>
  );
}
