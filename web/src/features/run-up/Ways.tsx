import { runUpWords as w } from "../../words/runUp";
import type { RunUp, Way } from "./useRunUp";
import { Wide } from "./Wide";

/** All ways to start, side by side; a row is tapped to see its curves. */
export function Ways({
  sheet,
  chosen,
  onChoose,
}: {
  sheet: RunUp;
  chosen: Way;
  onChoose: (method: string) => void;
}) {
  return (
    <section aria-labelledby="ways" className="min-w-0 space-y-2">
      <h2 id="ways" className="stamp">
        {w.compare}
      </h2>
      <Wide name={w.compare}>
        <table className="w-full text-right" data-testid="ways">
          <thead>
            <tr className="text-sm text-soft">
              <th scope="col" className="text-left">
                {w.way}
              </th>
              <th scope="col">{w.startA}</th>
              <th scope="col">{w.startTorque}</th>
              <th scope="col">{w.takes}</th>
              <th scope="col">{w.dip}</th>
              <th scope="col">{w.heat}</th>
              <th scope="col" className="text-left pl-3">
                {w.verdict}
              </th>
            </tr>
          </thead>
          <tbody>
            {sheet.ways.map((way) => (
              <tr key={way.method} className="border-t border-hair">
                <th scope="row" className="text-left font-normal">
                  <button
                    type="button"
                    className="ask text-left"
                    aria-pressed={way.method === chosen.method}
                    onClick={() => onChoose(way.method)}
                  >
                    {way.method === chosen.method ? "▸ " : ""}
                    {way.name}
                  </button>
                </th>
                <td className="font-mono">{way.start_a.toFixed(0)}</td>
                <td className="font-mono">{way.start_torque_percent.toFixed(0)}</td>
                <td className="font-mono">{way.at_speed_s?.toFixed(1) ?? "—"}</td>
                <td className="font-mono">{way.sag_percent?.toFixed(1) ?? w.unknown}</td>
                <td className="font-mono">{way.hottest_c.toFixed(0)}</td>
                <td
                  className={`pl-3 text-left ${way.is_good ? "text-proven" : "font-semibold text-live"}`}
                >
                  {way.is_good || way.ending !== "running" ? w.endings[way.ending] : w.notGood}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      {sheet.others.length > 0 && (
        <details>
          <summary className="ask">{w.notHere}</summary>
          <ul className="list-disc pl-5">
            {sheet.others.map((one) => (
              <li key={one.method}>
                <b>{one.name}</b>: {one.refusal?.detail}
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}
