import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { Refused } from "../../api/client";
import { PlantPage } from "../../components/PlantPage";
import { Progress } from "../../components/Progress";
import { ProblemSlab } from "../../components/shapes";
import { auditWords as w } from "../../words/audit";
import { Beside } from "./Beside";
import { Lines } from "./Lines";
import { AS_IT_IS, Suppose } from "./Suppose";
import { Topics } from "./Topics";
import { type Audit, type Chosen, FOUND, useAudit } from "./useAudit";

/** What in this plant does not hold: every motor against the rules, the worst first. */
export function AuditScreen() {
  const { works = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const n = Number(params.get("n")) || null;
  const [chosen, setChosen] = useState(FOUND);
  const room = useAudit(works, n, chosen, (made) => {
    setChosen(FOUND);
    setParams({ n: String(made) });
  });
  const { one, now } = room;
  const isRunning = one?.state === "running";
  const done = now?.done ?? one?.done ?? 0;
  return (
    <PlantPage
      works={works}
      title={w.title}
      headline={one ? (isRunning ? w.progress(done, one.total) : one.headline) : w.ask}
    >
      {room.problem && <ProblemSlab problem={room.problem} />}
      {room.error instanceof Refused && <ProblemSlab problem={room.error.problem} />}
      <div className="flex flex-wrap items-center gap-3">
        {isRunning ? (
          <button type="button" className="control" onClick={() => void room.stop()}>
            {w.stop}
          </button>
        ) : (
          <button
            type="button"
            className="control"
            data-primary={room.isEmpty}
            disabled={room.isBusy}
            onClick={() => void room.begin(AS_IT_IS)}
          >
            {room.isEmpty ? w.begin : w.again}
          </button>
        )}
        {one?.is_kept && !isRunning && <Files works={works} n={one.n} />}
      </div>
      {room.isEmpty && <p className="max-w-3xl text-soft">{w.says}</p>}
      {!isRunning && <Suppose isBusy={room.isBusy} onBegin={(given) => void room.begin(given)} />}
      {one && <Head one={one} done={done} />}
      {one?.is_kept && !isRunning && (
        <div className="grid gap-x-8 gap-y-5 lg:grid-cols-[minmax(0,1fr)_320px]">
          <div className="min-w-0 space-y-5">
            <Topics
              topics={one.topics}
              chosen={chosen}
              onChoose={(change) => setChosen({ ...FOUND, state: "", ...change })}
            />
            <section aria-label={w.lines} className="space-y-2">
              <h2 className="stamp">{w.lines}</h2>
              <Filters one={one} chosen={chosen} onChoose={setChosen} />
              {room.lines && (
                <Lines
                  works={works}
                  found={room.lines}
                  onPage={(page) => setChosen({ ...chosen, page })}
                />
              )}
              <p className="text-sm text-soft">{w.defer}</p>
            </section>
          </div>
          <Beside
            audit={one}
            chosen={chosen}
            onChoose={(change) => setChosen({ ...FOUND, state: "", ...change })}
          />
        </div>
      )}
      {room.list.length > 1 && (
        <section aria-label={w.before} className="space-y-1">
          <h2 className="stamp">{w.before}</h2>
          <ul>
            {room.list
              .filter((line) => line.n !== one?.n)
              .map((line) => (
                <li key={line.n}>
                  <button
                    type="button"
                    className="ask"
                    onClick={() => {
                      setChosen(FOUND);
                      setParams({ n: String(line.n) });
                    }}
                  >
                    {[`${w.title} ${line.n}`, ...line.supposed].join(", ")}
                  </button>{" "}
                  <span className="text-soft">
                    {line.by} · {line.at} · {w.states[line.state] ?? line.state}
                  </span>
                </li>
              ))}
          </ul>
        </section>
      )}
    </PlantPage>
  );
}

function Files({ works, n }: { works: string; n: number }) {
  const base = `/api/w/${works}/audits/${n}`;
  return (
    <>
      <a className="control inline-flex" href={`${base}/audit.csv`} download={`audit ${n}.csv`}>
        {w.asTable}
      </a>
      <a className="control inline-flex" href={`${base}/audit.xlsx`} download={`audit ${n}.xlsx`}>
        {w.asWorkbook}
      </a>
      <a
        className="control inline-flex"
        href={`${base}/audit.pdf`}
        target="_blank"
        rel="noreferrer"
      >
        {w.onPaper}
      </a>
    </>
  );
}

/** Whose audit it is, what it supposes, how far it is, and what could not be read. */
function Head({ one, done }: { one: Audit; done: number }) {
  const { works = "" } = useParams();
  return (
    <div className="space-y-2" data-testid="audit">
      <p className="text-soft">
        {w.title} {one.n} · {one.by} · {one.at} · {w.states[one.state] ?? one.state}
        {one.state === "cancelled" && ` · ${w.progress(one.done, one.total)}`}
      </p>
      {one.supposed.length > 0 && (
        <p className="font-semibold text-caution">{w.supposed(one.supposed.join(", "))}</p>
      )}
      {one.left.map((text) => (
        <p key={text} className="text-caution">
          {text}
        </p>
      ))}
      {one.state === "running" && (
        <Progress said={w.progress(done, one.total)} done={done} total={one.total} />
      )}
      {!one.is_kept && <p className="text-soft">{w.old}</p>}
      {one.unread.length > 0 && (
        <section aria-label={w.unread}>
          <h2 className="stamp text-live">{w.unread}</h2>
          <ul>
            {one.unread.map((job) => (
              <li key={job.tag}>
                <Link
                  className="font-mono underline"
                  to={`/w/${works}/m/${encodeURIComponent(job.tag)}/j/${job.job}`}
                >
                  {job.tag}
                </Link>{" "}
                {job.reason}
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

/** What is chosen, each to be taken off; and what changed since the audit before. */
function Filters({
  one,
  chosen,
  onChoose,
}: {
  one: Audit;
  chosen: Chosen;
  onChoose: (chosen: Chosen) => void;
}) {
  const topic = one.topics.find((item) => item.topic === chosen.topic);
  const said = [
    topic?.said,
    topic?.counts.find((count) => count.state === chosen.state)?.said,
    chosen.machine,
    chosen.panel,
    one.needs.find((need) => need.fact === chosen.fact)?.said,
    w.changeOf[chosen.change],
  ].filter(Boolean);
  return (
    <div className="flex flex-wrap items-center gap-3">
      <button
        type="button"
        className="control text-sm"
        aria-pressed={said.length === 0 && chosen.state === "found"}
        onClick={() => onChoose(FOUND)}
      >
        {w.found}
      </button>
      <button
        type="button"
        className="control text-sm"
        aria-pressed={said.length === 0 && chosen.state === ""}
        onClick={() => onChoose({ ...FOUND, state: "" })}
      >
        {w.all}
      </button>
      {said.length > 0 && <span className="font-semibold">{said.join(" · ")}</span>}
      {one.before !== null && (
        <span className="flex flex-wrap items-center gap-2">
          <span className="text-soft">
            {w.changes} {one.before}:
          </span>
          {(["new", "gone", "moved"] as const).map((change) => (
            <button
              key={change}
              type="button"
              className="control text-sm"
              disabled={one[change] === 0}
              aria-pressed={chosen.change === change}
              onClick={() => onChoose({ ...FOUND, state: "", change })}
            >
              {one[change]} {w.changeOf[change]}
            </button>
          ))}
        </span>
      )}
    </div>
  );
}
