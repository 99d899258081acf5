import { useId } from "react";

/** A password, typed or pasted. */
export function Secret({
  label,
  value,
  isNew = false,
  onValueChange,
  className = "w-64",
}: {
  label: string;
  value: string;
  /** One to be set, not one to be given. */
  isNew?: boolean;
  onValueChange: (value: string) => void;
  className?: string;
}) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="block text-sm text-soft">
        {label}
      </label>
      <input
        id={id}
        type="password"
        className="field"
        autoComplete={isNew ? "new-password" : "current-password"}
        maxLength={200}
        value={value}
        onChange={(event) => onValueChange(event.target.value)}
      />
    </div>
  );
}
