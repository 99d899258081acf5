import type { ReactNode } from "react";
import { Choice } from "../../../components/inputs";
import { sizePartsWords } from "../../../words/sizeParts";

/** Some inputs that belong together, on one plate. */
export function Box({ name, children }: { name: string; children: ReactNode }) {
  return (
    <fieldset className="metal flex min-w-0 flex-wrap items-end gap-x-5 gap-y-3 px-4 pt-2 pb-3">
      <legend className="stamp bg-ground px-1.5">{name}</legend>
      {children}
    </fieldset>
  );
}

/** A part nobody asked for yet: what it would tell, and the button that asks. */
export function Unasked({ says, name, onAsk }: { says: string; name: string; onAsk: () => void }) {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-l-4 border-edge pl-4">
      <p className="max-w-prose">{says}</p>
      <button type="button" className="control" onClick={onAsk}>
        {name}
      </button>
    </div>
  );
}

export function Drop({ name, onDrop }: { name: string; onDrop: () => void }) {
  return (
    <button type="button" className="ask text-sm" onClick={onDrop}>
      {name}
    </button>
  );
}

const YES_NO = [
  { value: false, label: sizePartsWords.no },
  { value: true, label: sizePartsWords.yes },
] as const;

export function YesNo({
  label,
  value,
  onValueChange,
}: {
  label: string;
  value: boolean | null;
  onValueChange: (value: boolean) => void;
}) {
  return <Choice label={label} options={YES_NO} value={value} onValueChange={onValueChange} />;
}
