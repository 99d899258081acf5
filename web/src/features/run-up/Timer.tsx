import type { ReactNode } from "react";
import { runUpWords as w } from "../../words/runUp";
import type { Advice } from "./useRunUp";
import { Wide } from "./Wide";

/** The setting of the timer, what shorter and longer ones meet, and how to find it at the panel. */
export function Timer({ advice, slab }: { advice: Advice | undefined; slab: ReactNode }) {
  // room for what comes, so that nothing below it moves
  if (!advice?.has_timer) return <div className="min-h-[23rem]">{slab}</div>;
  return (
    <section
      aria-labelledby="timer"
      className="metal min-h-[23rem] min-w-0 space-y-2 px-5 py-4"
      data-testid="timer"
    >
      <h2 id="timer" className="font-headline text-2xl font-bold">
        {advice.setting_s === null ? w.noSetting : w.setTimer(advice.setting_s)}
      </h2>
      {slab}
      {advice.changes.length > 0 && (
        <Wide name={w.changeOver}>
          <table className="w-full text-right">
            <caption className="stamp text-left">{w.changeOver}</caption>
            <thead>
              <tr className="text-sm text-soft">
                <th scope="col">{w.setting}</th>
                <th scope="col">{w.rpm}</th>
                <th scope="col">{w.before}</th>
                <th scope="col">{w.after}</th>
              </tr>
            </thead>
            <tbody className="font-mono">
              {advice.changes.map((one) => (
                <tr
                  key={one.setting_s}
                  className={`border-t border-hair ${one.setting_s === advice.setting_s ? "font-semibold" : ""}`}
                >
                  <th scope="row">{one.setting_s}</th>
                  <td>{one.speed_rpm.toFixed(0)}</td>
                  <td>{one.before_a.toFixed(0)}</td>
                  <td>{one.peak_a.toFixed(0)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
      {advice.changes.length > 0 && <p className="text-sm text-soft">{w.peaks}</p>}
      {advice.other_jumpers_a !== null && <p>{w.jumpers(advice.other_jumpers_a.toFixed(0))}</p>}
      {advice.findings.map((text) => (
        <p key={text}>{text}</p>
      ))}
      {advice.never_ends && <p className="font-semibold text-live">{advice.never_ends}</p>}
    </section>
  );
}
