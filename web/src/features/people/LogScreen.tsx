import { useDeferredValue, useId, useState } from "react";
import { Link, useParams } from "react-router";
import { Failure } from "../../components/Edges";
import { Choice, Words } from "../../components/inputs";
import { PlantPage } from "../../components/PlantPage";
import { Select } from "../../components/Select";
import { peopleWords as w } from "../../words/people";
import { useLog } from "./useLog";

const ALL = { by: "", action: "", page: 1 };

/** Who did what in a plant, and who opened what on which day. */
export function LogScreen() {
  const { works = "" } = useParams();
  const [isSeen, setSeen] = useState(false);
  const [only, setOnly] = useState(ALL);
  const [word, setWord] = useState("");
  const q = useDeferredValue(word.trim());
  const room = useLog(works, isSeen, { ...only, q });
  const ids = [useId(), useId()];
  if (room.error) return <Failure error={room.error} />;
  const found = isSeen ? room.seen : room.done;
  const set = (change: Partial<typeof ALL>) => setOnly({ ...only, page: 1, ...change });
  return (
    <PlantPage works={works} title={w.log} headline={w.logOf}>
      <Choice
        options={[
          { value: false, label: w.done },
          { value: true, label: w.opened },
        ]}
        value={isSeen}
        onValueChange={(next) => {
          setSeen(next);
          setOnly(ALL);
        }}
      />
      {isSeen && <p className="max-w-3xl text-soft">{w.openedSays}</p>}
      <div className="flex flex-wrap items-end gap-3">
        <div>
          <label htmlFor={ids[0]} className="block text-sm text-soft">
            {w.person}
          </label>
          <Select
            id={ids[0] ?? ""}
            value={only.by}
            options={[
              ["", w.anybody],
              ...room.people.map((one) => [one.username, one.display_name] as const),
            ]}
            wide="w-56!"
            onPick={(by) => set({ by })}
          />
        </div>
        {!isSeen && (
          <div>
            <label htmlFor={ids[1]} className="block text-sm text-soft">
              {w.kind}
            </label>
            <Select
              id={ids[1] ?? ""}
              value={only.action}
              options={[
                ["", w.anything],
                ...(room.done?.actions ?? []).map((name) => [name, name] as const),
              ]}
              wide="w-56!"
              onPick={(action) => set({ action })}
            />
          </div>
        )}
        <Words
          label={w.word}
          value={word}
          onValueChange={(next) => {
            setWord(next);
            set({});
          }}
          className="w-52"
        />
        {!isSeen && (
          <a
            className="control inline-flex"
            href={`/api/w/${works}/log.csv?${new URLSearchParams({ by: only.by, action: only.action, q })}`}
            download={`${works} log.csv`}
          >
            {w.asTable}
          </a>
        )}
      </div>
      {found && (
        <section aria-label={w.log} className="space-y-2">
          <p className="text-soft">{w.lines(found.total)}</p>
          {found.total === 0 && <p>{w.noLines}</p>}
          <ul className="divide-y divide-hair border-y border-hair" data-testid="log">
            {isSeen
              ? room.seen?.lines.map((line) => (
                  <li
                    key={`${line.on} ${line.by} ${line.what}`}
                    className="flex flex-wrap gap-x-4 py-1.5"
                  >
                    <span className="w-36 text-soft">{line.on}</span>
                    <span className="w-52 font-semibold">{line.by}</span>
                    <span className="min-w-0 flex-1 break-words">{line.what}</span>
                  </li>
                ))
              : room.done?.lines.map((line, place) => (
                  <li
                    // biome-ignore lint/suspicious/noArrayIndexKey: two lines may say the same
                    key={place}
                    className="flex flex-wrap gap-x-4 py-1.5"
                  >
                    <span className="w-36 text-soft">{line.at}</span>
                    <span className="w-52 font-semibold">{line.by}</span>
                    <span className="min-w-0 flex-1 break-words">
                      {line.action} <span className="text-soft">{line.target}</span>
                    </span>
                  </li>
                ))}
          </ul>
          {found.pages > 1 && (
            <nav className="flex items-center gap-3" aria-label={w.page(found.page, found.pages)}>
              <button
                type="button"
                className="control"
                disabled={found.page <= 1}
                onClick={() => setOnly({ ...only, page: found.page - 1 })}
              >
                {w.newer}
              </button>
              <span>{w.page(found.page, found.pages)}</span>
              <button
                type="button"
                className="control"
                disabled={found.page >= found.pages}
                onClick={() => setOnly({ ...only, page: found.page + 1 })}
              >
                {w.older}
              </button>
            </nav>
          )}
        </section>
      )}
      <p>
        <Link className="control inline-flex" to={`/w/${works}`}>
          {w.backMotors}
        </Link>
      </p>
    </PlantPage>
  );
}
