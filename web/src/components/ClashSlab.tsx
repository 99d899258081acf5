import { same } from "../state/job";
import type { JobState } from "../state/useJob";
import { frameWords } from "../words/frame";
import { Stop } from "./shapes";

/** Return the fields in which two versions differ, each as text. */
export function differences(
  mine: Record<string, unknown>,
  theirs: Record<string, unknown>,
): { field: string; mine: string; theirs: string }[] {
  const said = (value: unknown) =>
    value === null || value === undefined || value === ""
      ? frameWords.notGiven
      : typeof value === "string"
        ? value
        : JSON.stringify(value);
  return [...new Set([...Object.keys(mine), ...Object.keys(theirs)])]
    .filter((field) => !same(mine[field], theirs[field]))
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
      title={frameWords.changedAfterYou(clash.theirs.by, clash.theirs.at.slice(-5))}
    >
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left">
            <th scope="col">{frameWords.what}</th>
            <th scope="col">{frameWords.yours}</th>
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
          {frameWords.takeTheirs}
        </button>
        <button type="button" className="control" onClick={() => state.settle("mine")}>
          {frameWords.keepMineNext}
        </button>
      </div>
      <p className="text-sm">{frameWords.bothStayHistory}</p>
    </Stop>
  );
}
