import type { JobState } from "../state/useJob";
import { Stop } from "./shapes";

/** Return the fields in which two versions differ, each as text. */
export function differences(
  mine: Record<string, unknown>,
  theirs: Record<string, unknown>,
): { field: string; mine: string; theirs: string }[] {
  const said = (value: unknown) =>
    value === null || value === undefined || value === ""
      ? "not said"
      : typeof value === "string"
        ? value
        : JSON.stringify(value);
  return [...new Set([...Object.keys(mine), ...Object.keys(theirs)])]
    .filter((field) => JSON.stringify(mine[field]) !== JSON.stringify(theirs[field]))
    .map((field) => ({ field, mine: said(mine[field]), theirs: said(theirs[field]) }));
}

/** Two people changed the same thing: only the difference is shown, and a person decides. */
export function ClashSlab({ state }: { state: JobState }) {
  const { clash, given } = state;
  if (!clash || !given) return null;
  const rows = differences(
    given[clash.part] as unknown as Record<string, unknown>,
    clash.body as unknown as Record<string, unknown>,
  );
  return (
    <Stop
      strength="hold"
      title={`${clash.theirs.by} changed this at ${clash.theirs.at.slice(-5)}, after you opened it.`}
    >
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left">
            <th scope="col">What</th>
            <th scope="col">Yours</th>
            <th scope="col">{clash.theirs.by}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.field} className="border-t border-hair align-top">
              <th scope="row" className="py-1 pr-3 text-left">
                {row.field}
              </th>
              <td className="pr-3 font-mono break-words">{row.mine}</td>
              <td className="font-mono break-words">{row.theirs}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="flex flex-wrap gap-3">
        <button type="button" className="control" onClick={() => state.settle("theirs")}>
          Take theirs
        </button>
        <button type="button" className="control" onClick={() => state.settle("mine")}>
          Keep mine as the next version
        </button>
      </div>
      <p className="text-sm">Both stay in the history, whichever you choose.</p>
    </Stop>
  );
}
