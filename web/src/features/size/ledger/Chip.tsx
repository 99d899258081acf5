import { type ReactNode, useId } from "react";
import { useTyped } from "../../../components/useTyped";
import { sizeWords } from "../../../words/size";

interface Framed {
  label: string;
  /** What is assumed instead, or null if somebody said it. */
  guess?: string | null;
  children: (id: string) => ReactNode;
}

/** One input in a row of the ledger; dashed while its figure is assumed. */
function Frame({ label, guess = null, children }: Framed) {
  const id = useId();
  return (
    <span className="chip" data-guess={guess !== null}>
      <label htmlFor={id} className="sr-only">
        {label}
      </label>
      {children(id)}
    </span>
  );
}

/** A choice of a few words. An empty one is not said; then it names what is assumed. */
export function ChipChoice<T extends string | number | boolean>({
  label,
  options,
  value,
  guess = null,
  none,
  onValueChange,
}: {
  label: string;
  options: readonly { value: T; label: string }[];
  value: T | null | undefined;
  guess?: string | null;
  /** What an empty choice is called; without it there is none. */
  none?: string;
  onValueChange: (value: T | null) => void;
}) {
  const known = options.findIndex((option) => option.value === value);
  return (
    <Frame label={label} guess={guess}>
      {(id) => (
        <select
          id={id}
          value={known < 0 ? "" : known}
          onChange={(event) =>
            onValueChange(
              event.target.value === "" ? null : (options[+event.target.value]?.value ?? null),
            )
          }
        >
          {(none !== undefined || known < 0) && (
            <option value="">
              {guess === null ? (none ?? "") : sizeWords.assumedShort(guess)}
            </option>
          )}
          {options.map((option, place) => (
            <option key={String(option.value)} value={place}>
              {option.label}
            </option>
          ))}
        </select>
      )}
    </Frame>
  );
}

/** A number typed in place; sent on as soon as it is one, kept as typed until then. */
export function ChipFigure({
  label,
  value,
  unit,
  guess = null,
  isWhole = false,
  width = "w-12",
  onFigureChange,
  onRest,
}: {
  label: string;
  value: string;
  unit: string;
  guess?: string | null;
  isWhole?: boolean;
  width?: string;
  onFigureChange: (text: string | null) => void;
  onRest: () => void;
}) {
  const pattern = isWhole ? /^\d{1,3}$/ : /^-?\d{1,6}([.,]\d{1,4})?$/;
  const { text, isWrong, field } = useTyped(value, pattern, onFigureChange, onRest);
  return (
    <Frame label={label} guess={guess}>
      {(id) => (
        <>
          <input
            id={id}
            className={width}
            placeholder={guess === null ? "–" : (guess.match(/-?[\d.]+/)?.[0] ?? "")}
            aria-describedby={`${id}-said`}
            {...field}
          />
          <span>{unit}</span>
          <span id={`${id}-said`} role="status" className="text-caution">
            {isWrong
              ? sizeWords.notStillUsed(
                  text.slice(0, 12),
                  sizeWords.number,
                  value || sizeWords.nothing,
                )
              : guess !== null && text === ""
                ? sizeWords.assumedWord
                : ""}
          </span>
        </>
      )}
    </Frame>
  );
}
