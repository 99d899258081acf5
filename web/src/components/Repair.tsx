import { useMutation, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, Refused, told } from "../api/client";
import type { Place } from "../state/useJob";
import { frameWords } from "../words/frame";
import { ProblemSlab, Shout, Tag } from "./shapes";

type Step = "plate";

/** A job with a version that cannot be read: what is stored, its history, and the way back. */
export function Repair({
  place,
  refused,
  onRepaired,
}: {
  place: Place;
  refused: Refused;
  onRepaired: () => void;
}) {
  const { works, tag, number } = place;
  const { problem } = refused;
  const step = (problem.step ?? "plate") as Step;
  const history = useQuery({
    queryKey: ["history", works, tag, number, step, "repair"],
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/m/{tag}/j/{number}/history/{step}", {
          params: { path: { works, tag, number, step } },
          signal,
        }),
      ),
  });
  const putBack = useMutation({
    mutationFn: (body: unknown) =>
      told(
        // every step is saved the same way; which one it is came with the refusal
        api.PUT(`/api/w/{works}/m/{tag}/j/{number}/${step}`, {
          params: { path: { works, tag, number } },
          body: { based_on: problem.n ?? 0, body: body as never },
        }),
      ),
    onSuccess: onRepaired,
  });
  return (
    <main className="mx-auto max-w-3xl space-y-4 p-6">
      <Shout>{frameWords.needsRepair(tag)}</Shout>
      <ProblemSlab problem={problem}>
        {problem.field && <p className="font-mono text-sm">{problem.field}</p>}
      </ProblemSlab>
      {putBack.error instanceof Refused && <ProblemSlab problem={putBack.error.problem} />}
      <section aria-labelledby="stored" className="space-y-2">
        <h2 id="stored" className="stamp">
          {frameWords.storedAsItIs}
        </h2>
        <pre
          className="max-h-72 overflow-auto border-2 border-ink bg-sheet p-3 text-sm"
          tabIndex={-1}
        >
          {JSON.stringify(problem.body ?? null, null, 2)}
        </pre>
      </section>
      <section aria-labelledby="versions" className="space-y-2">
        <h2 id="versions" className="stamp">
          {frameWords.history}
        </h2>
        <ol className="space-y-2">
          {history.data?.map((entry) => (
            <li
              key={entry.n}
              className="flex flex-wrap items-center gap-3 border-t border-hair pt-2"
            >
              <b className="font-mono">{entry.n}</b>
              <Tag who={entry.by} when={entry.at} source={entry.source} />
              {entry.n === problem.n ? (
                <span className="text-caution">{frameWords.cannotBeRead}</span>
              ) : (
                <button
                  type="button"
                  className="control"
                  disabled={putBack.isPending}
                  onClick={() => putBack.mutate(entry.body)}
                >
                  {frameWords.putBack(entry.n)}
                </button>
              )}
            </li>
          ))}
          <li className="border-t border-hair pt-2">
            <button
              type="button"
              className="control"
              disabled={putBack.isPending}
              onClick={() => putBack.mutate({})}
            >
              {frameWords.enterAnew}
            </button>
          </li>
        </ol>
      </section>
      <Link to={`/w/${works}`} className="ask">
        {frameWords.backMotors}
      </Link>
    </main>
  );
}
