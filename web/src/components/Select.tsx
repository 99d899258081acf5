export interface SelectProps {
  id: string;
  value: string;
  /** What is picked, and how it reads. */
  options: readonly (readonly [string, string])[];
  onPick: (value: string) => void;
  wide?: string;
}

/** One of many by its name, under a label that points at its id. */
export function Select({ id, value, options, onPick, wide = "w-36!" }: SelectProps) {
  return (
    <select
      id={id}
      className={`field ${wide}`}
      value={value}
      onChange={(event) => onPick(event.target.value)}
    >
      {options.map(([name, said]) => (
        <option key={name} value={name}>
          {said}
        </option>
      ))}
    </select>
  );
}
