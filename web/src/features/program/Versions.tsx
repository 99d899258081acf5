import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, told } from "../../api/client";
import { useVersions } from "../../components/HistorySheet";
import { useRoom } from "../../components/JobRoom";
import { Tag } from "../../components/shapes";
import { programWords as w } from "../../words/program";
import type { Relay } from "./useProgram";

const SIGNS = { same: " ", gone: "−", new: "+" } as const;
const LOOKS = { same: "", gone: "text-soft line-through", new: "bg-ink text-sheet" } as const;

/** Earlier programs of this relay beside the one on the screen, line by line. */
export function Versions({ relay, draft }: { relay: Relay; draft: string }) {
  const { place, state } = useRoom();
  const [picked, setPicked] = useState<number | null>(null);
  const history = useVersions(place, state, "starter");
  const known = (history.data ?? []).flatMap((entry) => {
    const programs = entry.body.programs as Record<string, string> | undefined;
    const text = programs?.[relay.id];
    return text !== undefined && text !== draft ? [{ ...entry, text }] : [];
  });
  const old = known.find((entry) => entry.n === picked) ?? known[0];
  const lines = useQuery({
    queryKey: ["program-compared", old?.text, draft],
    enabled: old !== undefined,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/program/compare", { body: { old: old?.text ?? "", new: draft }, signal }),
      ),
  });
  if (!old) return <p>{w.noOther}</p>;
  const isSame = lines.data?.every((line) => line.what === "same");
  return (
    <div className="space-y-2" data-testid="program-versions">
      <div className="flex flex-wrap items-center gap-2" role="group" aria-label={w.compareWith}>
        <span>{w.compareWith}</span>
        {known.slice(0, 12).map((entry) => (
          <button
            key={entry.n}
            type="button"
            className="control"
            aria-pressed={entry.n === old.n}
            onClick={() => setPicked(entry.n)}
          >
            {entry.n}
          </button>
        ))}
        <Tag who={old.by} when={old.at} source={old.source} />
      </div>
      {isSame ? (
        <p>{w.sameProgram}</p>
      ) : (
        <ol className="overflow-x-auto border-2 border-hair bg-sheet p-2 font-mono text-sm">
          {lines.data?.map((line, place) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place, two may be alike
            <li key={place} className={LOOKS[line.what]}>
              <span aria-hidden="true" className="whitespace-pre">{`${SIGNS[line.what]} `}</span>
              {line.what !== "same" && (
                <span className="sr-only">{line.what === "gone" ? w.gone : w.came}: </span>
              )}
              <span className="whitespace-pre">{line.text}</span>
            </li>
          ))}
        </ol>
      )}
    </div>
  );
}
