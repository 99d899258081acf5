import { useMemo } from "react";
import { useCatalogue } from "../diagram/useCatalogue";

/** A circuit of the catalogue, by its group. */
export function CircuitSelect({
  works,
  label,
  any,
  value,
  onValueChange,
}: {
  works: string;
  label: string;
  /** What no choice means; without it there is none. */
  any?: string;
  value: string;
  onValueChange: (circuit: string) => void;
}) {
  const { data } = useCatalogue(works);
  const groups = useMemo(() => {
    const found = new Map<string, { id: string; title: string }[]>();
    for (const one of data?.circuits ?? [])
      found.set(one.group_label, [...(found.get(one.group_label) ?? []), one]);
    return [...found];
  }, [data]);
  return (
    <label className="text-sm text-soft">
      {label}
      <select
        className="control block max-w-72 text-ink"
        value={value}
        onChange={(event) => onValueChange(event.target.value)}
      >
        {any !== undefined && <option value="">{any}</option>}
        {groups.map(([name, circuits]) => (
          <optgroup key={name} label={name}>
            {circuits.map((one) => (
              <option key={one.id} value={one.id}>
                {one.id} {one.title}
              </option>
            ))}
          </optgroup>
        ))}
      </select>
    </label>
  );
}
