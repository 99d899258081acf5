import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, Refused, type Schemas, told } from "../../api/client";
import { ProblemSlab } from "../../components/shapes";
import { put } from "../../state/renew";
import type { Place } from "../../state/useJob";
import { rehearseWords } from "../../words/rehearse";

/** Put what was played on record: the server plays it again on the saved drawing and judges it. */
export function OnRecord({
  place,
  acts,
  until,
  isCopy,
}: {
  place: Place;
  acts: readonly Schemas["ActIn"][];
  until: number;
  /** Wrong wires are laid over a copy: that is no rehearsal of this job. */
  isCopy: boolean;
}) {
  const client = useQueryClient();
  const { works, tag, number } = place;
  const record = useMutation({
    mutationFn: () =>
      told(
        api.POST("/api/w/{works}/m/{tag}/j/{number}/panel/rehearsal", {
          params: { path: { works, tag, number } },
          body: { actions: [...acts], until: Math.round(until) },
        }),
      ),
    onSuccess: (panel) => put(client, ["panel", works, tag, number], panel),
  });
  return (
    <div className="space-y-2" data-testid="on-record">
      <button
        type="button"
        className="control"
        disabled={isCopy || record.isPending}
        onClick={() => record.mutate()}
      >
        {rehearseWords.putOnRecord}
      </button>
      <p className="text-sm text-soft">{rehearseWords.recordSays}</p>
      {record.error instanceof Refused && <ProblemSlab problem={record.error.problem} />}
      {record.isSuccess && (
        <p role="status" className="font-semibold text-proven">
          {rehearseWords.onRecord}
        </p>
      )}
    </div>
  );
}
