import type { Schemas } from "../../api/client";
import { Reading, Words } from "../../components/inputs";
import { withoutRow, withRow } from "../../state/rows";
import { convertWords } from "../../words/convert";
import { Taps } from "./Taps";
import type { Transformer } from "./useConvert";

/** Every control transformer of the machine: its taps, and how its links are set. */
export function ControlTransformers({
  transformers,
  answers,
  onTransformersChange,
}: {
  transformers: readonly Transformer[];
  answers: readonly Schemas["TransformerOut"][];
  onTransformersChange: (transformers: Transformer[]) => void;
}) {
  const setTransformer = (at: number, change: Partial<Transformer>) =>
    onTransformersChange(withRow(transformers, at, change));
  return (
    <section aria-labelledby="transformers" className="space-y-3">
      <h2 id="transformers" className="stamp">
        {convertWords.controlTransformers}
      </h2>
      {transformers.map((item, at) => {
        const found = answers.find((other) => other.tag === item.tag);
        return (
          <div
            // biome-ignore lint/suspicious/noArrayIndexKey: rows are edited in place
            key={at}
            className="metal flex flex-wrap items-end gap-3 px-5 py-3"
          >
            <Words
              label={convertWords.tag}
              value={item.tag}
              onValueChange={(tag) => setTransformer(at, { tag })}
              className="w-24"
            />
            <Taps taps={item.taps ?? []} onTapsChange={(taps) => setTransformer(at, { taps })} />
            <Reading
              label={convertWords.secondary}
              unit="V"
              value={item.secondary_v}
              onValueChange={(value) => setTransformer(at, { secondary_v: value ?? "120" })}
            />
            <p className="min-w-60 flex-1">
              {found?.text}
              {found?.refusal && (
                <span className="text-caution">
                  {found.refusal.detail} {found.refusal.hint}
                </span>
              )}
            </p>
            <button
              type="button"
              className="ask"
              onClick={() => onTransformersChange(withoutRow(transformers, at))}
            >
              {convertWords.remove}
            </button>
          </div>
        );
      })}
      <button
        type="button"
        className="control"
        onClick={() =>
          onTransformersChange([
            ...transformers,
            {
              tag: `T${transformers.length + 1}`,
              taps: [
                { volts_v: "240", links: "H1-H3, H2-H4" },
                { volts_v: "480", links: "H2-H3" },
              ],
              secondary_v: "120",
              now_v: null,
            },
          ])
        }
      >
        {convertWords.addControlTransformer}
      </button>
    </section>
  );
}
