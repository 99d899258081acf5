import { Choice, Reading, Words } from "../../../components/inputs";
import { withoutRow, withRow } from "../../../state/rows";
import { sizePartsWords } from "../../../words/sizeParts";
import { Box, Drop, Unasked, YesNo } from "./Box";
import type { PartProps } from "./parts";

/** Coils and lamps make the transformer; the transformer makes its fuses. */
export function ControlPart({ size, onSizeChange, onRest }: PartProps) {
  const { control } = size;
  const set = (next: typeof control) => onSizeChange({ ...size, control: next ?? null });
  if (!control) {
    return (
      <Unasked
        says={sizePartsWords.transformerMustCarry}
        name={sizePartsWords.enterCoilsLamps}
        onAsk={() =>
          set({
            coils: [{ label: "M", count: 1, inrush_va: "0", sealed_va: "0" }],
            conductor: "14",
            metal: "cu",
            leaves_enclosure: true,
            is_tapped: true,
            is_drawn: false,
            protection: "both",
          })
        }
      />
    );
  }
  const coils = control.coils ?? [];
  const change = (next: Partial<typeof control>) => set({ ...control, ...next });
  const coil = (at: number, next: Partial<(typeof coils)[number]>) =>
    change({ coils: withRow(coils, at, next) });
  return (
    <div className="space-y-3">
      {coils.map((item, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other name and keep their place
        <Box key={at} name={sizePartsWords.coil(at + 1)}>
          <Words
            label={sizePartsWords.marked}
            value={item.label}
            onValueChange={(label) => coil(at, { label })}
            onRest={onRest}
            className="w-28"
          />
          <Reading
            label={sizePartsWords.howMany}
            unit=""
            value={String(item.count ?? 1)}
            onValueChange={(count) => coil(at, { count: count ? Number.parseInt(count, 10) : 0 })}
            onRest={onRest}
            className="w-14"
          />
          <Reading
            label={sizePartsWords.inrushEach}
            unit={sizePartsWords.va}
            value={item.inrush_va}
            onValueChange={(value) => coil(at, { inrush_va: value ?? "0" })}
            onRest={onRest}
            className="w-20"
          />
          <Reading
            label={sizePartsWords.sealedEach}
            unit={sizePartsWords.va}
            value={item.sealed_va}
            onValueChange={(value) => coil(at, { sealed_va: value ?? "0" })}
            onRest={onRest}
            className="w-20"
          />
          <Drop
            name={sizePartsWords.removeCoil}
            onDrop={() => change({ coils: withoutRow(coils, at) })}
          />
        </Box>
      ))}
      <Box name={sizePartsWords.transformerWires}>
        <button
          type="button"
          className="control"
          onClick={() =>
            change({ coils: [...coils, { label: "", count: 1, inrush_va: "0", sealed_va: "0" }] })
          }
        >
          {sizePartsWords.addCoil}
        </button>
        <Reading
          label={sizePartsWords.pilotLightsTotal}
          unit={sizePartsWords.va}
          value={control.lamps_va}
          onValueChange={(lamps_va) => change({ lamps_va })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label={sizePartsWords.controlVoltage}
          unit="V"
          value={control.volts_v}
          onValueChange={(volts_v) => change({ volts_v })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label={sizePartsWords.existingTransformer}
          unit={sizePartsWords.va}
          value={control.transformer_va}
          onValueChange={(transformer_va) => change({ transformer_va })}
          onRest={onRest}
          className="w-24"
        />
        <Choice
          label={sizePartsWords.transformerProtectedBy}
          options={[
            { value: "both", label: sizePartsWords.fusesBothSides },
            { value: "primary_only", label: sizePartsWords.primaryFuseOnly },
            { value: "inherent", label: sizePartsWords.noFuseUnder50 },
          ]}
          value={control.protection ?? "both"}
          onValueChange={(protection) => change({ protection })}
        />
        <Words
          label={sizePartsWords.controlWireAwg}
          value={control.conductor}
          onValueChange={(conductor) => change({ conductor })}
          onRest={onRest}
          className="w-28"
        />
        <YesNo
          label={sizePartsWords.leavesEnclosure}
          value={control.leaves_enclosure ?? true}
          onValueChange={(leaves_enclosure) => change({ leaves_enclosure })}
        />
        <Drop name={sizePartsWords.removeControlPower} onDrop={() => set(null)} />
      </Box>
    </div>
  );
}
