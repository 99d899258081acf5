import { Choice, Reading } from "../../components/inputs";
import { sizeWords } from "../../words/size";
import type { Size } from "./parts/parts";

/** The run: how far, what is recommended at most, by which table, in what. */
export function Run({
  size,
  isMetric,
  onSizeChange,
  onRest,
}: {
  size: Size;
  /** Outside NEC territory lengths are in meters. */
  isMetric: boolean;
  onSizeChange: (size: Size) => void;
  onRest: () => void;
}) {
  const set = (change: Partial<Size>) => onSizeChange({ ...size, ...change });
  return (
    <fieldset className="metal flex flex-wrap items-end gap-x-5 gap-y-2 px-4 pt-2 pb-3">
      <legend className="stamp bg-ground px-1.5">{sizeWords.circuitLength}</legend>
      {isMetric ? (
        <Reading
          label={sizeWords.oneWay}
          unit="m"
          value={size.run_length_m}
          onValueChange={(run_length_m) => set({ run_length_m, run_length_ft: null })}
          onRest={onRest}
        />
      ) : (
        <Reading
          label={sizeWords.oneWay}
          unit={sizeWords.ft}
          value={size.run_length_ft}
          onValueChange={(run_length_ft) => set({ run_length_ft, run_length_m: null })}
          onRest={onRest}
        />
      )}
      <Reading
        label={sizeWords.recommendedLimit}
        unit="%"
        value={size.drop_limit_percent ?? "3"}
        onValueChange={(drop_limit_percent) => set({ drop_limit_percent })}
        onRest={onRest}
        className="w-20"
      />
      {!isMetric && (
        <Reading
          label={sizeWords.dropOfFeeder}
          unit="%"
          value={size.feeder_drop_percent}
          onValueChange={(feeder_drop_percent) => set({ feeder_drop_percent })}
          onRest={onRest}
          className="w-20"
        />
      )}
      <Choice
        label={sizeWords.by}
        options={[
          { value: "table_9", label: sizeWords.tableAc },
          { value: "table_8", label: sizeWords.tableDc },
        ]}
        value={size.drop_method ?? "table_9"}
        onValueChange={(drop_method) => set({ drop_method })}
      />
      <Choice
        label={sizeWords.inWord}
        options={[
          { value: "steel", label: sizeWords.steel },
          { value: "aluminum", label: sizeWords.aluminum2 },
          { value: "pvc", label: sizeWords.pvc },
        ]}
        value={size.conduit ?? "steel"}
        onValueChange={(conduit) => set({ conduit })}
      />
    </fieldset>
  );
}
