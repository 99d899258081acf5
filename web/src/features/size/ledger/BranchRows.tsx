import { type ReactNode, useId, useState } from "react";
import type { Worked } from "../../../api/client";
import type { Given } from "../../../state/useJob";
import { sizeWords } from "../../../words/size";
import { Limits } from "../Limits";
import { figuresOf, type Size } from "../parts/parts";
import { ChipChoice, ChipFigure } from "./Chip";
import { FigureRows } from "./FigureRows";
import { InputRow } from "./Row";

const INSULATIONS = [
  "TW",
  "UF",
  "THW",
  "THWN",
  "RHW",
  "XHHW",
  "USE",
  "THHN",
  "THWN-2",
  "THHN/THWN-2",
  "XHHW-2",
  "RHW-2",
  "USE-2",
] as const;

/** What may be said of one input. */
type Said<Name extends keyof Size> = NonNullable<Size[Name]>;

export interface BranchRowsProps {
  given: Given;
  worked: Worked;
  base: string;
  shown: string | undefined;
  moved: ReadonlyMap<string, string>;
  /** Under another code than the NEC. */
  isOther: boolean;
  onWhy: (id: string) => void;
  onSizeChange: (size: Size) => void;
  onPlateTextChange: (text: string) => void;
  onRest: () => void;
}

/** The branch circuit: a row for each figure, with what decides it right there. */
export function BranchRows(props: BranchRowsProps) {
  const { given, worked, base, shown, moved, isOther, onWhy } = props;
  const inputs = inputsOf(props);
  const ids = new Set(figuresOf(worked, "branch").map((figure) => figure.id));
  return (
    <ul>
      <FigureRows
        part="branch"
        worked={worked}
        base={base}
        shown={shown}
        moved={moved}
        onWhy={onWhy}
        inputs={inputs}
        isKnownOnly={isOther}
      />
      {Object.entries(NAMES).map(
        ([id, name]) =>
          !ids.has(id) && (
            <InputRow key={id} name={name}>
              {inputs[id]}
            </InputRow>
          ),
      )}
      <InputRow name={sizeWords.edition}>
        <ChipChoice
          label={sizeWords.edition}
          options={([2017, 2020, 2023] as const).map((year) => ({
            value: year,
            label: `NEC ${year}`,
          }))}
          value={worked.edition as 2017 | 2020 | 2023}
          onValueChange={(edition) => props.onSizeChange({ ...given.size, edition })}
        />
        {given.size.edition && (
          <button
            type="button"
            className="ask text-sm"
            onClick={() => props.onSizeChange({ ...given.size, edition: null })}
          >
            {sizeWords.backPlantsEdition}
          </button>
        )}
      </InputRow>
    </ul>
  );
}

/** What a row of inputs is called while its figure is not there. */
const NAMES = {
  table_flc_a: sizeWords.fullLoadCurrent,
  conductor_size: sizeWords.conductor,
  protection_device_a: sizeWords.fuseBreaker,
  voltage_drop_percent: sizeWords.voltageDrop,
};

/** What decides each figure, by the figure's id. */
function inputsOf({
  given,
  worked,
  isOther,
  onSizeChange,
  onPlateTextChange,
  onRest,
}: BranchRowsProps): Record<string, ReactNode> {
  const { size } = given;
  const set = (change: Partial<Size>) => onSizeChange({ ...size, ...change });
  const guessOf = (id: string) => {
    const step = worked.steps.find((other) => other.id === id);
    return step?.kind === "assumed" ? step.said : null;
  };
  const isDc = worked.supply?.system === "direct current";
  return {
    table_flc_a: (
      <>
        <PlateText text={given.plate.text ?? ""} onTextChange={onPlateTextChange} onRest={onRest} />
        {isDc && (
          <ChipChoice<Said<"dc_source">>
            label={sizeWords.sourceDirectCurrent}
            options={[
              { value: "battery", label: sizeWords.batteryGenerator },
              { value: "three_phase_rectifier", label: sizeWords.threePhaseRectifier },
              { value: "full_wave_single_phase", label: sizeWords.fullWaveSingle },
              { value: "half_wave_single_phase", label: sizeWords.halfWaveSingle },
            ]}
            value={size.dc_source ?? null}
            none={sizeWords.sourceNotSaid}
            onValueChange={(dc_source) => set({ dc_source })}
          />
        )}
      </>
    ),
    conductor_size: <Conductor size={size} guessOf={guessOf} set={set} onRest={onRest} />,
    protection_device_a: (
      <>
        <ChipChoice<Said<"protection_kind">>
          label={sizeWords.kindFuseBreaker}
          options={[
            { value: "dual_element_fuse", label: sizeWords.dualElementFuse },
            { value: "nontime_delay_fuse", label: sizeWords.fuseNonTime },
            { value: "class_cc_fuse", label: sizeWords.classCcFuse },
            { value: "inverse_time_breaker", label: sizeWords.inverseTimeBreaker },
            { value: "instantaneous_breaker", label: sizeWords.instantaneousBreaker },
          ]}
          value={size.protection_kind ?? null}
          guess={guessOf("protection_kind")}
          none={sizeWords.notKnown}
          onValueChange={(protection_kind) => set({ protection_kind })}
        />
        <ChipChoice
          label={sizeWords.reading}
          options={[
            { value: "main_rule", label: sizeWords.mainRuleNot },
            { value: "next_size_up", label: sizeWords.nextSizeUp },
          ]}
          value={worked.rating_rule === "main_rule" ? "main_rule" : "next_size_up"}
          onValueChange={(rule) =>
            set({ rating_rule: rule === "main_rule" ? "main_rule" : "next_size_up" })
          }
        />
        <FoldedLimits size={size} onSizeChange={onSizeChange} onRest={onRest} />
      </>
    ),
    leg_conductor_size: (
      <ChipChoice
        label={sizeWords.motorLeadConductors}
        options={[
          { value: false, label: sizeWords.sixOneRaceway },
          { value: true, label: sizeWords.threeEachTwo },
        ]}
        value={size.motor_leads_apart ?? false}
        onValueChange={(apart) => set({ motor_leads_apart: apart ?? false })}
      />
    ),
    voltage_drop_percent: <Run size={size} isMetric={isOther} set={set} onRest={onRest} />,
  };
}

/** What raises or lowers the device: folded while nobody said anything of it. */
function FoldedLimits(props: {
  size: Size;
  onSizeChange: (size: Size) => void;
  onRest: () => void;
}) {
  const [isOpen, setOpen] = useState(Boolean(props.size.no_start || props.size.maker_limit));
  return (
    <>
      <button
        type="button"
        className="ask min-h-6 text-sm"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
      >
        {sizeWords.limits}
      </button>
      {isOpen && (
        <div className="w-full">
          <Limits {...props} />
        </div>
      )}
    </>
  );
}

function PlateText({
  text,
  onTextChange,
  onRest,
}: {
  text: string;
  onTextChange: (text: string) => void;
  onRest: () => void;
}) {
  const id = useId();
  return (
    <>
      <label htmlFor={id} className="sr-only">
        {sizeWords.nameplateStamped}
      </label>
      <textarea
        id={id}
        className="field resize-none text-xs leading-snug [field-sizing:content]"
        rows={2}
        value={text}
        spellCheck={false}
        onChange={(event) => onTextChange(event.target.value)}
        onBlur={onRest}
      />
    </>
  );
}

interface PartProps {
  size: Size;
  set: (change: Partial<Size>) => void;
  onRest: () => void;
}

/** Material, insulation, terminals, ambient, how many, in parallel. */
function Conductor({
  size,
  guessOf,
  set,
  onRest,
}: PartProps & { guessOf: (id: string) => string | null }) {
  const count = size.current_carrying;
  return (
    <>
      <ChipChoice<Said<"conductor_material">>
        label={sizeWords.conductorMaterial}
        options={[
          { value: "cu", label: sizeWords.copper },
          { value: "al", label: sizeWords.aluminum },
        ]}
        value={size.conductor_material ?? null}
        guess={guessOf("conductor_material")}
        none={sizeWords.notKnown}
        onValueChange={(conductor_material) => set({ conductor_material })}
      />
      <ChipChoice<Said<"insulation">>
        label={sizeWords.insulation}
        options={INSULATIONS.map((value) => ({ value, label: value }))}
        value={size.insulation ?? null}
        guess={guessOf("insulation")}
        none={sizeWords.notKnown}
        onValueChange={(insulation) => set({ insulation })}
      />
      <ChipChoice<Said<"termination_c">>
        label={sizeWords.terminalTemperatureRating}
        options={[
          { value: 60, label: sizeWords.terminals(60) },
          { value: 75, label: sizeWords.terminals(75) },
        ]}
        value={size.termination_c ?? null}
        none={sizeWords.terminalsNotKnown}
        onValueChange={(termination_c) => set({ termination_c })}
      />
      <ChipFigure
        label={sizeWords.ambient}
        value={size.ambient_c ?? ""}
        unit="°C"
        guess={guessOf("ambient_c")}
        width="w-10"
        onFigureChange={(ambient_c) => set({ ambient_c })}
        onRest={onRest}
      />
      <ChipFigure
        label={sizeWords.currentCarryingConductorsRaceway}
        value={count === null || count === undefined ? "" : String(count)}
        unit={sizeWords.conductors}
        guess={guessOf("current_carrying")}
        isWhole
        width="w-8"
        onFigureChange={(text) => set({ current_carrying: text === null ? null : Number(text) })}
        onRest={onRest}
      />
      <ChipChoice
        label={sizeWords.parallelSets}
        options={[1, 2, 3, 4, 5, 6].map((sets) => ({
          value: sets,
          label: sizeWords.perPhase(sets),
        }))}
        value={size.parallel_sets ?? 1}
        onValueChange={(sets) => set({ parallel_sets: sets ?? 1 })}
      />
    </>
  );
}

/** How far, in what, by which table, and how much drop is recommended at most. */
function Run({ size, isMetric, set, onRest }: PartProps & { isMetric: boolean }) {
  return (
    <>
      {isMetric ? (
        <ChipFigure
          label={sizeWords.oneWay}
          value={size.run_length_m ?? ""}
          unit={sizeWords.metersOneWay}
          onFigureChange={(run_length_m) => set({ run_length_m, run_length_ft: null })}
          onRest={onRest}
        />
      ) : (
        <ChipFigure
          label={sizeWords.oneWay}
          value={size.run_length_ft ?? ""}
          unit={sizeWords.feetOneWay}
          onFigureChange={(run_length_ft) => set({ run_length_ft, run_length_m: null })}
          onRest={onRest}
        />
      )}
      <ChipChoice<Said<"conduit">>
        label={sizeWords.inWord}
        options={[
          { value: "steel", label: sizeWords.inSteel },
          { value: "aluminum", label: sizeWords.inAluminum },
          { value: "pvc", label: sizeWords.inPvc },
        ]}
        value={size.conduit ?? "steel"}
        onValueChange={(conduit) => set({ conduit: conduit ?? "steel" })}
      />
      <ChipChoice<Said<"drop_method">>
        label={sizeWords.by}
        options={[
          { value: "table_9", label: sizeWords.tableAc },
          { value: "table_8", label: sizeWords.tableDc },
        ]}
        value={size.drop_method ?? "table_9"}
        onValueChange={(method) => set({ drop_method: method ?? "table_9" })}
      />
      <ChipFigure
        label={sizeWords.recommendedLimit}
        value={size.drop_limit_percent ?? "3"}
        unit={sizeWords.percentAtMost}
        width="w-8"
        onFigureChange={(percent) => set({ drop_limit_percent: percent ?? "3" })}
        onRest={onRest}
      />
      {!isMetric && (
        <ChipFigure
          label={sizeWords.dropOfFeeder}
          value={size.feeder_drop_percent ?? ""}
          unit={sizeWords.percentFeeder}
          width="w-8"
          onFigureChange={(feeder_drop_percent) => set({ feeder_drop_percent })}
          onRest={onRest}
        />
      )}
    </>
  );
}
