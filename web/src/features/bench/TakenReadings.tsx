import { benchWords } from "../../words/bench";
import { said } from "./readings";
import type { BenchState } from "./useBench";

/** Every reading taken so far, the doubtful ones marked, each one removable. */
export function TakenReadings({ bench }: { bench: BenchState }) {
  const { readings, doubtful, set } = bench;
  return (
    <section aria-labelledby="taken" className="space-y-1">
      <h2 id="taken" className="stamp">
        {benchWords.readings(readings.length)}
      </h2>
      <ol className="max-h-72 space-y-0.5 overflow-y-auto font-mono text-sm" data-testid="taken">
        {readings.map((reading, number) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: the same reading may be taken twice
            key={number}
            data-doubtful={doubtful.includes(number)}
            className="flex justify-between gap-2 data-[doubtful=true]:bg-caution-wash data-[doubtful=true]:font-semibold"
          >
            <span>
              {number + 1}. {said(reading)}
              {doubtful.includes(number) && benchWords.measureAgain}
            </span>
            <button
              type="button"
              className="ask text-sm"
              aria-label={benchWords.removeReading(number + 1)}
              onClick={() => set({ readings: readings.filter((_, place) => place !== number) })}
            >
              {benchWords.remove}
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}
