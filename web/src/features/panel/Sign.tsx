import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, signInAgain, told } from "../../api/client";
import { Coming } from "../../components/Edges";
import { Tick, Words } from "../../components/inputs";
import { AskAgain, ProblemSlab } from "../../components/shapes";
import { useIsOnline } from "../../state/useIsOnline";
import type { Place } from "../../state/useJob";
import { panelWords as w } from "../../words/panel";
import { Typed } from "./Typed";
import type { Made, Online, Panel } from "./usePanel";

const GROUPS = ["open", "judge", "assumed", "different", "raised", "accepted"] as const;

/** Fit to run, what a reviewer looks at first, send back on the figure itself, and the signature. */
export function Sign({
  place,
  panel,
  onAct,
  onOnline,
  onSign,
}: {
  place: Place;
  panel: Panel;
  onAct: (made: Made) => void;
  onOnline: (made: Online) => Promise<void>;
  onSign: (accepts: readonly string[], license: string) => Promise<void>;
}) {
  const { works, tag, number } = place;
  const isOnline = useIsOnline();
  const query = useQuery({
    queryKey: ["review", works, tag, number, panel.heads.join(" "), panel.rev],
    retry: false,
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/m/{tag}/j/{number}/panel/review", {
          params: { path: { works, tag, number } },
          signal,
        }),
      ),
  });
  const review = query.data;
  const isReviewer = panel.role === "reviewer";
  return (
    <section aria-labelledby="sign" className="space-y-4" data-testid="sign">
      <h2 id="sign" className="stamp">
        {w.signTitle}
      </h2>
      <p className={`font-headline text-2xl font-bold ${panel.is_fit ? "text-proven" : ""}`}>
        {panel.is_fit ? w.fit : w.notFit(panel.open.length)}
      </p>
      {panel.signature !== "none" && <Signed place={place} panel={panel} />}
      {query.error instanceof Refused && (
        <ProblemSlab problem={query.error.problem}>
          <AskAgain query={query} />
        </ProblemSlab>
      )}
      {review &&
        GROUPS.map((group) => {
          const items = review.items.filter((one) => one.group === group);
          if (items.length === 0) return null;
          return (
            <details key={group} open={group !== "assumed"} data-testid={`group-${group}`}>
              <summary className="font-headline text-xl font-bold">
                {w.groups[group]} · {items.length}
              </summary>
              <ul className="space-y-2 pt-2">
                {items.map((one) => (
                  <li key={one.id} className="border-t border-hair pt-2">
                    <p className="font-semibold">{one.said}</p>
                    {one.why && <p className="text-soft">{one.why}</p>}
                    {one.asked.map((text) => (
                      <p key={text} className="pl-4">
                        {text}
                      </p>
                    ))}
                    {isReviewer && isOnline && (
                      <details>
                        <summary className="ask">{w.sendBack}</summary>
                        <Typed
                          label={w.question}
                          does={w.sendBack}
                          isNumber={false}
                          onDone={(question) =>
                            void onOnline({
                              kind: "sent_back",
                              about: { figure: one.id },
                              body: { question },
                            })
                          }
                        />
                      </details>
                    )}
                  </li>
                ))}
              </ul>
            </details>
          );
        })}
      {panel.open.some((one) => one.startsWith("question:")) && (
        <Typed
          label={w.answerIt}
          does={w.answer}
          isNumber={false}
          onDone={(text) => onAct({ kind: "review_asked", body: { text } })}
        />
      )}
      {/* nobody signs before what is to be judged is shown, and its coming must not push the button away */}
      {isReviewer && query.isPending && <Coming />}
      {isReviewer ? (
        !query.isPending && (
          <Signing
            isOnline={isOnline}
            isFit={panel.is_fit}
            needsLicense={review?.needs_license ?? true}
            accepts={review?.accepts ?? []}
            onSign={onSign}
          />
        )
      ) : (
        <p className="text-soft">{w.reviewerSigns}</p>
      )}
      <p className="text-sm text-soft">{w.record}</p>
    </section>
  );
}

/** The last signature, and what came after it; the issue stands as it was signed. */
function Signed({ place, panel }: { place: Place; panel: Panel }) {
  const base = `/api/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  return (
    <div className="border-2 border-ink bg-sheet p-4 space-y-2" data-testid="signed">
      <p className="font-headline text-xl font-bold">
        {w.signedBy(panel.signed_by, panel.signed_at)}
      </p>
      <p>
        <a className="ask" href={`${base}/issues/${panel.signed_issue}/pdf`}>
          {w.asSigned(panel.signed_issue)}
        </a>
      </p>
      {panel.signature === "changed" && (
        <>
          <p className="font-semibold text-caution">{w.changedSince}</p>
          <ul className="list-disc pl-5">
            {panel.after_signing.map((text, place_) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: entries are only ever added
              <li key={place_}>{text}</li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}

function Signing({
  isOnline,
  isFit,
  needsLicense,
  accepts,
  onSign,
}: {
  isOnline: boolean;
  isFit: boolean;
  needsLicense: boolean;
  accepts: readonly string[];
  onSign: (accepts: readonly string[], license: string) => Promise<void>;
}) {
  const [license, setLicense] = useState("");
  const [password, setPassword] = useState("");
  const [hasJudged, setJudged] = useState(false);
  const [isBusy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<Refused | null>(null);
  if (!isOnline) return <p className="font-semibold text-caution">{w.signOnline}</p>;
  if (!isFit) return <p className="text-soft">{w.signLater}</p>;
  const sign = async () => {
    setBusy(true);
    setWrong(null);
    try {
      await signInAgain(password);
      await onSign(accepts, license.trim());
    } catch (lost) {
      if (!(lost instanceof Refused)) throw lost;
      setWrong(lost);
    } finally {
      setPassword("");
      setBusy(false);
    }
  };
  return (
    <form
      className="flex flex-wrap items-end gap-3 border-2 border-ink bg-sheet p-4"
      onSubmit={(event) => {
        event.preventDefault();
        void sign();
      }}
    >
      {accepts.length > 0 && (
        <Tick isOn={hasJudged} onChange={setJudged} className="w-full">
          {w.judged(accepts.length)}
        </Tick>
      )}
      {needsLicense && (
        <Words label={w.license} value={license} onValueChange={setLicense} className="w-48" />
      )}
      <label className="block">
        <span className="block text-sm text-soft">{w.password}</span>
        <input
          type="password"
          className="field"
          autoComplete="current-password"
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
      </label>
      <button
        type="submit"
        className="control"
        data-primary="true"
        disabled={
          isBusy ||
          !password ||
          (needsLicense && !license.trim()) ||
          (accepts.length > 0 && !hasJudged)
        }
      >
        {isBusy ? w.printing : w.signIt}
      </button>
      {wrong && <ProblemSlab problem={wrong.problem} />}
    </form>
  );
}
