import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Words } from "../../components/inputs";
import { Stop } from "../../components/shapes";
import { troubleWords as w } from "../../words/trouble";
import type { Given } from "./useHunt";

const UNIT: Record<string, string> = { ohm: "Ω", volt: "V", amp: "A" };

export interface NextProps {
  stands: Schemas["HuntStandsOut"];
  isBusy: boolean;
  /** Locked and proven dead, by the panel's entries or by this person's word. */
  isDead: boolean;
  /** Where to lock and prove it. */
  lockAt: string;
  onDead: (isDead: boolean) => void;
  onAnswer: (given: Given) => void;
}

/** The reading to take next: what to hold, what it will show, and its answer. */
export function Next({ stands, isBusy, isDead, lockAt, onDead, onAnswer }: NextProps) {
  const { offer } = stands;
  const isHeld = Boolean(offer && !isDead && offer.caution && !offer.is_live);
  return (
    <>
      {stands.doubts.length > 0 && (
        <ol className="list-decimal space-y-1 pl-6" data-testid="doubts">
          {stands.doubts.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ol>
      )}
      {stands.state === "found" && <Found stands={stands} />}
      {offer && (
        <section
          className="space-y-3 border-2 border-ink bg-sheet p-4"
          aria-label={offer.said}
          data-testid="next"
        >
          {stands.state !== "hunting" && (
            <p className="font-headline text-xl font-bold">{offer.said}</p>
          )}
          {offer.caution && (
            <p className={offer.is_live ? "font-semibold text-live" : "text-caution"}>
              {offer.caution}
            </p>
          )}
          {isHeld && (
            <Stop title={w.notDead}>
              <Link to={lockAt} className="control">
                {w.lockIt}
              </Link>
              <label className="ask flex items-center gap-2">
                <input type="checkbox" onChange={(event) => onDead(event.target.checked)} />
                {w.deadByMe}
              </label>
            </Stop>
          )}
          {stands.instead && <p className="font-semibold">{stands.instead}</p>}
          {offer.hold.length > 0 && (
            <p>
              <span className="stamp">{w.hold}</span> {offer.hold.join(" · ")}
            </p>
          )}
          <Answers offer={offer} isBusy={isBusy || isHeld} onAnswer={onAnswer} />
          <Splits splits={offer.splits} minutes={offer.minutes} />
        </section>
      )}
      {stands.beliefs.map((one) => (
        <p key={one.id} className="text-soft">
          {w.belief(one.belief)} <span className="text-ink">{one.truth}</span>
        </p>
      ))}
    </>
  );
}

function Answers({
  offer,
  isBusy,
  onAnswer,
}: {
  offer: Schemas["HuntOfferOut"];
  isBusy: boolean;
  onAnswer: (given: Given) => void;
}) {
  const [typed, setTyped] = useState("");
  const [isUnsure, setUnsure] = useState(false);
  const how = isUnsure ? "unsure" : "read";
  const value = Number(typed.replace(",", "."));
  const isFigure = typed.trim() !== "" && Number.isFinite(value) && value >= 0;
  return (
    <div className="flex flex-wrap items-end gap-2">
      {offer.kind === "word" ? (
        offer.words.map((one) => (
          <button
            key={one.word}
            type="button"
            className="control"
            disabled={isBusy}
            onClick={() => onAnswer({ how, word: one.word })}
          >
            {one.said}
          </button>
        ))
      ) : (
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (isFigure && !isBusy) onAnswer({ how, value });
          }}
        >
          <Words
            label={w.reads}
            unit={UNIT[offer.kind] ?? ""}
            isNumber
            value={typed}
            onValueChange={setTyped}
          />
          <button
            type="submit"
            className="control"
            data-primary="true"
            disabled={!isFigure || isBusy}
          >
            {w.keep}
          </button>
          {offer.kind === "ohm" && (
            <button
              type="button"
              className="control"
              disabled={isBusy}
              onClick={() => onAnswer({ how, is_open: true })}
            >
              {w.openLoop}
            </button>
          )}
        </form>
      )}
      <button
        type="button"
        className="control"
        disabled={isBusy}
        onClick={() => onAnswer({ how: "cannot" })}
      >
        {w.cannot}
      </button>
      <label className="ask inline-flex items-center gap-2">
        <input
          type="checkbox"
          checked={isUnsure}
          onChange={(event) => setUnsure(event.target.checked)}
        />
        {w.unsure}
      </label>
    </div>
  );
}

function Splits({ splits, minutes }: { splits: Schemas["HuntSplitOut"][]; minutes: number }) {
  return (
    <div className="text-sm">
      <p className="text-soft">
        {w.mayShow} · {w.minutes(minutes)}
      </p>
      <ul>
        {splits.map((one) => (
          <li
            key={one.shows}
            className="grid grid-cols-[minmax(6rem,1fr)_minmax(3rem,2fr)_4rem] gap-2"
          >
            <span>{one.shows}</span>
            <Bar percent={one.percent} />
            <span className="text-right font-mono">{w.percent(one.percent)}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Odds as a length; the figure stands beside it. */
export function Bar({ percent }: { percent: number }) {
  return (
    <span aria-hidden="true" className="my-auto h-2 border border-edge bg-sunk">
      <span className="block h-full bg-ink" style={{ width: `${Math.min(100, percent)}%` }} />
    </span>
  );
}

function Found({ stands }: { stands: Schemas["HuntStandsOut"] }) {
  return (
    <section className="space-y-2 border-2 border-proven bg-sheet p-4" data-testid="found">
      <h2 className="font-headline text-lg font-bold">{w.repair}</h2>
      <p>{stands.repair}</p>
      <h2 className="font-headline text-lg font-bold">{w.prove}</h2>
      <ol className="list-decimal space-y-1 pl-6">
        {stands.prove.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ol>
      {stands.not_excluded.length > 0 && (
        <p className="text-soft">
          {w.left}: {stands.not_excluded.join("; ")}
        </p>
      )}
    </section>
  );
}
