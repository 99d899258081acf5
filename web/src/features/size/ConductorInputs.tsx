import { useId } from "react";
import { Choice } from "../../components/inputs";
import { sizeWords } from "../../words/size";
import { Figure, Said } from "./Figure";
import type { Size } from "./parts/parts";

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

export interface ConductorInputsProps {
  size: Size;
  /** What is assumed for an input nobody entered; null where it was entered. */
  guessOf: (id: string) => string | null;
  onSizeChange: (size: Size) => void;
  onRest: () => void;
}

/** What decides the conductors: material, insulation, terminals, ambient, how many, in parallel. */
export function ConductorInputs({ size, guessOf, onSizeChange, onRest }: ConductorInputsProps) {
  const set = (change: Partial<Size>) => onSizeChange({ ...size, ...change });
  const insulationId = useId();
  const setsId = useId();
  return (
    <div className="grid gap-x-4 gap-y-3 sm:grid-cols-2 md:grid-cols-3">
      <Said
        label={sizeWords.conductorMaterial}
        guess={guessOf("conductor_material")}
        onSettle={() => set({ conductor_material: "cu" })}
      >
        <Choice
          options={[
            { value: "cu", label: sizeWords.copper },
            { value: "al", label: sizeWords.aluminum },
          ]}
          value={size.conductor_material ?? null}
          onValueChange={(value) => set({ conductor_material: value as "cu" | "al" })}
        />
      </Said>
      <Said
        label={sizeWords.insulation}
        guess={guessOf("insulation")}
        onSettle={() => set({ insulation: "THWN" })}
      >
        <label htmlFor={insulationId} className="sr-only">
          {sizeWords.insulation}
        </label>
        <select
          id={insulationId}
          className="field font-semibold"
          value={size.insulation ?? ""}
          onChange={(event) =>
            set({
              insulation: INSULATIONS.find((name) => name === event.target.value) ?? null,
            })
          }
        >
          <option value="">{sizeWords.notKnown}</option>
          {INSULATIONS.map((name) => (
            <option key={name} value={name}>
              {name}
            </option>
          ))}
        </select>
      </Said>
      <Said label={sizeWords.terminalTemperatureRating} guess={null}>
        <Choice
          options={[
            { value: null, label: sizeWords.notKnown2 },
            { value: 60, label: "60 °C" },
            { value: 75, label: "75 °C" },
          ]}
          value={size.termination_c ?? null}
          onValueChange={(value) => set({ termination_c: value as 60 | 75 | null })}
        />
      </Said>
      <Said
        label={sizeWords.ambient}
        guess={guessOf("ambient_c")}
        onSettle={() => set({ ambient_c: "30" })}
      >
        <Figure
          label={sizeWords.ambient}
          value={size.ambient_c ?? ""}
          unit="°C"
          onFigureChange={(text) => set({ ambient_c: text })}
          onRest={onRest}
        />
      </Said>
      <Said
        label={sizeWords.currentCarryingConductors}
        guess={guessOf("current_carrying")}
        onSettle={() => set({ current_carrying: 3 })}
      >
        <Figure
          label={sizeWords.currentCarryingConductorsRaceway}
          value={
            size.current_carrying === null || size.current_carrying === undefined
              ? ""
              : String(size.current_carrying)
          }
          unit={sizeWords.conductors}
          isWhole
          onFigureChange={(text) => set({ current_carrying: text === null ? null : Number(text) })}
          onRest={onRest}
        />
      </Said>
      <Said label={sizeWords.parallelSets} guess={null}>
        <label htmlFor={setsId} className="sr-only">
          {sizeWords.parallelSets}
        </label>
        <select
          id={setsId}
          className="field font-semibold"
          value={size.parallel_sets ?? 1}
          onChange={(event) => set({ parallel_sets: Number(event.target.value) })}
        >
          {[1, 2, 3, 4, 5, 6].map((count) => (
            <option key={count} value={count}>
              {count === 1 ? sizeWords.oneConductorPer : sizeWords.perPhase(count)}
            </option>
          ))}
        </select>
      </Said>
    </div>
  );
}
