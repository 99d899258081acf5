import { useState } from "react";
import type { Figure, Step } from "../../api/client";
import { Words } from "../../components/inputs";
import { sizeWords } from "../../words/size";
import type { Size } from "./parts/parts";

type Own = NonNullable<Size["own"]>[number];

export interface OwnSizesProps {
  figures: readonly Figure[];
  steps: readonly Step[];
  size: Size;
  onSizeChange: (size: Size) => void;
}

/** Where the NEC does not hold: one field for each figure with its source, saved and printed. */
export function OwnSizes({ figures, steps, size, onSizeChange }: OwnSizesProps) {
  const own = size.own ?? [];
  const set = (figure: string, change: Partial<Own>) => {
    const before = own.find((item) => item.figure === figure);
    const next = { figure, value: "", source: "", ...before, ...change };
    const rest = own.filter((item) => item.figure !== figure);
    // a figure without its source is no evidence: both are kept, or neither
    onSizeChange({ ...size, own: next.value && next.source ? [...rest, next] : rest });
  };
  return (
    <section aria-labelledby="own" className="space-y-3" data-testid="own-sizes">
      <h2 id="own" className="stamp">
        {sizeWords.ownSizes}
      </h2>
      <p>{sizeWords.jobAnotherCode}</p>
      <ul className="grid gap-3 md:grid-cols-2">
        {figures.map((figure) => {
          const item = own.find((other) => other.figure === figure.id);
          const step = steps.find((other) => other.id === figure.step);
          return (
            <OwnSize
              key={`${figure.id} ${item?.value} ${item?.source}`}
              label={figure.label}
              known={item ? "" : (step?.shown ?? "")}
              item={item}
              onKeep={(value, source) => set(figure.id, { value, source })}
            />
          );
        })}
      </ul>
    </section>
  );
}

function OwnSize({
  label,
  known,
  item,
  onKeep,
}: {
  label: string;
  /** What is known without any code, such as the overload by the nameplate's amps. */
  known: string;
  item: Own | undefined;
  onKeep: (value: string, source: string) => void;
}) {
  const [value, setValue] = useState(item?.value ?? "");
  const [source, setSource] = useState(item?.source ?? "");
  const isHalf = Boolean(value.trim()) !== Boolean(source.trim());
  const keep = () => !isHalf && onKeep(value.trim(), source.trim());
  return (
    <li className="metal flex flex-wrap items-end gap-3 px-4 py-3">
      <Words
        label={label}
        value={value}
        onValueChange={setValue}
        onRest={keep}
        placeholder={known}
        className="w-40"
      />
      <Words
        label={sizeWords.sourceOf(label)}
        value={source}
        onValueChange={setSource}
        onRest={keep}
        placeholder={sizeWords.codeClause}
        className="min-w-40 flex-1"
      />
      {isHalf && (
        <span role="status" className="text-sm text-caution">
          {value.trim() ? sizeWords.sourceMissing : sizeWords.figureMissing}
        </span>
      )}
    </li>
  );
}
