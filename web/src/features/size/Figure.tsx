import { type ReactNode, useId, useState } from "react";
import { sizeWords } from "../../words/size";

/** One input on its plate; dashed with the assumed figure while nobody said it. */
export function Said({
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
          <b className="stamp">{sizeWords.assumed(guess)}</b>
          {onSettle && (
            <button type="button" className="ask text-sm" onClick={onSettle}>
              {sizeWords.iRead(guess)}
            </button>
          )}
        </p>
      )}
    </fieldset>
  );
}

/** A number typed in place; sent on as soon as it is one, kept as typed until then. */
export function Figure({
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
          ? sizeWords.notStillUsed(
              text.slice(0, 12),
              isWhole ? "count" : "temperature",
              value || sizeWords.nothing,
            )
          : ""}
      </span>
    </div>
  );
}
