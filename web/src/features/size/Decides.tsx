import { useId } from "react";
import type { Worked } from "../../api/client";
import { Choice } from "../../components/inputs";
import { sizeWords } from "../../words/size";
import { Run } from "./CircuitLength";
import { ConductorInputs } from "./ConductorInputs";
import { Said } from "./Figure";
import { Limits } from "./Limits";
import type { Size } from "./parts/parts";

export interface DecidesProps {
  /** The plate as stamped: hp, volts and amps are changed here too. */
  plateText: string;
  onPlateTextChange: (text: string) => void;
  size: Size;
  /** Under another code than the NEC. */
  isOther: boolean;
  worked: Worked;
  onSizeChange: (size: Size) => void;
  onRest: () => void;
}

/** What decides the sizes besides plate and supply; every change moves the slips at once. */
export function Decides({
  plateText,
  onPlateTextChange,
  size,
  isOther,
  worked,
  onSizeChange,
  onRest,
}: DecidesProps) {
  const plateId = useId();
  const set = (change: Partial<Size>) => onSizeChange({ ...size, ...change });
  const guessOf = (id: string) => {
    const step = worked.steps.find((other) => other.id === id);
    return step?.kind === "assumed" ? step.said : null;
  };
  return (
    <section aria-labelledby="decides" className="space-y-3">
      <h2 id="decides" className="stamp text-soft">
        {sizeWords.inputs}
      </h2>
      <ConductorInputs size={size} guessOf={guessOf} onSizeChange={onSizeChange} onRest={onRest} />
      <div className="metal px-4 pt-4 pb-3">
        <label htmlFor={plateId} className="stamp absolute -top-3 left-4 bg-ground px-1.5">
          {sizeWords.nameplateStamped}
        </label>
        <textarea
          id={plateId}
          className="field block resize-y leading-snug"
          rows={2}
          value={plateText}
          spellCheck={false}
          onChange={(event) => onPlateTextChange(event.target.value)}
          onBlur={onRest}
        />
      </div>
      <Said
        label={sizeWords.fuseBreaker}
        guess={guessOf("protection_kind")}
        onSettle={() => set({ protection_kind: "dual_element_fuse" })}
      >
        <Choice
          options={[
            { value: "dual_element_fuse", label: sizeWords.dualElementFuse },
            { value: "nontime_delay_fuse", label: sizeWords.fuseNonTime },
            { value: "class_cc_fuse", label: sizeWords.classCcFuse },
            { value: "inverse_time_breaker", label: sizeWords.inverseTimeBreaker },
            { value: "instantaneous_breaker", label: sizeWords.instantaneousBreaker },
          ]}
          value={size.protection_kind ?? null}
          onValueChange={(value) =>
            set({ protection_kind: value as NonNullable<Size["protection_kind"]> })
          }
        />
      </Said>
      {worked.steps.some((step) => step.id.startsWith("leg_")) && (
        <Choice
          label={sizeWords.motorLeadConductors}
          options={[
            { value: false, label: sizeWords.sixOneRaceway },
            { value: true, label: sizeWords.threeEachTwo },
          ]}
          value={size.motor_leads_apart ?? false}
          onValueChange={(motor_leads_apart) => set({ motor_leads_apart })}
        />
      )}
      {worked.supply?.system === "direct current" && (
        <Choice
          label={sizeWords.sourceDirectCurrent}
          options={[
            { value: "battery", label: sizeWords.batteryGenerator },
            { value: "three_phase_rectifier", label: sizeWords.threePhaseRectifier },
            { value: "full_wave_single_phase", label: sizeWords.fullWaveSingle },
            { value: "half_wave_single_phase", label: sizeWords.halfWaveSingle },
          ]}
          value={size.dc_source ?? null}
          onValueChange={(dc_source) => set({ dc_source })}
        />
      )}
      <Limits size={size} onSizeChange={onSizeChange} onRest={onRest} />
      <div className="flex flex-wrap items-center gap-2">
        <span className="stamp text-soft" id="rating_rule">
          {sizeWords.reading}
        </span>
        <div role="group" aria-labelledby="rating_rule">
          <Choice
            options={[
              { value: "main_rule", label: sizeWords.mainRuleNot },
              { value: "next_size_up", label: sizeWords.nextSizeUp },
            ]}
            value={worked.rating_rule}
            onValueChange={(value) =>
              set({ rating_rule: value === "main_rule" ? "main_rule" : "next_size_up" })
            }
          />
        </div>
      </div>
      <Run size={size} isMetric={isOther} onSizeChange={onSizeChange} onRest={onRest} />
      <div className="flex flex-wrap items-center gap-2">
        <span className="stamp text-soft" id="edition">
          {sizeWords.edition}
        </span>
        <div role="group" aria-labelledby="edition">
          <Choice
            options={([2017, 2020, 2023] as const).map((year) => ({
              value: year,
              label: `NEC ${year}`,
            }))}
            value={worked.edition as 2017 | 2020 | 2023}
            onValueChange={(value) => set({ edition: value })}
          />
        </div>
        {size.edition && (
          <button type="button" className="ask text-sm" onClick={() => set({ edition: null })}>
            {sizeWords.backPlantsEdition}
          </button>
        )}
      </div>
    </section>
  );
}
