import { useId } from "react";
import { useParams, useSearchParams } from "react-router";
import { PlantPage } from "../../components/PlantPage";
import { Progress } from "../../components/Progress";
import { ProblemSlab } from "../../components/shapes";
import { scheduleWords as w } from "../../words/schedule";
import { Columns } from "./Columns";
import { useSchedule } from "./useSchedule";

/** A table of motors: what can be taken, what not and why; taken by a worker while one goes on. */
export function ScheduleScreen() {
  const { works = "" } = useParams();
  const id = useId();
  const [params, setParams] = useSearchParams();
  const n = Number(params.get("n")) || null;
  const room = useSchedule(works, n, (made) => setParams({ n: String(made) }));
  const { one, now } = room;
  const done = now?.done ?? one?.done ?? 0;
  const total = now?.total || one?.total || one?.good || 0;
  const headline = !one
    ? w.ask
    : one.state === "read"
      ? w.read(one.good, one.bad_lines)
      : one.state === "done"
        ? w.taken(done)
        : `${w.progress(done, total)} · ${w.states[one.state] ?? one.state}`;
  return (
    <PlantPage works={works} title={w.title} headline={headline}>
      {room.problem && <ProblemSlab problem={room.problem} />}
      <div className="flex flex-wrap items-center gap-3">
        <label htmlFor={id} className="control inline-flex cursor-pointer" data-primary={!one}>
          {w.choose}
        </label>
        <input
          id={id}
          type="file"
          accept=".csv,.txt,.tsv,.xlsx,text/csv"
          className="sr-only"
          disabled={room.isBusy}
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) void room.read(file);
            event.target.value = "";
          }}
        />
        {one?.state === "read" && one.good > 0 && (
          <button
            type="button"
            className="control"
            data-primary="true"
            disabled={room.isBusy}
            onClick={() => void room.take()}
          >
            {w.take(one.good)}
          </button>
        )}
        {one?.state === "running" && (
          <button type="button" className="control" onClick={() => void room.stop()}>
            {w.stop}
          </button>
        )}
      </div>
      {!one && <p className="max-w-3xl text-soft">{w.says}</p>}
      {one && (
        <section className="space-y-4" data-testid="schedule">
          <p>
            <b>{one.name}</b>{" "}
            <span className="text-soft">
              {one.by} · {one.at}
              {one.is_here &&
                ` · ${one.sheet ? w.sheet(one.sheet) : w.encoding(one.encoding, w.delimiters[one.delimiter] ?? one.delimiter)}`}
            </span>
          </p>
          {one.is_encoding_guessed && <p className="text-caution">{w.guess}</p>}
          {one.state !== "read" && (
            <div role="status" data-testid="came">
              <Progress said={w.progress(done, total)} done={done} total={total} />
              {one.state !== "running" && (
                <p className="font-semibold">
                  {w.came(one.added, one.changed, one.same)}
                  {one.kept.length > 0 && ` · ${w.kept(one.kept.length)}`}
                </p>
              )}
              {one.kept.length > 0 && (
                <p className="font-mono text-sm">{one.kept.map((line) => line.tag).join(", ")}</p>
              )}
            </div>
          )}
          {one.is_here ? (
            <Columns
              key={one.n}
              schedule={one}
              isOpen={one.state === "read"}
              onMap={(told) => void room.map(told)}
            />
          ) : (
            <p className="text-soft">{w.gone}</p>
          )}
          {one.bad.length > 0 && (
            <section className="space-y-2" aria-label={w.bad} data-testid="bad">
              <h2 className="stamp">{w.bad}</h2>
              <a
                className="control inline-flex"
                href={`/api/w/${works}/schedules/${one.n}/repair.csv`}
                download={`${one.name} repair.csv`}
              >
                {w.repair}
              </a>
              <div className="overflow-x-auto">
                <table className="w-full">
                  <thead>
                    <tr>
                      {[w.line, w.column, w.value, w.why].map((name) => (
                        <th key={name} scope="col" className="pr-3 text-left font-normal text-soft">
                          {name}
                        </th>
                      ))}
                    </tr>
                  </thead>
                  <tbody>
                    {one.bad.map((cell) => (
                      <tr
                        key={`${cell.line} ${cell.field}`}
                        className="border-t border-hair align-top"
                      >
                        <td className="pr-3 font-mono">{cell.line}</td>
                        <td className="pr-3">{w.fields[cell.field] ?? cell.field}</td>
                        <td className="pr-3 font-mono text-live">{cell.value || "–"}</td>
                        <td>
                          {cell.reason} <span className="text-soft">{cell.hint}</span>
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
            </section>
          )}
          {one.doubts.length > 0 && (
            <details>
              <summary className="ask">{w.doubts}</summary>
              <ul className="list-disc pl-5">
                {one.doubts.map((doubt) => (
                  <li key={doubt.line}>
                    <b className="font-mono">{doubt.tag}</b> {doubt.said.join(" ")}
                  </li>
                ))}
              </ul>
            </details>
          )}
        </section>
      )}
      {room.list.length > 0 && (
        <section aria-label={w.before} className="space-y-1">
          <h2 className="stamp">{w.before}</h2>
          <ul>
            {room.list.map((line) => (
              <li key={line.n}>
                <button
                  type="button"
                  className="ask"
                  onClick={() => setParams({ n: String(line.n) })}
                >
                  {line.name}
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
