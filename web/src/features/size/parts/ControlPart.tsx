import { Reading, Words } from "../../../components/inputs";
import { Box, Drop, Unasked, YesNo } from "./Box";
import type { PartProps } from "./parts";

/** Coils and lamps make the transformer; the transformer makes its fuses. */
export function ControlPart({ size, onSizeChange, onRest }: PartProps) {
  const { control } = size;
  const set = (next: typeof control) => onSizeChange({ ...size, control: next ?? null });
  if (!control) {
    return (
      <Unasked
        says="The transformer must hold every coil and lamp, and pull the largest coil in. Until you enter what is marked on the coils, they are taken off the drawn starter with assumed VA."
        name="Enter coils and lamps"
        onAsk={() =>
          set({
            volts_v: "120",
            coils: [{ label: "M", count: 1, inrush_va: "0", sealed_va: "0" }],
            conductor: "14",
            metal: "cu",
            leaves_enclosure: true,
            is_tapped: true,
            is_drawn: false,
          })
        }
      />
    );
  }
  const coils = control.coils ?? [];
  const change = (next: Partial<typeof control>) => set({ ...control, ...next });
  const coil = (at: number, next: Partial<(typeof coils)[number]>) =>
    change({ coils: coils.map((item, place) => (place === at ? { ...item, ...next } : item)) });
  return (
    <div className="space-y-3">
      {coils.map((item, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other name and keep their place
        <Box key={at} name={`Coil ${at + 1}`}>
          <Words
            label="Marked"
            value={item.label}
            onValueChange={(label) => coil(at, { label })}
            onRest={onRest}
            className="w-28"
          />
          <Reading
            label="How many"
            unit=""
            value={String(item.count ?? 1)}
            onValueChange={(count) => coil(at, { count: count ? Number.parseInt(count, 10) : 0 })}
            onRest={onRest}
            className="w-14"
          />
          <Reading
            label="Inrush, each"
            unit="VA"
            value={item.inrush_va}
            onValueChange={(value) => coil(at, { inrush_va: value ?? "0" })}
            onRest={onRest}
            className="w-20"
          />
          <Reading
            label="Sealed, each"
            unit="VA"
            value={item.sealed_va}
            onValueChange={(value) => coil(at, { sealed_va: value ?? "0" })}
            onRest={onRest}
            className="w-20"
          />
          <Drop
            name="Take this coil out"
            onDrop={() => change({ coils: coils.filter((_, place) => place !== at) })}
          />
        </Box>
      ))}
      <Box name="Transformer and wires">
        <button
          type="button"
          className="control"
          onClick={() =>
            change({ coils: [...coils, { label: "", count: 1, inrush_va: "0", sealed_va: "0" }] })
          }
        >
          Another coil
        </button>
        <Reading
          label="Lamps together"
          unit="VA"
          value={control.lamps_va}
          onValueChange={(lamps_va) => change({ lamps_va })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label="Control volts"
          unit="V"
          value={control.volts_v}
          onValueChange={(volts_v) => change({ volts_v })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label="Transformer that is there"
          unit="VA"
          value={control.transformer_va}
          onValueChange={(transformer_va) => change({ transformer_va })}
          onRest={onRest}
          className="w-24"
        />
        <Words
          label="Control wire, AWG"
          value={control.conductor}
          onValueChange={(conductor) => change({ conductor })}
          onRest={onRest}
          className="w-28"
        />
        <YesNo
          label="It leaves the enclosure"
          value={control.leaves_enclosure ?? true}
          onValueChange={(leaves_enclosure) => change({ leaves_enclosure })}
        />
        <Drop name="Leave control power out" onDrop={() => set(null)} />
      </Box>
    </div>
  );
}
