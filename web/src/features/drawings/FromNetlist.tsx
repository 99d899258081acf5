import { useMutation } from "@tanstack/react-query";
import { useId, useState } from "react";
import { api, Refused, told } from "../../api/client";
import { ProblemSlab } from "../../components/shapes";
import { drawingsWords } from "../../words/drawings";
import type { Edit } from "./edits";

/** A netlist written by hand or by another copy of this program, as changes of an empty panel. */
export function FromText({
  works,
  onTake,
}: {
  works: string;
  onTake: (edits: Partial<Edit>[]) => void;
}) {
  const id = useId();
  const [text, setText] = useState("");
  const read = useMutation({
    mutationFn: () =>
      told(api.POST("/api/w/{works}/netlist", { params: { path: { works } }, body: { text } })),
    onSuccess: (edits) => {
      onTake(edits as Partial<Edit>[]);
      setText("");
    },
  });
  return (
    <div className="space-y-2">
      <label htmlFor={id} className="stamp text-soft">
        {drawingsWords.pasteNetlist}
      </label>
      <textarea
        id={id}
        className="field h-32 w-full font-mono text-sm"
        value={text}
        placeholder={drawingsWords.devicesSPb}
        onChange={(event) => setText(event.target.value)}
      />
      {read.error instanceof Refused && <ProblemSlab problem={read.error.problem} />}
      <button type="button" className="control" onClick={() => text.trim() && read.mutate()}>
        {drawingsWords.useNetlist}
      </button>
    </div>
  );
}
