import { drawingsWords } from "../../words/drawings";
import { frameWords } from "../../words/frame";
import { comparedWith, type Drawn } from "./verdict";

/** What the drawing says of the last edit, at once. */
export function Verdict({
  before,
  now,
  isOld,
  onShow,
}: {
  before: readonly Drawn[];
  now: readonly Drawn[];
  /** The drawing shown is still the one before the edit: nothing can be said yet. */
  isOld: boolean;
  onShow: (problem: Drawn) => void;
}) {
  const { fresh, cured } = comparedWith(before, now);
  return (
    <section
      aria-labelledby="last-edit"
      className="metal space-y-1 px-5 py-3"
      data-testid="verdict"
      role="status"
    >
      <h2 id="last-edit" className="stamp text-soft">
        {drawingsWords.lastEdit}
      </h2>
      {isOld && <p>{frameWords.calculating}</p>}
      <p hidden={isOld}>
        {fresh.length === 0 && <b>{drawingsWords.nothingNew} </b>}
        {cured.length > 0 && <b>{drawingsWords.cured(cured.length)} </b>}
        <span className="text-soft">{drawingsWords.open(now.length)}</span>
      </p>
      {!isOld && <Problems problems={fresh} onShow={onShow} />}
    </section>
  );
}

/** Problems by name; each lights what it is about. */
export function Problems({
  problems,
  onShow,
}: {
  problems: readonly Drawn[];
  onShow: (problem: Drawn) => void;
}) {
  return (
    <ul className="space-y-1">
      {problems.map((problem) => (
        <li key={`${problem.rule} ${problem.text}`}>
          <button
            type="button"
            className="w-full border-l-4 border-live px-2 py-1 text-left hover:bg-sunk in-data-[seat=panel]:min-h-14"
            onClick={() => onShow(problem)}
          >
            {problem.text}
          </button>
        </li>
      ))}
    </ul>
  );
}
