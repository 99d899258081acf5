import { benchWords } from "../../words/bench";
import type { Ask, Guided } from "./readings";

const [STEP, TOP] = [56, 96];

/** The box with its lead letters, the probes, the feed and the jumper drawn where they go. */
export function Probes({ guided, ask }: { guided: Guided; ask: Ask | null }) {
  const names = guided.lead_letters;
  const width = names.length * STEP + 40;
  const at = (name: string | undefined) => 40 + names.indexOf(name ?? "") * STEP;
  const number = (name: string) => guided.numbers[name]?.replace(/^T/, "");
  return (
    <svg
      viewBox={`0 0 ${width} ${ask?.what === "volts" ? 210 : 140}`}
      className="block max-h-[30vh] w-full border-2 border-ink bg-sheet"
      role="img"
      aria-label={ask ? askWords(ask) : benchWords.allLeadsLetter}
      data-testid="probes"
    >
      {(ask?.joined ?? []).map(([one, other]) => (
        <path
          key={`${one}${other}`}
          d={`M${at(one)} ${TOP + 14}Q${(at(one) + at(other)) / 2} ${TOP + 84} ${at(other)} ${TOP + 14}`}
          fill="none"
          stroke="var(--plum)"
          strokeWidth="5"
        />
      ))}
      {ask?.what === "volts" && ask.feed.length > 1 && (
        <g stroke="var(--live)" strokeWidth="4" fill="none">
          <path d={`M${at(ask.feed[0])} ${TOP + 14}V176H${at(ask.feed[1])}V${TOP + 14}`} />
          <circle
            cx={(at(ask.feed[0]) + at(ask.feed[1])) / 2}
            cy="176"
            r="15"
            fill="var(--sheet)"
          />
          <path
            d={`M${(at(ask.feed[0]) + at(ask.feed[1])) / 2 - 9} 176q4.5 -9 9 0t9 0`}
            strokeWidth="2.5"
          />
        </g>
      )}
      {ask && (
        <g stroke="var(--ink)" strokeWidth="3" fill="none">
          <path d={`M${at(ask.pair[0])} ${TOP - 14}V42H${at(ask.pair[1])}V${TOP - 14}`} />
          <circle cx={(at(ask.pair[0]) + at(ask.pair[1])) / 2} cy="34" r="19" fill="var(--sheet)" />
          <text
            x={(at(ask.pair[0]) + at(ask.pair[1])) / 2}
            y="40"
            textAnchor="middle"
            stroke="none"
            className="fill-ink font-mono text-[16px] font-semibold"
          >
            {ask.what === "touch" ? "Ω" : "V"}
          </text>
        </g>
      )}
      {names.map((name) => (
        <g key={name}>
          <rect
            x={at(name) - 17}
            y={TOP - 14}
            width="34"
            height="28"
            rx="9"
            fill={ask?.pair.includes(name) ? "var(--plum)" : "var(--sheet)"}
            stroke="var(--ink)"
            strokeWidth="2"
          />
          <text
            x={at(name)}
            y={TOP + 6}
            textAnchor="middle"
            fill={ask?.pair.includes(name) ? "var(--on-plum)" : "var(--ink)"}
            className="font-mono text-[18px] font-semibold"
          >
            {name}
          </text>
          {number(name) && (
            <text
              x={at(name) + 7}
              y={TOP + 34}
              className="fill-proven font-mono text-[17px] font-semibold"
            >
              {number(name)}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}

/** The next reading as one sentence. */
export function askWords(ask: Ask): string {
  const [one = "", other = ""] = ask.pair;
  if (ask.what === "touch") return benchWords.read(one, other);
  const joined = ask.joined.map(([a = "", b = ""]) => benchWords.join(a, b)).join("");
  return benchWords.feedRead(ask.feed.join(" and "), joined, one, other);
}
