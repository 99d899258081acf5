import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, told } from "../../../api/client";
import { Choice, Reading, Words } from "../../../components/inputs";
import { Box, Drop, YesNo } from "./Box";
import type { PartProps } from "./parts";

/** Where the heaters lie, what the relay is, and which heater its own chart names. */
export function OverloadPart({ size, onSizeChange, onRest, works }: PartProps & { works: string }) {
  const charts = useQuery({
    queryKey: ["heaters", works],
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/heaters", { params: { path: { works } }, signal })),
  });
  const overload = size.overload ?? null;
  const set = (change: Partial<NonNullable<typeof overload>>) =>
    onSizeChange({
      ...size,
      overload: { place: "line", units: 3, dial_has_125: false, ...overload, ...change },
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
      <Box name="Relay">
        <Choice
          label="Its heaters lie"
          options={[
            { value: "line", label: "in the lines" },
            { value: "leg", label: "in the winding legs" },
            { value: "half", label: "in half a winding" },
          ]}
          value={overload?.place ?? "line"}
          onValueChange={(place) => set({ place })}
        />
        <Choice
          label="How many"
          options={([3, 2, 1] as const).map((value) => ({ value, label: String(value) }))}
          value={overload?.units ?? 3}
          onValueChange={(units) => set({ units })}
        />
        <Choice
          label="Trip class"
          options={[
            { value: null, label: "not read" },
            ...([5, 10, 20, 30] as const).map((value) => ({ value, label: String(value) })),
          ]}
          value={overload?.trip_class ?? null}
          onValueChange={(trip_class) => set({ trip_class })}
        />
        <Reading
          label="Start takes"
          unit="s"
          value={overload?.accelerates_s}
          onValueChange={(accelerates_s) => set({ accelerates_s })}
          onRest={onRest}
          className="w-16"
        />
        <Reading
          label="Dial from"
          unit="A"
          value={overload?.low_a}
          onValueChange={(low_a) => set({ low_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label="to"
          unit="A"
          value={overload?.high_a}
          onValueChange={(high_a) => set({ high_a })}
          onRest={onRest}
          className="w-20"
        />
        <YesNo
          label="Dial counts 125 % itself"
          value={overload?.dial_has_125 ?? false}
          onValueChange={(dial_has_125) => set({ dial_has_125 })}
        />
        <Reading
          label="Current transformer"
          unit="A to"
          value={overload?.ct_primary_a}
          onValueChange={(ct_primary_a) => set({ ct_primary_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label="secondary"
          unit="A"
          value={overload?.ct_secondary_a}
          onValueChange={(ct_secondary_a) => set({ ct_secondary_a })}
          onRest={onRest}
          className="w-16"
        />
        <Reading
          label="Capacitor behind it lowers amps by"
          unit="%"
          value={overload?.capacitor_percent}
          onValueChange={(capacitor_percent) => set({ capacitor_percent })}
          onRest={onRest}
          className="w-16"
        />
        <Reading
          label="Protector in the motor opens at"
          unit="A"
          value={overload?.protector_trip_a}
          onValueChange={(protector_trip_a) => set({ protector_trip_a })}
          onRest={onRest}
          className="w-20"
        />
        {overload && (
          <Drop
            name="Leave the relay out"
            onDrop={() => onSizeChange({ ...size, overload: null })}
          />
        )}
      </Box>
      <Box name="Heater chart">
        {(charts.data ?? []).length > 0 ? (
          <Choice
            label="Chart"
            options={(charts.data ?? []).map((chart) => ({ value: chart.name, label: chart.name }))}
            value={heater?.table.name}
            onValueChange={take}
          />
        ) : (
          <p>No chart yet. Copy the one in the starter's door.</p>
        )}
        <Link className="ask text-sm" to={`/w/${works}/heaters`}>
          Charts of the works
        </Link>
        {heater && (
          <>
            <Choice
              label="Relay"
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
                label="Starter size"
                options={sizes.map((value) => ({ value, label: value || "any" }))}
                value={heater.starter_size}
                onValueChange={(starter_size) =>
                  onSizeChange({ ...size, heater: { ...heater, starter_size } })
                }
              />
            )}
            <Choice
              label="Elements"
              options={([2, 3] as const).map((value) => ({ value, label: String(value) }))}
              value={heater.elements ?? 3}
              onValueChange={(elements) =>
                onSizeChange({ ...size, heater: { ...heater, elements } })
              }
            />
            <Words
              label="Code that is there"
              value={heater.code}
              onValueChange={(code) => onSizeChange({ ...size, heater: { ...heater, code } })}
              onRest={onRest}
              className="w-32"
            />
            <Drop
              name="Leave the heater out"
              onDrop={() => onSizeChange({ ...size, heater: null })}
            />
          </>
        )}
      </Box>
    </div>
  );
}
