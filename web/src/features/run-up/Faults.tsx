import { runUpWords as w } from "../../words/runUp";
import type { RunUp } from "./useRunUp";
import { Wide } from "./Wide";

type State = RunUp["faults"][number];

const amps = (of: Record<string, number>) =>
  ["L1", "L2", "L3"]
    .filter((line) => line in of)
    .map((line) => (of[line] ?? 0).toFixed(0))
    .join(" / ");

const after = (seconds: number | null) => (seconds === null ? w.never : `${seconds.toFixed(0)} s`);

/** Lost line and coil open by themselves; every other fault one tap away. */
const FIRST: readonly string[] = ["sound", "fuse", "winding", "start_open", "switch_stuck"];

function Table({ states, name }: { states: readonly State[]; name: string }) {
  return (
    <>
      <Wide name={name}>
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
              <th scope="col">{w.burns}</th>
            </tr>
          </thead>
          <tbody>
            {states.map((one) => (
              <tr key={`${one.cause} ${one.is_running}`} className="border-t border-hair">
                <th scope="row" className="text-left font-normal">
                  {one.what}, {one.is_running ? w.running : w.still}
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
                <td className="font-mono">{after(one.trips_s)}</td>
                <td className="font-mono">{after(one.burns_s)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      <ul className="list-disc space-y-1 pl-5">
        {states
          .filter((one) => one.cause !== "sound")
          .map((one) => (
            <li key={one.said}>{one.said}</li>
          ))}
      </ul>
    </>
  );
}

/** One thing wrong, running and before the start: who carries what, and what a meter shows. */
export function Faults({ sheet }: { sheet: RunUp }) {
  const first = sheet.faults.filter((one) => FIRST.includes(one.cause));
  const title = sheet.kind === "single" ? w.startTitle : w.lostTitle;
  const others = sheet.faults.filter((one) => !FIRST.includes(one.cause));
  return (
    <section aria-labelledby="faults" className="min-w-0 space-y-2">
      <h2 id="faults" className="stamp">
        {title}
      </h2>
      <div data-testid="lost-phase" className="space-y-2">
        <Table states={first} name={title} />
        {sheet.fault_says.map((text) => (
          <p key={text}>{text}</p>
        ))}
      </div>
      <details data-testid="other-faults">
        <summary className="ask">{w.otherFaults}</summary>
        <Table states={others} name={w.otherFaults} />
      </details>
    </section>
  );
}
