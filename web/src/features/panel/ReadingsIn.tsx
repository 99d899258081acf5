import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useId } from "react";
import { useParams } from "react-router";
import { api, Refused, told } from "../../api/client";
import { ProblemSlab } from "../../components/shapes";
import { put } from "../../state/renew";
import { panelWords as w } from "../../words/panel";

/** Readings from a table: how many were kept, and each line that was not, with its field. */
export function ReadingsIn({ onTaken }: { onTaken: () => void }) {
  const id = useId();
  const client = useQueryClient();
  const { works = "", tag = "", number = "1" } = useParams();
  const take = useMutation({
    mutationFn: async (file: File) =>
      told(
        api.POST("/api/w/{works}/m/{tag}/j/{number}/panel/readings", {
          params: { path: { works, tag, number: Number(number) } },
          body: { text: await file.text(), name: file.name.slice(0, 100) },
        }),
      ),
    onSuccess: async (found) => {
      await put(client, ["panel", works, tag, Number(number)], found.panel);
      onTaken();
    },
  });
  return (
    <div>
      <label htmlFor={id} className="ask">
        {w.readingsIn}
      </label>
      <input
        id={id}
        type="file"
        accept=".csv,text/csv"
        className="sr-only"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) take.mutate(file);
          event.target.value = "";
        }}
      />
      {take.error instanceof Refused && <ProblemSlab problem={take.error.problem} />}
      {take.data && (
        <div role="status">
          <p>{w.readingsKept(take.data.kept)}</p>
          <ul className="list-disc pl-5 text-caution">
            {take.data.bad.map((one) => (
              <li key={`${one.line} ${one.field}`}>{w.badLine(one.line, one.field, one.reason)}</li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}
