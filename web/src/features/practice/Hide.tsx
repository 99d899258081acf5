import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, told } from "../../api/client";
import { CircuitSelect } from "../../components/CircuitSelect";
import { Drawer } from "../../components/inputs";
import { ProblemSlab } from "../../components/shapes";
import { useTried } from "../../state/useTried";
import { practiceWords as w } from "../../words/practice";

/** Hide a fault in a circuit for a colleague to find. */
export function Hide({ works }: { works: string }) {
  const client = useQueryClient();
  const [circuit, setCircuit] = useState("");
  const [fault, setFault] = useState("");
  const [isDone, setDone] = useState(false);
  const { problem, isBusy, tried } = useTried();
  const { data } = useQuery({
    queryKey: ["hideable", works, circuit],
    enabled: circuit !== "",
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/practice/hideable", {
          params: { path: { works }, query: { circuit } },
          signal,
        }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return (
    <Drawer name={w.hideOne} hint={w.hideHint}>
      {problem && <ProblemSlab problem={problem} />}
      <div className="flex flex-wrap items-end gap-3">
        <CircuitSelect
          works={works}
          label={w.inCircuit}
          any=""
          value={circuit}
          onValueChange={(code) => {
            setCircuit(code);
            setFault("");
            setDone(false);
          }}
        />
        {circuit && (
          <label className="text-sm text-soft">
            {w.fault}
            <select
              className="control block max-w-full text-ink"
              value={fault}
              disabled={!data}
              onChange={(event) => setFault(event.target.value)}
            >
              <option value="">{data ? "" : w.laidOut}</option>
              {data?.faults.map(([id, said]) => (
                <option key={id} value={id}>
                  {said}
                </option>
              ))}
            </select>
          </label>
        )}
        <button
          type="button"
          className="control"
          disabled={!fault || isBusy}
          onClick={() =>
            void tried(() =>
              told(
                api.POST("/api/w/{works}/practice/hide", {
                  params: { path: { works } },
                  body: { circuit, fault },
                }),
              ),
            ).then((made) => {
              if (!made) return;
              setFault("");
              setDone(true);
              void client.invalidateQueries({ queryKey: ["practice", works] });
            })
          }
        >
          {w.hide}
        </button>
      </div>
      {isDone && <p role="status">{w.isHidden}</p>}
    </Drawer>
  );
}
