import { Link } from "react-router";
import { Choice, Reading, Words } from "../../../components/inputs";
import { sizePartsWords } from "../../../words/sizeParts";
import { useHeaters } from "../../heaters/useHeaters";
import { Box, Drop, YesNo } from "./Box";
import type { PartProps } from "./parts";

/** Where the heaters lie, what the relay is, and which heater its own chart names. */
export function OverloadPart({ size, onSizeChange, onRest, works }: PartProps & { works: string }) {
  const { charts } = useHeaters(works);
  const overload = size.overload ?? null;
  const set = (change: Partial<NonNullable<typeof overload>>) =>
    onSizeChange({
      ...size,
      overload: { place: "line", units: 3, ...overload, ...change },
    });
  const { heater } = size;
  const rows = heater?.table.rows ?? [];
  const relays = [...new Set(rows.map((row) => row.relay_type))];
  const sizes = [
    ...new Set(
      rows
        .filter((row) => row.relay_type === heater?.relay_type)
        .map((row) => row.starter_size ?? ""),
    ),
  ];
  const take = (name: string) => {
    const chart = charts.data?.find((item) => item.name === name);
    const first = chart?.rows[0];
    if (!chart || !first) return;
    onSizeChange({
      ...size,
      heater: {
        table: {
          name: chart.name,
          source: chart.source,
          factor: chart.factor,
          rows: chart.rows.map((row) => ({ ...row, elements: row.elements === 2 ? 2 : 3 })),
        },
        relay_type: first.relay_type,
        starter_size: first.starter_size,
        elements: first.elements === 2 ? 2 : 3,
        basis: first.basis,
        code: heater?.code ?? "",
      },
    });
  };
  return (
    <div className="space-y-3">
      <Box name={sizePartsWords.relay}>
        <Choice
          label={sizePartsWords.heaters}
          options={[
            { value: "line", label: sizePartsWords.lineConductors },
            { value: "leg", label: sizePartsWords.windingLeads },
            { value: "half", label: sizePartsWords.halfWinding },
          ]}
          value={overload?.place ?? "line"}
          onValueChange={(place) => set({ place })}
        />
        <Choice
          label={sizePartsWords.howMany}
          options={([3, 2, 1] as const).map((value) => ({ value, label: String(value) }))}
          value={overload?.units ?? 3}
          onValueChange={(units) => set({ units })}
        />
        <Choice
          label={sizePartsWords.tripClass}
          options={[
            { value: null, label: sizePartsWords.notKnown },
            ...([5, 10, 20, 30] as const).map((value) => ({ value, label: String(value) })),
          ]}
          value={overload?.trip_class ?? null}
          onValueChange={(trip_class) => set({ trip_class })}
        />
        <Reading
          label={sizePartsWords.startingTime}
          unit="s"
          value={overload?.accelerates_s}
          onValueChange={(accelerates_s) => set({ accelerates_s })}
          onRest={onRest}
          className="w-16"
        />
        <Reading
          label={sizePartsWords.dialRangeFrom}
          unit="A"
          value={overload?.low_a}
          onValueChange={(low_a) => set({ low_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label={sizePartsWords.to}
          unit="A"
          value={overload?.high_a}
          onValueChange={(high_a) => set({ high_a })}
          onRest={onRest}
          className="w-20"
        />
        <YesNo
          label={sizePartsWords.dialAlreadyIncludes}
          value={overload?.dial_has_125 ?? null}
          onValueChange={(dial_has_125) => set({ dial_has_125 })}
        />
        <Reading
          label={sizePartsWords.currentTransformer}
          unit={sizePartsWords.aTo}
          value={overload?.ct_primary_a}
          onValueChange={(ct_primary_a) => set({ ct_primary_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label={sizePartsWords.secondary}
          unit="A"
          value={overload?.ct_secondary_a}
          onValueChange={(ct_secondary_a) => set({ ct_secondary_a })}
          onRest={onRest}
          className="w-16"
        />
        <Reading
          label={sizePartsWords.powerFactorCapacitor}
          unit="%"
          value={overload?.capacitor_percent}
          onValueChange={(capacitor_percent) => set({ capacitor_percent })}
          onRest={onRest}
          className="w-16"
        />
        <Reading
          label={sizePartsWords.protectorMotorTrips}
          unit="A"
          value={overload?.protector_trip_a}
          onValueChange={(protector_trip_a) => set({ protector_trip_a })}
          onRest={onRest}
          className="w-20"
        />
        {overload && (
          <Drop
            name={sizePartsWords.removeRelay}
            onDrop={() => onSizeChange({ ...size, overload: null })}
          />
        )}
      </Box>
      <Box name={sizePartsWords.heaterChart}>
        {(charts.data ?? []).length > 0 ? (
          <Choice
            label={sizePartsWords.chart}
            options={(charts.data ?? []).map((chart) => ({ value: chart.name, label: chart.name }))}
            value={heater?.table.name}
            onValueChange={take}
          />
        ) : (
          <p>{sizePartsWords.noChartYet}</p>
        )}
        <Link className="ask text-sm" to={`/w/${works}/heaters`}>
          {sizePartsWords.chartsPlant}
        </Link>
        {heater && (
          <>
            <Choice
              label={sizePartsWords.relay}
              options={relays.map((value) => ({ value, label: value }))}
              value={heater.relay_type}
              onValueChange={(relay_type) => {
                const row = rows.find((item) => item.relay_type === relay_type);
                onSizeChange({
                  ...size,
                  heater: {
                    ...heater,
                    relay_type,
                    starter_size: row?.starter_size ?? "",
                    elements: row?.elements ?? 3,
                    basis: row?.basis ?? "",
                  },
                });
              }}
            />
            {sizes.length > 1 && (
              <Choice
                label={sizePartsWords.starterSize}
                options={sizes.map((value) => ({ value, label: value || sizePartsWords.any }))}
                value={heater.starter_size}
                onValueChange={(starter_size) =>
                  onSizeChange({ ...size, heater: { ...heater, starter_size } })
                }
              />
            )}
            <Choice
              label={sizePartsWords.elements}
              options={([2, 3] as const).map((value) => ({ value, label: String(value) }))}
              value={heater.elements ?? 3}
              onValueChange={(elements) =>
                onSizeChange({ ...size, heater: { ...heater, elements } })
              }
            />
            <Words
              label={sizePartsWords.existingHeaterCode}
              value={heater.code}
              onValueChange={(code) => onSizeChange({ ...size, heater: { ...heater, code } })}
              onRest={onRest}
              className="w-32"
            />
            <Drop
              name={sizePartsWords.removeHeater}
              onDrop={() => onSizeChange({ ...size, heater: null })}
            />
          </>
        )}
      </Box>
    </div>
  );
}
