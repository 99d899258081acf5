import { sizePartsWords } from "../../../words/sizeParts";
import type { Curves } from "./useCurves";

/** The volts along the run, as a falling line with its figures. */
export function RunVolts({ run }: { run: Curves["run"] }) {
  const top = Number(run[0]?.running_v ?? 0);
  const ends = run.flatMap((point) =>
    [point.running_v, point.starting_v].filter(Boolean).map(Number),
  );
  const low = Math.min(...ends);
  const span = Math.max(top - low, top * 0.02);
  const at = (place: number, volts: string) =>
    `${20 + (place / Math.max(run.length - 1, 1)) * 400} ${14 + ((top - Number(volts)) / span) * 70}`;
  return (
    <figure className="m-0 border-2 border-ink bg-sheet px-4 py-3" data-testid="run-volts">
      <figcaption className="stamp text-soft">{sizePartsWords.voltageAlongCircuit}</figcaption>
      <svg viewBox="0 0 440 96" className="block w-full max-w-[640px]" aria-hidden="true">
        <path
          d={`M${run.map((point, place) => at(place, point.running_v)).join("L")}`}
          stroke="var(--plum)"
          strokeWidth="3"
          fill="none"
        />
        {run[0]?.starting_v && (
          <path
            d={`M${run.map((point, place) => at(place, point.starting_v)).join("L")}`}
            stroke="var(--ink)"
            strokeWidth="2.5"
            strokeDasharray="7 4"
            fill="none"
          />
        )}
      </svg>
      <table className="w-full max-w-[640px] text-right font-mono">
        <thead className="text-sm text-soft">
          <tr>
            <th scope="col" className="text-left font-sans font-normal">
              {sizePartsWords.distance}
            </th>
            {run.map((point) => (
              <th key={point.distance_ft} scope="col" className="font-normal">
                {sizePartsWords.ft2(point.distance_ft)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row" className="text-left font-sans font-normal">
              {sizePartsWords.running}
            </th>
            {run.map((point) => (
              <td key={point.distance_ft}>{point.running_v}</td>
            ))}
          </tr>
          <tr>
            <th scope="row" className="text-left font-sans font-normal">
              {sizePartsWords.start}
            </th>
            {run.map((point) => (
              <td key={point.distance_ft}>{point.starting_v || "—"}</td>
            ))}
          </tr>
        </tbody>
      </table>
    </figure>
  );
}
