import { useId } from "react";
import { ProblemSlab } from "../../components/shapes";
import { plateWords } from "../../words/plate";
import { Checks } from "./Checks";
import { SupplyFacts, type SupplyPlateProps } from "./SupplyFacts";

const USUAL = ["480Y/277", plateWords.delta, "208Y/120", "600Y/347", "120/240 1PH"];

/** The supply by the name of its system, and whether this motor may live on it. */
export function SupplyPlate({ supply, worked, onSupplyChange, onRest }: SupplyPlateProps) {
  const id = useId();
  const text = supply.text ?? "";
  return (
    <section className="space-y-3" aria-label={plateWords.supplyVerdict}>
      <div className="metal px-6 pt-5 pb-4">
        <label htmlFor={id} className="stamp absolute -top-3 left-5 bg-ground px-2">
          {plateWords.supply}
        </label>
        <div className="flex flex-wrap items-center gap-3">
          <input
            id={id}
            className="w-56 border-0 border-b-2 border-edge bg-transparent py-1 font-mono text-[1.35rem] font-semibold text-ink placeholder:font-normal placeholder:text-soft"
            value={text}
            placeholder="480Y/277"
            spellCheck={false}
            autoComplete="off"
            maxLength={200}
            onChange={(event) => onSupplyChange({ ...supply, text: event.target.value })}
            onBlur={onRest}
          />
          <div className="flex flex-wrap gap-1.5" role="group" aria-label={plateWords.usualSystems}>
            {USUAL.map((name) => (
              <button
                key={name}
                type="button"
                className="control px-2.5 font-mono text-sm"
                aria-pressed={text === name}
                onClick={() => onSupplyChange({ ...supply, text: name })}
              >
                {name}
              </button>
            ))}
          </div>
        </div>
        {worked.supply && (
          <p className="mt-2 text-sm text-soft">
            {plateWords.vBetweenLines(worked.supply.line_volts_v)}
            {worked.supply.ground_volts_v && plateWords.vGround(worked.supply.ground_volts_v)}
            {plateWords.phaseHz(worked.supply.phases, worked.supply.frequency_hz)}
            {worked.supply.is_frequency_assumed && " (assumed)"}, {worked.supply.system}
          </p>
        )}
      </div>
      <SupplyFacts
        supply={supply}
        worked={worked}
        onSupplyChange={onSupplyChange}
        onRest={onRest}
      />
      {worked.checks.some((found) => found.field === "phases" && found.level === "doubt") && (
        <div className="flex flex-wrap gap-2" role="group" aria-label={plateWords.numberOfPhases}>
          {[
            { add: "1PH", label: plateWords.singlePhase },
            { add: "3PH", label: plateWords.threePhase },
          ].map(({ add, label }) => (
            <button
              key={add}
              type="button"
              className="control"
              onClick={() => onSupplyChange({ ...supply, text: `${text.trim()} ${add}` })}
            >
              {label}
            </button>
          ))}
        </div>
      )}
      {worked.supply_checks.some((found) => found.code === "other_code") && (
        <button
          type="button"
          className="control"
          onClick={() => onSupplyChange({ ...supply, territory: "other" })}
        >
          {plateWords.useAnotherCode}
        </button>
      )}
      {worked.supply_refusal && <ProblemSlab problem={worked.supply_refusal} />}
      {worked.verdict.length + worked.supply_checks.length > 0 && (
        <Checks findings={[...worked.verdict, ...worked.supply_checks]} />
      )}
    </section>
  );
}
