import { type ReactNode, useEffect, useId, useState } from "react";
import { frameWords } from "../words/frame";
import { useTyped } from "./useTyped";

/** A few ways to choose one, as buttons; the one that holds is dark. */
export function Choice<T extends string | number | boolean | null>({
  options,
  value,
  onValueChange,
  label,
}: {
  options: readonly { value: T; label: string }[];
  value: T | null | undefined;
  onValueChange: (value: T) => void;
  /** Said before the buttons; without it the surroundings say what is chosen. */
  label?: string;
}) {
  return (
    <fieldset className="flex min-w-0 flex-wrap items-center gap-1.5">
      {label && <legend className="float-left mr-2 text-sm text-soft">{label}</legend>}
      {options.map((option) => (
        <button
          key={String(option.value)}
          type="button"
          className="control px-2.5 text-sm"
          aria-pressed={option.value === value}
          onClick={() => onValueChange(option.value)}
        >
          {option.label}
        </button>
      ))}
    </fieldset>
  );
}

const NUMBER = /^\d{1,7}([.,]\d{1,4})?$/;

export interface ReadingProps {
  label: string;
  value: string | null | undefined;
  unit: string;
  onValueChange: (value: string | null) => void;
  onRest?: () => void;
  /** Wide enough for what is read here. */
  className?: string;
}

/** A reading typed in place; sent on as soon as it is a number, kept as typed until then. */
export function Reading({
  label,
  value,
  unit,
  onValueChange,
  onRest,
  className = "w-24",
}: ReadingProps) {
  const id = useId();
  const { text, isWrong, field } = useTyped(value ?? "", NUMBER, onValueChange, onRest);
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="block text-sm text-soft">
        {label}
      </label>
      <span className="flex items-center gap-1.5">
        <input id={id} className={`field text-lg font-semibold ${className}`} {...field} />
        <span>{unit}</span>
      </span>
      {isWrong && (
        <span role="status" className="block text-sm text-caution">
          {frameWords.notNumberStill(text.slice(0, 12), value || frameWords.nothing)}
        </span>
      )}
    </div>
  );
}

/** A word, a few, or a figure that is judged elsewhere: kept as typed. */
export function Words({
  label,
  value,
  unit,
  isNumber = false,
  onValueChange,
  onRest,
  placeholder,
  className = "",
}: {
  label: string;
  value: string | undefined;
  unit?: string | undefined;
  /** Opens the keypad; what is typed stays free. */
  isNumber?: boolean;
  onValueChange: (value: string) => void;
  onRest?: () => void;
  placeholder?: string;
  className?: string;
}) {
  const id = useId();
  return (
    <div className={`min-w-0 ${className}`}>
      <label htmlFor={id} className="block text-sm text-soft">
        {label}
      </label>
      <span className="flex items-center gap-2">
        <input
          id={id}
          className="field"
          inputMode={isNumber ? "decimal" : "text"}
          autoComplete="off"
          spellCheck={false}
          maxLength={200}
          value={value ?? ""}
          placeholder={placeholder}
          onChange={(event) => onValueChange(event.target.value)}
          onBlur={onRest}
        />
        {unit}
      </span>
    </div>
  );
}

/** A part of a screen that opens when asked; its name says what is inside. */
export function Drawer({
  name,
  hint,
  children,
  isOpen = false,
}: {
  name: string;
  hint?: string;
  children: ReactNode;
  isOpen?: boolean;
}) {
  const [isOpened, setOpened] = useState(isOpen);
  useEffect(() => {
    // what calls for a look opens by itself, and never closes under a hand
    if (isOpen) setOpened(true);
  }, [isOpen]);
  return (
    <details
      className="border-t-2 border-hair pt-1"
      open={isOpened}
      onToggle={(event) => setOpened(event.currentTarget.open)}
    >
      <summary className="flex min-h-9 cursor-pointer flex-wrap items-baseline gap-x-2 in-data-[seat=panel]:min-h-14">
        <svg
          viewBox="0 0 12 12"
          className="size-3 shrink-0 self-center text-plum in-open:rotate-90"
          aria-hidden="true"
        >
          <path d="M3 1l6 5l-6 5" fill="none" stroke="currentColor" strokeWidth="2.4" />
        </svg>
        <span className="stamp">{name}</span>
        {hint && <span className="text-sm text-soft">{hint}</span>}
      </summary>
      <div className="space-y-3 pt-1 pb-2">{children}</div>
    </details>
  );
}

/** A box to tick, large enough for a glove. */
export function Tick({
  isOn,
  onChange,
  className = "",
  children,
}: {
  isOn: boolean;
  onChange: (isOn: boolean) => void;
  className?: string;
  children: ReactNode;
}) {
  return (
    <label className={`flex items-start gap-3 ${className}`}>
      <input
        type="checkbox"
        className="mt-1 size-6 shrink-0 accent-plum"
        checked={isOn}
        onChange={(event) => onChange(event.target.checked)}
      />
      {children}
    </label>
  );
}
