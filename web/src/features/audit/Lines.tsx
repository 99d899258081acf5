import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { auditWords as w } from "../../words/audit";
import { words } from "../../words/common";

const COLOR: Record<string, string> = {
  fails: "text-live",
  fails_if: "text-live",
  doubt: "text-caution",
  unknown: "text-caution",
};

/** Lines of an audit, each opening its job where it is seen. */
export function Lines({
  works,
  found,
  onPage,
}: {
  works: string;
  found: Schemas["AuditLinesOut"];
  onPage: (page: number) => void;
}) {
  return (
    <>
      <p role="status" className="text-soft">
        {w.linesOf(found.found, found.jobs)}
      </p>
      {found.found === 0 && <p>{w.none}</p>}
      <ol data-testid="lines">
        {found.lines.map((line) => (
          <li
            key={line.id}
            className="grid gap-x-4 border-t border-hair py-2 sm:grid-cols-[10rem_minmax(0,1fr)]"
          >
            <div>
              <Link
                className="font-mono font-semibold underline"
                aria-label={w.openJob(line.tag, words.steps[line.step] ?? line.step)}
                to={`/w/${works}/m/${encodeURIComponent(line.tag)}/j/${line.job}/${line.step}`}
              >
                {line.tag}
              </Link>
              <p className="text-sm text-soft">
                {[line.machine, line.panel].filter(Boolean).join(" · ")}
              </p>
            </div>
            <div>
              <p>
                <b className={COLOR[line.state] ?? ""}>
                  {line.topic_said}: {line.state_said}.
                </b>{" "}
                {line.said} <span className="text-soft">{line.do}</span>
              </p>
              {line.guesses.map((guess) => (
                <p key={guess} className="text-sm text-caution">
                  {w.assumed} {guess}
                </p>
              ))}
              <p className="text-sm text-soft">
                {[
                  line.rule,
                  line.was_said === null ? "" : line.was_said ? w.was(line.was_said) : w.new,
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </p>
            </div>
          </li>
        ))}
      </ol>
      {found.pages > 1 && (
        <nav className="flex flex-wrap items-center gap-3" aria-label={w.lines}>
          <button
            type="button"
            className="control"
            disabled={found.page <= 1}
            onClick={() => onPage(found.page - 1)}
          >
            {w.earlier}
          </button>
          {w.page(found.page, found.pages)}
          <button
            type="button"
            className="control"
            disabled={found.page >= found.pages}
            onClick={() => onPage(found.page + 1)}
          >
            {w.later}
          </button>
        </nav>
      )}
    </>
  );
}
