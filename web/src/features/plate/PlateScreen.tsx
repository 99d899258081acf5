import { lazy, Suspense, useId, useState } from "react";
import { Link } from "react-router";
import { Ghosted } from "../../components/Ghost";
import { Drawer } from "../../components/inputs";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import type { Key } from "../../state/keys";
import { plateWords } from "../../words/plate";
import { Checks } from "./Checks";
import { Crops } from "./Crops";
import { Gaps } from "./Gaps";
import { Photo } from "./Photo";
import { Legend, PlateText } from "./PlateText";
import { SupplyPlate } from "./SupplyPlate";
import { Trust } from "./Trust";
import { runsOf } from "./tokens";

// the corners and their reading are opened seldom: they load when they are
const ReadPhoto = lazy(async () => ({ default: (await import("./ReadPhoto")).ReadPhoto }));

/** What does the plate say, and does it agree with itself and with this supply? */
export function PlateScreen() {
  const { place, state } = useRoom();
  const { given, worked } = state;
  const legendId = useId();
  const [isReading, setReading] = useState(false);
  const keys: Key[] = [
    {
      press: "e",
      does: plateWords.typeNameplate,
      run: () => document.querySelector<HTMLElement>("[data-testid=plate] textarea")?.focus(),
    },
  ];
  const text = given?.plate.text ?? "";
  const tokens = worked?.tokens ?? [];
  const read = tokens.filter((token) => token.field);
  const labels = Object.fromEntries([
    ...tokens.map((token) => [token.field, token.label]),
    ...(worked?.missing ?? []).map((gap) => [gap.field, gap.label]),
    ...(worked?.guesses ?? []).map((guess) => [guess.field, guess.label]),
  ]) as Record<string, string>;
  const runs = runsOf(text, state.readText, tokens);
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  return (
    <JobFrame
      place={place}
      step="plate"
      state={state}
      keys={keys}
      margin={
        worked && (
          <div className="space-y-5">
            {given && (
              <Photo
                place={place}
                sha256={given.plate.photo ?? ""}
                subject="plate"
                onPhotoChange={(photo) =>
                  state.change("plate", { ...given.plate, photo, corners: [], seen: [] })
                }
              />
            )}
            {given?.plate.photo && (
              <button type="button" className="control" onClick={() => setReading(true)}>
                {plateWords.readThisPhoto}
              </button>
            )}
            {isReading && given?.plate.photo && (
              <Suspense fallback={null}>
                <ReadPhoto
                  place={place}
                  sha256={given.plate.photo}
                  kept={given.plate.corners ?? []}
                  onClose={() => setReading(false)}
                  onTake={(taken, corners, words) => {
                    setReading(false);
                    state.change("plate", {
                      ...given.plate,
                      text: taken,
                      corners: [...corners],
                      seen: words
                        .filter((word) => word.text.trim())
                        .map((word) => ({
                          text: word.text.trim(),
                          place: [...word.place],
                        })),
                    });
                  }}
                />
              </Suspense>
            )}
            <section aria-labelledby="checks" className="space-y-2">
              <h2 id="checks" className="stamp">
                {plateWords.crossChecks}
              </h2>
              {worked.checks.length > 0 ? (
                <Checks findings={worked.checks} />
              ) : (
                <p className="text-soft">{plateWords.nothingCompareYet}</p>
              )}
            </section>
            {text.trim() !== "" && given && (
              <Gaps
                missing={worked.missing}
                assumed={given.plate.assumed ?? []}
                labels={labels}
                onAssumedChange={(assumed) => state.change("plate", { ...given.plate, assumed })}
              />
            )}
            {given && (
              <Drawer
                name={plateWords.nameplateDoubt}
                hint={given.trust.is_doubted ? plateWords.inDoubt : ""}
                isOpen={given.trust.is_doubted ?? false}
              >
                <Trust
                  trust={given.trust}
                  worked={worked}
                  onTrustChange={(trust) => state.change("trust", trust)}
                />
              </Drawer>
            )}
          </div>
        )
      }
      primary={
        <Link to={`${base}/leads`} className="control md:w-auto!" data-primary="true">
          {plateWords.leads}
        </Link>
      }
      others={
        <>
          <Link to={`${base}/size`} className="control">
            {plateWords.size}
          </Link>
          <a
            className="control"
            href={`/api${base}/file`}
            download={`${place.tag}-${place.number}.json`}
          >
            {plateWords.exportFile}
          </a>
        </>
      }
    >
      {given && worked && (
        <div className="space-y-6 pt-2">
          <PlateText
            text={text}
            runs={runs}
            describedBy={legendId}
            onTextChange={(next) => state.change("plate", { ...given.plate, text: next })}
            onRest={() => void state.keep()}
          />
          <Legend id={legendId} />
          {read.length > 0 && (
            <dl
              className="grid grid-cols-2 gap-x-6 gap-y-2 sm:grid-cols-3 md:grid-cols-4"
              aria-label={plateWords.read}
              data-testid="as-read"
            >
              {read.map((token) => (
                <div
                  key={`${token.field} ${token.start}`}
                  data-status={token.status}
                  className="border-l-4 border-proven pl-2.5 data-[status=doubted]:border-caution"
                >
                  <dt className="text-sm text-soft">
                    {token.label}
                    {token.status === "doubted" && (
                      <b className="text-caution"> {plateWords.inDoubt}</b>
                    )}
                  </dt>
                  <dd className="m-0 font-mono font-semibold break-words">
                    <Ghosted value={sliceOf(state.readText, token.start, token.end)} />
                    {given && (
                      <Crops
                        place={place}
                        plate={given.plate}
                        text={sliceOf(state.readText, token.start, token.end)}
                      />
                    )}
                  </dd>
                </div>
              ))}
            </dl>
          )}
          <SupplyPlate
            supply={given.supply}
            worked={worked}
            onSupplyChange={(supply) => state.change("supply", supply)}
            onRest={() => void state.keep()}
          />
        </div>
      )}
    </JobFrame>
  );
}

/** The core counts code points. */
function sliceOf(text: string, start: number, end: number): string {
  return [...text].slice(start, end).join("").replace(/\s+/g, " ");
}
