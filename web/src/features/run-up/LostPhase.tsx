import { runUpWords as w } from "../../words/runUp";
import type { RunUp } from "./useRunUp";

const amps = (of: Record<string, number>) =>
  ["L1", "L2", "L3"].map((line) => (of[line] ?? 0).toFixed(0)).join(" / ");

/** A line or a coil lost, running and at rest: who carries what, and what a meter shows. */
export function LostPhase({ sheet }: { sheet: RunUp }) {
  return (
    <section aria-labelledby="lost" className="min-w-0 space-y-2" data-testid="lost-phase">
      <h2 id="lost" className="stamp">
        {w.lostTitle}
      </h2>
      <div className="overflow-x-auto">
        <table className="w-full text-right">
          <thead>
            <tr className="text-sm text-soft">
              <th scope="col" className="text-left">
                {w.state}
              </th>
              <th scope="col">{w.rpm}</th>
              <th scope="col">{w.lines}</th>
              <th scope="col">{w.worst}</th>
              <th scope="col">{w.meter}</th>
              <th scope="col">{w.trips}</th>
            </tr>
          </thead>
          <tbody>
            {sheet.lost.map((one) => (
              <tr key={`${one.cause} ${one.is_running}`} className="border-t border-hair">
                <th scope="row" className="text-left font-normal">
                  {w.causes[one.cause] ?? one.cause}, {one.is_running ? w.running : w.still}
                </th>
                <td className="font-mono">{one.speed_rpm.toFixed(0)}</td>
                <td className="font-mono">{amps(one.line_a)}</td>
                <td className="font-mono">
                  {one.hottest} {one.hottest_times.toFixed(1)}×
                </td>
                <td className="font-mono">
                  {Object.values(one.motor_v)
                    .map((volts) => volts.toFixed(0))
                    .join(" / ")}
                </td>
                <td className="font-mono">
                  {one.trips_s === null ? w.never : `${one.trips_s.toFixed(0)} s`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <ul className="list-disc space-y-1 pl-5">
        {sheet.lost.slice(1).map((one) => (
          <li key={one.said}>{one.said}</li>
        ))}
      </ul>
      {sheet.lost_says.map((text) => (
        <p key={text}>{text}</p>
      ))}
    </section>
  );
}
