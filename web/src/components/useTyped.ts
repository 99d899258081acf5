import { type ChangeEvent, useState } from "react";

/**
 * A number typed in place: sent on as soon as it is one, null once it is emptied, kept as typed
 * until then. `field` goes to the input.
 */
export function useTyped(
  value: string,
  pattern: RegExp,
  onValueChange: (value: string | null) => void,
  onRest?: () => void,
) {
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? value;
  const isWrong = text.trim() !== "" && !pattern.test(text.trim());
  const field = {
    inputMode: "decimal" as const,
    autoComplete: "off",
    value: text,
    "aria-invalid": isWrong,
    onChange: (event: ChangeEvent<HTMLInputElement>) => {
      const next = event.target.value;
      setTyped(next);
      if (next.trim() === "") onValueChange(null);
      else if (pattern.test(next.trim())) onValueChange(next.trim().replace(",", "."));
    },
    onBlur: () => {
      if (!isWrong) setTyped(null);
      onRest?.();
    },
  };
  return { text, isWrong, field };
}
