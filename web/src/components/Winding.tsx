import { Link } from "react-router";
import { words } from "../words/common";
import { frameWords } from "../words/frame";

export interface Arch {
  step: string;
  state: string;
}

/** One arch: its state is drawn, said and only then colored. */
function ArchShape({ state, x, width }: { state: string; x: number; width: number }) {
  const right = x + width;
  const outline = `M${x} 40V20a${width / 2} 17 0 0 1 ${width} 0V40`;
  const stroke = { done: "var(--proven)", stale: "var(--caution)" }[state] ?? "var(--edge)";
  return (
    <g>
      <path
        d={state === "done" ? `${outline}Z` : outline}
        fill={
          state === "done" ? "var(--proven)" : state === "stale" ? "var(--caution-wash)" : "none"
        }
        stroke={stroke}
        strokeWidth={state === "stale" ? 3 : 2}
        strokeDasharray={state === "stale" ? "6 5" : undefined}
      />
      {state === "working" && (
        <line x1={x} y1="40" x2={x} y2="19" stroke="var(--plum)" strokeWidth="7" />
      )}
      {state === "blocked" && (
        <line x1={x - 3} y1="34" x2={right + 3} y2="34" stroke="var(--live)" strokeWidth="5" />
      )}
      {state === "done" && <circle cx={x + width / 2} cy="33" r="3.5" fill="var(--sheet)" />}
    </g>
  );
}

/** A winding without words, for a line in a list. The list says the states. */
export function WindingMark({ arches }: { arches: readonly Arch[] }) {
  const width = 30;
  return (
    <svg
      viewBox={`0 0 ${arches.length * 38 + 8} 44`}
      className="h-8 w-auto"
      role="img"
      aria-label={arches
        .map((arch) => `${words.steps[arch.step]}: ${words.states[arch.state]}`)
        .join(", ")}
    >
      {arches.map((arch, place) => (
        <ArchShape key={arch.step} state={arch.state} x={8 + place * 38} width={width} />
      ))}
      <line x1="0" y1="41" x2="100%" y2="41" stroke="var(--edge)" strokeWidth="2" />
    </svg>
  );
}

export interface WindingProps {
  arches: readonly Arch[];
  here: string;
  to: (step: string) => string;
}

/** The steps of a job that exist, as arches on a baseline; a phone names only the one it is at. */
export function Winding({ arches, here, to }: WindingProps) {
  const at = arches.findIndex((arch) => arch.step === here);
  return (
    <nav aria-label={frameWords.stepsJob} className="border-b border-edge bg-ground">
      <ol className="mx-auto flex max-w-[1280px] items-stretch gap-1 px-4 pt-1.5">
        {arches.map((arch) => (
          <li key={arch.step} className="min-w-0 flex-1 lg:min-w-32 lg:flex-none">
            <Link
              to={to(arch.step)}
              aria-current={arch.step === here ? "step" : undefined}
              className="flex min-h-12 items-end justify-center gap-2 rounded-t-md border-b-4 border-transparent px-1 pb-1 text-ink no-underline hover:border-hair aria-[current=step]:border-plum lg:justify-start lg:px-2"
            >
              <svg viewBox="0 0 46 44" className="h-9 w-auto" aria-hidden="true">
                <ArchShape state={arch.state} x={6} width={34} />
              </svg>
              <span className="sr-only pb-0.5 leading-tight lg:not-sr-only">
                <span className="block font-headline text-lg font-bold">
                  {words.steps[arch.step]}
                </span>
                <span className="block text-sm text-soft">{words.states[arch.state]}</span>
              </span>
            </Link>
          </li>
        ))}
      </ol>
      {at >= 0 && (
        <p className="px-4 pt-0.5 pb-1 lg:hidden" aria-hidden="true">
          <span className="font-headline text-lg font-bold">{words.steps[here]}</span>
          <span className="text-sm text-soft">
            {" "}
            {frameWords.ofWord(words.states[arches[at]?.state ?? ""] ?? "", at + 1, arches.length)}
          </span>
        </p>
      )}
    </nav>
  );
}
