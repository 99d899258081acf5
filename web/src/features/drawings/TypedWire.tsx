import { useMutation } from "@tanstack/react-query";
import { useId, useState } from "react";
import { api, Refused, told } from "../../api/client";
import { ProblemSlab } from "../../components/shapes";
import type { Given } from "../../state/useJob";
import { drawingsWords } from "../../words/drawings";
import type { Edit } from "./edits";

/** Wires from one typed line: tag and terminal, a dash, the next. */
export function TypedWire({
  works,
  given,
  label,
  onAdd,
}: {
  works: string;
  given: Given;
  label: string;
  onAdd: (edits: readonly Partial<Edit>[]) => void;
}) {
  const id = useId();
  const [line, setLine] = useState("");
  const read = useMutation({
    mutationFn: () =>
      told(
        api.POST("/api/w/{works}/trace", { params: { path: { works } }, body: { given, line } }),
      ),
    onSuccess: (wires) => {
      onAdd(
        wires.map((wire) => ({
          kind: "add_wire",
          start: wire.start,
          end: wire.end,
          tag: wire.number,
        })),
      );
      setLine("");
    },
  });
  return (
    <>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (line.trim()) read.mutate();
        }}
      >
        <div className="min-w-0 grow">
          <label htmlFor={id} className="block text-sm text-soft">
            {label}
          </label>
          <input
            id={id}
            className="field font-mono"
            autoComplete="off"
            spellCheck={false}
            maxLength={200}
            value={line}
            placeholder={drawingsWords.oneLineExample}
            onChange={(event) => setLine(event.target.value)}
          />
        </div>
        <button type="submit" className="control">
          {drawingsWords.addWire}
        </button>
      </form>
      {read.error instanceof Refused && <ProblemSlab problem={read.error.problem} />}
    </>
  );
}
