import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, told } from "../../api/client";
import { CircuitSelect } from "../../components/CircuitSelect";
import { Coming } from "../../components/Edges";
import { Words } from "../../components/inputs";
import { practiceWords as w } from "../../words/practice";
import { Hide } from "./Hide";

type HiddenBy = Schemas["PracticeOut"]["hidden"][number];

const fresh = () => Math.floor(Math.random() * 2 ** 31);
const MOST_LISTED = 40;

/** A fault is hidden in a circuit: readings cost minutes, until someone is accused. */
export function Hidden({ works, by }: { works: string; by: readonly HiddenBy[] }) {
  const [seed, setSeed] = useState(fresh);
  const [circuit, setCircuit] = useState("");
  const [hidden, setHidden] = useState<number | null>(null);
  const [taken, setTaken] = useState<string[]>([]);
  const [accused, setAccused] = useState("");
  const [filter, setFilter] = useState("");
  const { data } = useQuery({
    queryKey: ["hidden", works, seed, circuit, hidden, taken, accused],
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/practice/hidden", {
          params: { path: { works } },
          body: { seed, circuit, hidden, taken, accused },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const begin = (code: string, row: number | null) => {
    setSeed(fresh());
    setCircuit(code);
    setHidden(row);
    setTaken([]);
    setAccused("");
  };
  if (!data) return <Coming />;
  const shown = data.readings.filter((one) =>
    one.said.toLowerCase().includes(filter.trim().toLowerCase()),
  );
  return (
    <section className="space-y-3 border-2 border-ink bg-sheet p-4" data-testid="hidden">
      <div className="flex flex-wrap items-end gap-3">
        <CircuitSelect
          works={works}
          label={w.inCircuit}
          any={w.anyUsual}
          value={circuit}
          onValueChange={(code) => begin(code, null)}
        />
        {by.length > 0 && (
          <label className="text-sm text-soft">
            {w.byColleague}
            <select
              className="control block max-w-72"
              value={hidden ?? ""}
              onChange={(event) =>
                begin("", event.target.value === "" ? null : Number(event.target.value))
              }
            >
              <option value="" />
              {by.map((one) => (
                <option key={one.id} value={one.id}>
                  {w.hiddenBy(one.circuit, one.by, one.at)}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
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
            onClick={() => begin(circuit, null)}
          >
            {w.another}
          </button>
        </div>
      ) : (
        <>
          <label className="block text-sm text-soft">
            {w.accuse}
            <select
              className="control block max-w-full text-ink"
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
      <Hide works={works} />
    </section>
  );
}
