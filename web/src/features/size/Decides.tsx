import { type ReactNode, useId, useState } from "react";
import type { Schemas, Worked } from "../../api/client";
import { Choice, Reading, Words } from "../../components/inputs";

type Size = Schemas["SizeInputs"];

export interface DecidesProps {
  /** The plate as stamped: hp, volts and amps are changed here too. */
  plateText: string;
  onPlateTextChange: (text: string) => void;
  size: Size;
  worked: Worked;
  onSizeChange: (size: Size) => void;
  onRest: () => void;
}

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

/** One input on its plate; dashed with the assumed figure while nobody said it. */
function Said({
  label,
  guess,
  children,
  onSettle,
}: {
  label: string;
  /** What is assumed instead, or null if somebody said it. */
  guess: string | null;
  children: ReactNode;
  onSettle?: () => void;
}) {
  return (
    <fieldset className="metal min-w-0 px-4 pt-2 pb-3" data-guess={guess !== null}>
      <legend className="stamp bg-ground px-1.5">{label}</legend>
      {children}
      {guess !== null && (
        <p className="mt-1.5 flex flex-wrap items-center justify-between gap-x-2 text-sm text-caution">
          <b className="stamp">Assumed: {guess}</b>
          {onSettle && (
            <button type="button" className="ask text-sm" onClick={onSettle}>
              I read it: {guess}
            </button>
          )}
        </p>
      )}
    </fieldset>
  );
}

/** A number typed in place; sent on as soon as it is one, kept as typed until then. */
function Figure({
  label,
  value,
  unit,
  isWhole = false,
  onFigureChange,
  onRest,
}: {
  label: string;
  value: string;
  unit: string;
  isWhole?: boolean;
  onFigureChange: (text: string | null) => void;
  onRest: () => void;
}) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? value;
  const pattern = isWhole ? /^\d{1,3}$/ : /^-?\d{1,3}([.,]\d{1,2})?$/;
  const isWrong = text.trim() !== "" && !pattern.test(text.trim());
  return (
    <div className="flex items-center gap-2">
      <label htmlFor={id} className="sr-only">
        {label}
      </label>
      <input
        id={id}
        className="field w-24 text-lg font-semibold"
        inputMode="decimal"
        autoComplete="off"
        value={text}
        aria-invalid={isWrong}
        aria-describedby={`${id}-wrong`}
        onChange={(event) => {
          const next = event.target.value;
          setTyped(next);
          if (next.trim() === "") onFigureChange(null);
          else if (pattern.test(next.trim())) onFigureChange(next.trim());
        }}
        onBlur={() => {
          if (!isWrong) setTyped(null);
          onRest();
        }}
      />
      <span>{unit}</span>
      <span id={`${id}-wrong`} role="status" className="text-sm text-caution">
        {isWrong
          ? `“${text.slice(0, 12)}” is no ${isWhole ? "count" : "temperature"}; ${value || "nothing"} is still used.`
          : ""}
      </span>
    </div>
  );
}

/** What decides the sizes besides plate and supply; every change moves the slips at once. */
export function Decides({
  plateText,
  onPlateTextChange,
  size,
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
  const insulationId = useId();
  const setsId = useId();
  return (
    <section aria-labelledby="decides" className="space-y-3">
      <h2 id="decides" className="stamp text-soft">
        What decides it
      </h2>
      <div className="grid gap-x-4 gap-y-3 sm:grid-cols-2 md:grid-cols-3">
        <Said
          label="Metal"
          guess={guessOf("conductor_material")}
          onSettle={() => set({ conductor_material: "cu" })}
        >
          <Choice
            options={[
              { value: "cu", label: "Copper" },
              { value: "al", label: "Aluminium" },
            ]}
            value={size.conductor_material ?? null}
            onValueChange={(value) => set({ conductor_material: value as "cu" | "al" })}
          />
        </Said>
        <Said
          label="Insulation"
          guess={guessOf("insulation")}
          onSettle={() => set({ insulation: "THWN" })}
        >
          <label htmlFor={insulationId} className="sr-only">
            Insulation
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
            <option value="">not read</option>
            {INSULATIONS.map((name) => (
              <option key={name} value={name}>
                {name}
              </option>
            ))}
          </select>
        </Said>
        <Said label="Terminals marked" guess={null}>
          <Choice
            options={[
              { value: null, label: "Not read" },
              { value: 60, label: "60 °C" },
              { value: 75, label: "75 °C" },
            ]}
            value={size.termination_c ?? null}
            onValueChange={(value) => set({ termination_c: value as 60 | 75 | null })}
          />
        </Said>
        <Said
          label="Ambient"
          guess={guessOf("ambient_c")}
          onSettle={() => set({ ambient_c: "30" })}
        >
          <Figure
            label="Ambient"
            value={size.ambient_c ?? ""}
            unit="°C"
            onFigureChange={(text) => set({ ambient_c: text })}
            onRest={onRest}
          />
        </Said>
        <Said
          label="Carrying in the raceway"
          guess={guessOf("current_carrying")}
          onSettle={() => set({ current_carrying: 3 })}
        >
          <Figure
            label="Current-carrying conductors in the raceway"
            value={
              size.current_carrying === null || size.current_carrying === undefined
                ? ""
                : String(size.current_carrying)
            }
            unit="conductors"
            isWhole
            onFigureChange={(text) =>
              set({ current_carrying: text === null ? null : Number(text) })
            }
            onRest={onRest}
          />
        </Said>
        <Said label="Sets in parallel" guess={null}>
          <label htmlFor={setsId} className="sr-only">
            Sets in parallel
          </label>
          <select
            id={setsId}
            className="field font-semibold"
            value={size.parallel_sets ?? 1}
            onChange={(event) => set({ parallel_sets: Number(event.target.value) })}
          >
            {[1, 2, 3, 4, 5, 6].map((count) => (
              <option key={count} value={count}>
                {count === 1 ? "one conductor a phase" : `${count} a phase`}
              </option>
            ))}
          </select>
        </Said>
      </div>
      <div className="metal px-4 pt-4 pb-3">
        <label htmlFor={plateId} className="stamp absolute -top-3 left-4 bg-ground px-1.5">
          Plate as stamped
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
        label="Short-circuit device"
        guess={guessOf("protection_kind")}
        onSettle={() => set({ protection_kind: "dual_element_fuse" })}
      >
        <Choice
          options={[
            { value: "dual_element_fuse", label: "Dual-element fuse" },
            { value: "nontime_delay_fuse", label: "Fuse, no time delay" },
            { value: "class_cc_fuse", label: "Class CC fuse" },
            { value: "inverse_time_breaker", label: "Inverse-time breaker" },
            { value: "instantaneous_breaker", label: "Instantaneous breaker" },
          ]}
          value={size.protection_kind ?? null}
          onValueChange={(value) =>
            set({ protection_kind: value as NonNullable<Size["protection_kind"]> })
          }
        />
      </Said>
      <Limits size={size} onSizeChange={onSizeChange} onRest={onRest} />
      <div className="flex flex-wrap items-center gap-2">
        <span className="stamp text-soft" id="school">
          School
        </span>
        <div role="group" aria-labelledby="school">
          <Choice
            options={[
              { value: "exam", label: "Exam: not above" },
              { value: "field", label: "Field: next size up" },
            ]}
            value={worked.school}
            onValueChange={(value) => set({ school: value === "exam" ? "exam" : "field" })}
          />
        </div>
      </div>
      <Run size={size} onSizeChange={onSizeChange} onRest={onRest} />
      <div className="flex flex-wrap items-center gap-2">
        <span className="stamp text-soft" id="edition">
          Edition
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
            Back to the works' edition
          </button>
        )}
      </div>
    </section>
  );
}

/** What raises or lowers the device: a recorded no-start, a limit printed by the maker. */
function Limits({
  size,
  onSizeChange,
  onRest,
}: {
  size: Size;
  onSizeChange: (size: Size) => void;
  onRest: () => void;
}) {
  const set = (change: Partial<Size>) => onSizeChange({ ...size, ...change });
  const limit = size.maker_limit;
  return (
    <fieldset className="metal flex flex-wrap items-end gap-x-5 gap-y-2 px-4 pt-2 pb-3">
      <legend className="stamp bg-ground px-1.5">Limits of the device</legend>
      <Words
        label="Does not start on less, recorded"
        value={size.no_start?.reason}
        placeholder="opened twice on a loaded start, 3 Nov"
        onValueChange={(reason) =>
          set({ no_start: reason ? { by: "", at: "", ...size.no_start, reason } : null })
        }
        onRest={onRest}
        className="w-72"
      />
      <Reading
        label="Maker prints at most"
        unit="A"
        value={limit?.amps_a}
        onValueChange={(amps_a) =>
          set({ maker_limit: amps_a ? { source: "label", ...limit, amps_a } : null })
        }
        onRest={onRest}
        className="w-20"
      />
      {limit && (
        <Words
          label="Printed where"
          value={limit.source}
          onValueChange={(source) => source && set({ maker_limit: { ...limit, source } })}
          onRest={onRest}
          className="w-48"
        />
      )}
    </fieldset>
  );
}

/** The run: how far, what is recommended at most, by which table, in what. */
function Run({
  size,
  onSizeChange,
  onRest,
}: {
  size: Size;
  onSizeChange: (size: Size) => void;
  onRest: () => void;
}) {
  const set = (change: Partial<Size>) => onSizeChange({ ...size, ...change });
  return (
    <fieldset className="metal flex flex-wrap items-end gap-x-5 gap-y-2 px-4 pt-2 pb-3">
      <legend className="stamp bg-ground px-1.5">Run</legend>
      <Reading
        label="One way"
        unit="ft"
        value={size.run_length_ft}
        onValueChange={(run_length_ft) => set({ run_length_ft })}
        onRest={onRest}
      />
      <Reading
        label="Limit, recommended"
        unit="%"
        value={size.drop_limit_percent ?? "3"}
        onValueChange={(drop_limit_percent) => set({ drop_limit_percent })}
        onRest={onRest}
        className="w-20"
      />
      <Choice
        label="By"
        options={[
          { value: "table_9", label: "Table 9, ac" },
          { value: "table_8", label: "Table 8, dc" },
        ]}
        value={size.drop_method ?? "table_9"}
        onValueChange={(drop_method) => set({ drop_method })}
      />
      <Choice
        label="In"
        options={[
          { value: "steel", label: "steel" },
          { value: "aluminum", label: "aluminum" },
          { value: "pvc", label: "PVC" },
        ]}
        value={size.conduit ?? "steel"}
        onValueChange={(conduit) => set({ conduit })}
      />
    </fieldset>
  );
}
