import { Waiting } from "../../../components/Edges";
import type { Given } from "../../../state/useJob";
import { Paper } from "./CurvePaper";
import { RunVolts } from "./RunVolts";
import { useCurves } from "./useCurves";

/** Will it start, who acts first, and is the wire safe? On log-log paper, and as a table. */
export function TimePart({ works, given }: { works: string; given: Given }) {
  const { data, slab } = useCurves(works, given);
  if (!data) return slab ?? <Waiting />;
  const { curves, findings, refusal, run } = data;
  return (
    <div className="space-y-4">
      {slab}
      {refusal ? (
        <div className="border-[1.5px] border-edge bg-sunk px-5 py-3">
          <p className="font-semibold">{refusal.detail}</p>
          <p className="text-soft">{refusal.hint}</p>
        </div>
      ) : (
        <>
          <ul className="space-y-1 font-semibold" data-testid="read-off">
            {findings.map((text) => (
              <li key={text} className="border-l-4 border-plum pl-3">
                {text}
              </li>
            ))}
          </ul>
          <Paper curves={curves} />
        </>
      )}
      {run.length > 0 && <RunVolts run={run} />}
    </div>
  );
}
