import { Drawer } from "../../components/inputs";
import { benchWords } from "../../words/bench";
import type { BenchState } from "./useBench";

const MYSTERIES = [
  "6",
  "9-wye",
  "9-delta",
  "12",
  "2-speed-vt",
  "2-speed-ct",
  "part-winding",
  "2-speed-2-winding",
] as const;
const LEADS_OF: Record<string, 6 | 9 | 12> = { "9-wye": 9, "9-delta": 9, "12": 12 };

/** A motor of unknown winding that answers in place of a real one, for practice. */
export function PracticeMotor({ bench: { bench, set } }: { bench: BenchState }) {
  if (!bench) return null;
  return (
    <Drawer name={benchWords.practiseMysteryMotor} hint={benchWords.answersInsteadReal}>
      <div className="flex flex-wrap gap-1.5">
        {MYSTERIES.map((kind) => (
          <button
            key={kind}
            type="button"
            className="control"
            aria-pressed={bench.mystery_kind === kind}
            onClick={() =>
              set({
                leads: LEADS_OF[kind] ?? 6,
                readings: [],
                groups: [],
                mystery: Math.floor(Math.random() * 1_000_000),
                mystery_kind: kind,
              })
            }
          >
            {kind === "12" || kind === "6" ? benchWords.leads(kind) : kind}
          </button>
        ))}
      </div>
      <p className="text-sm text-soft">
        {benchWords.seedMeterOff(bench.mystery ?? benchWords.none)}
      </p>
    </Drawer>
  );
}
