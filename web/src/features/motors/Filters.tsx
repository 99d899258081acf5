import { useId } from "react";
import { words } from "../../words/common";
import { yardWords } from "../../words/yard";
import type { Asked } from "./useMotors";

/** What the list is narrowed to. */
export type Only = Omit<Asked, "page" | "q">;

/** Nothing left out. */
export const ALL: Only = { machine: "", needs: false, volts: 0, size: "", step: "" };
/** Whether anything is left out: every part of nothing left out is empty. */
export const isNarrowed = (only: Only) => Object.values(only).some(Boolean);
const SIZES = ["to_5", "to_25", "to_100", "over_100"] as const;
const STEPS = ["plate", "leads", "joints", "size", "starter", "drawings", "check", "rehearse"];

/** Machine, volts, size and what is missing; one tap takes all of it off again. */
export function Filters({
  only,
  machines,
  volts,
  onChange,
}: {
  only: Only;
  machines: readonly string[];
  volts: readonly number[];
  onChange: (only: Only) => void;
}) {
  const set = (part: Partial<Only>) => onChange({ ...only, ...part });
  return (
    <div
      className="flex flex-wrap items-center gap-3"
      role="group"
      aria-label={yardWords.narrow}
      data-testid="filters"
    >
      <button
        type="button"
        className="control"
        aria-pressed={only.needs}
        onClick={() => set({ needs: !only.needs })}
      >
        {yardWords.needsAttentionOnly}
      </button>
      {machines.length > 1 && (
        <Choice
          label={yardWords.machine}
          any={yardWords.allMachines}
          value={only.machine}
          among={machines.map((name) => [name, name])}
          onChange={(machine) => set({ machine })}
        />
      )}
      {volts.length > 1 && (
        <Choice
          label={yardWords.supplyVolts}
          any={yardWords.allVolts}
          value={only.volts ? String(only.volts) : ""}
          among={volts.map((one) => [String(one), yardWords.lineVolts(one)])}
          onChange={(chosen) => set({ volts: Number(chosen) })}
        />
      )}
      <Choice
        label={yardWords.motorSize}
        any={yardWords.allSizes}
        value={only.size}
        among={SIZES.map((size) => [size, yardWords.sizes[size]])}
        onChange={(size) => set({ size: size as Only["size"] })}
      />
      <Choice
        label={yardWords.waitsFor}
        any={yardWords.anyStep}
        value={only.step}
        among={STEPS.map((step) => [step, yardWords.waits(words.steps[step] ?? step)])}
        onChange={(step) => set({ step })}
      />
      {isNarrowed(only) && (
        <button type="button" className="ask" onClick={() => onChange(ALL)}>
          {yardWords.showAll}
        </button>
      )}
    </div>
  );
}

function Choice({
  label,
  any,
  value,
  among,
  onChange,
}: {
  label: string;
  any: string;
  value: string;
  among: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
}) {
  const id = useId();
  return (
    <span className="flex items-center">
      <label htmlFor={id} className="sr-only">
        {label}
      </label>
      <select
        id={id}
        className="field w-auto"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      >
        <option value="">{any}</option>
        {among.map(([name, said]) => (
          <option key={name} value={name}>
            {said}
          </option>
        ))}
      </select>
    </span>
  );
}
