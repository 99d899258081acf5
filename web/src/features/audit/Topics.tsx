import type { Schemas } from "../../api/client";
import { auditWords as w } from "../../words/audit";
import type { Chosen } from "./useAudit";

/** Looks of a state: what fails is full, what nobody knows is empty, what holds is ruled. */
const LOOK: Record<string, string> = {
  fails: "bg-live",
  fails_if: "border-y-2 border-live bg-caution",
  doubt: "bg-caution",
  unknown: "border-y-2 border-caution bg-caution-wash",
  not_recorded: "border-y-2 border-edge bg-sheet",
  guess: "border-y-2 border-proven bg-sheet",
  holds: "bg-proven",
  unread: "border-y-2 border-live bg-sheet",
};

/** What holds has no line to open. */
const HOLDS = new Set(["guess", "holds"]);

/** Every topic as a strip of the plant's motors by state; a count opens its lines. */
export function Topics({
  topics,
  chosen,
  onChoose,
}: {
  topics: Schemas["AuditTopicOut"][];
  chosen: Chosen;
  onChoose: (change: Partial<Chosen>) => void;
}) {
  return (
    <section aria-label={w.topics} className="space-y-1" data-testid="topics">
      <h2 className="stamp">{w.topics}</h2>
      <ul>
        {topics.map((topic) => {
          const total = topic.counts.reduce((sum, count) => sum + count.jobs, 0);
          return (
            <li
              key={topic.topic}
              className="grid gap-x-4 border-t border-hair py-1 sm:grid-cols-[10rem_minmax(6rem,1fr)_minmax(0,2fr)] sm:items-center"
            >
              <span className="font-semibold">{topic.said}</span>
              <span aria-hidden="true" className="flex h-5 gap-px bg-sunk">
                {topic.counts.map((count) => (
                  <span
                    key={count.state}
                    className={LOOK[count.state] ?? ""}
                    style={{ width: `${(100 * count.jobs) / total}%` }}
                  />
                ))}
              </span>
              <span className="flex flex-wrap items-center gap-x-3 text-sm">
                {topic.counts.map((count) =>
                  HOLDS.has(count.state) ? (
                    <span key={count.state} className="text-soft">
                      {w.count(count.jobs, count.said)}
                    </span>
                  ) : (
                    <button
                      key={count.state}
                      type="button"
                      className="ask"
                      aria-pressed={chosen.topic === topic.topic && chosen.state === count.state}
                      onClick={() => onChoose({ topic: topic.topic, state: count.state })}
                    >
                      {w.count(count.jobs, count.said)}
                    </button>
                  ),
                )}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
