import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, told } from "../../api/client";
import { Coming } from "../../components/Edges";
import { Words } from "../../components/inputs";
import { practiceWords as w } from "../../words/practice";

const fresh = () => Math.floor(Math.random() * 2 ** 31);
const MOST_LISTED = 40;

/** A fault is hidden in a circuit: readings cost minutes, until someone is accused. */
export function Hidden({ works }: { works: string }) {
  const [seed, setSeed] = useState(fresh);
  const [taken, setTaken] = useState<string[]>([]);
  const [accused, setAccused] = useState("");
  const [filter, setFilter] = useState("");
  const { data } = useQuery({
    queryKey: ["hidden", works, seed, taken, accused],
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/practice/hidden", {
          params: { path: { works } },
          body: { seed, taken, accused },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (!data) return <Coming />;
  const shown = data.readings.filter((one) =>
    one.said.toLowerCase().includes(filter.trim().toLowerCase()),
  );
  return (
    <section className="space-y-3 border-2 border-ink bg-sheet p-4" data-testid="hidden">
      <p className="font-headline text-xl font-bold">
        {data.circuit} · {w.symptom}: “{data.wording}”
      </p>
      <p className="text-soft">{w.spent(data.minutes)}</p>
      {data.taken.length > 0 && (
        <ol className="list-decimal pl-6" aria-label={w.taken}>
          {data.taken.map(([id, said, shows]) => (
            <li key={id}>
              {said} <span className="font-mono font-semibold">{shows}</span>
            </li>
          ))}
        </ol>
      )}
      {data.is_found !== null ? (
        <div className="space-y-2" data-testid="verdict">
          <p className="font-headline text-2xl font-bold">
            {data.is_found ? w.found : w.notIt} {w.itWas(data.truth)}
          </p>
          <button
            type="button"
            className="control"
            data-primary="true"
            onClick={() => {
              setSeed(fresh());
              setTaken([]);
              setAccused("");
            }}
          >
            {w.another}
          </button>
        </div>
      ) : (
        <>
          <label className="ask block">
            {w.accuse}
            <select
              className="control block max-w-full"
              value=""
              onChange={(event) => setAccused(event.target.value)}
            >
              <option value="" />
              {data.suspects.map(([id, said]) => (
                <option key={id} value={id}>
                  {said}
                </option>
              ))}
            </select>
          </label>
          <h2 className="font-headline text-lg font-bold">{w.take}</h2>
          <Words label={w.find} value={filter} onValueChange={setFilter} />
          <ul className="max-h-[28rem] space-y-1 overflow-y-auto">
            {shown.slice(0, MOST_LISTED).map((one) => (
              <li key={one.id}>
                <button
                  type="button"
                  className="ask text-left"
                  onClick={() => setTaken([...taken, one.id])}
                >
                  {one.said}
                </button>{" "}
                <span className="text-soft">{w.minutes(one.minutes)}</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
