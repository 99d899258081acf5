import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, told } from "../api/client";
import { nameOf, type Question } from "../api/question";
import { frameWords } from "../words/frame";

const ASKS_MS = 1000;

/** How far a question under way is, and a way to stop it: the server stops calculating. */
export function HowFar({ question }: { question: Question }) {
  const client = useQueryClient();
  const { works, key } = question;
  const name = nameOf(key);
  const { data } = useQuery({
    queryKey: ["how-far", works, name],
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/questions/{name}", { params: { path: { works, name } }, signal }),
      ),
    refetchInterval: ASKS_MS,
    gcTime: 0,
    staleTime: 0,
  });
  return (
    <p className="flex flex-wrap items-center gap-3" role="status">
      <span data-testid="how-far">{said(data)}</span>
      <button
        type="button"
        className="control"
        onClick={() => void client.cancelQueries({ queryKey: key, exact: true })}
      >
        {frameWords.stopCalculating}
      </button>
    </p>
  );
}

function said(data: { state: string; done: number; of: number } | undefined): string {
  if (data?.state === "waiting") return frameWords.waitsFor(data.done);
  if (data?.state === "running" && data.of > 0) {
    return frameWords.calculatedOf(Math.floor((100 * data.done) / data.of));
  }
  return frameWords.calculating;
}
