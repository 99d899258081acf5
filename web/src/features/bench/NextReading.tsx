import { useState } from "react";
import { Reading } from "../../components/inputs";
import { benchWords } from "../../words/bench";
import { askWords } from "./Probes";
import type { BenchState } from "./useBench";

/** The next reading to take, with the meter's answer to enter. */
export function NextReading({ bench }: { bench: BenchState }) {
  const { guided, ask, isAsking, isMystery, feedV, set, askMotor } = bench;
  const [typed, setTyped] = useState("");
  if (!guided || !ask) return null;
  const isNumber = /^\d{1,6}([.,]\d{1,4})?$/.test(typed.trim());
  const answer = (text: string, isOpen: boolean) => {
    bench.answer(text, isOpen);
    setTyped("");
  };
  return (
    <section
      aria-labelledby="next"
      aria-busy={!isAsking}
      className="metal space-y-3 px-5 py-4 print:hidden"
    >
      <h2 id="next" className="stamp">
        {benchWords.nextReading}
        {isMystery && benchWords.practiceMotor}
      </h2>
      <p className="font-headline text-2xl font-bold" data-testid="ask">
        {askWords(ask)}
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <label className="min-w-0">
          <span className="block text-sm text-soft">
            {benchWords.meter} {ask.what === "touch" ? "Ω" : "V"}
          </span>
          <input
            className="field w-32 text-2xl font-semibold"
            inputMode="decimal"
            autoComplete="off"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === "Enter" && isNumber) answer(typed, false);
            }}
          />
        </label>
        <button
          type="button"
          className="control min-h-14! min-w-24 text-lg"
          aria-disabled={!isNumber || !isAsking}
          onClick={() => isNumber && answer(typed, false)}
        >
          {benchWords.enter}
        </button>
        {ask.what === "touch" && (
          <>
            <button
              type="button"
              className="control min-h-14! min-w-24 text-lg"
              aria-disabled={!isAsking}
              onClick={() => answer("", false)}
            >
              {benchWords.continuity}
            </button>
            <button
              type="button"
              className="control min-h-14! min-w-24 text-lg"
              aria-disabled={!isAsking}
              onClick={() => answer("", true)}
            >
              {benchWords.ol}
            </button>
          </>
        )}
        {isMystery && (
          <button
            type="button"
            className="control min-h-14! text-lg"
            aria-disabled={!isAsking}
            onClick={() => void askMotor()}
          >
            {benchWords.letMotorAnswer}
          </button>
        )}
      </div>
      {ask.what === "volts" && (
        <div className="flex flex-wrap items-end gap-4">
          <Reading
            label={benchWords.feedLowVoltage}
            unit="V"
            value={feedV}
            onValueChange={(feed_v) => set({ feed_v })}
          />
          <p className="max-w-prose text-sm text-soft">{benchWords.feedCoilsRated}</p>
        </div>
      )}
      <p>
        <b>{benchWords.about(guided.about)}</b>{" "}
        {benchWords.aboutCountedAbout(guided.taken + guided.about, guided.left)}{" "}
        {guided.groups.length ? benchWords.numberings : benchWords.groupings} {benchWords.stillFit}
        {guided.kind_names.length > 0 && ` · ${guided.kind_names.join(", ")}`}
      </p>
    </section>
  );
}
