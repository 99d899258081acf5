import type { Schemas } from "../../api/client";
import { Reading, Words } from "../../components/inputs";
import { RowList } from "../../components/RowList";
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
  return (
    <section aria-labelledby="transformers" className="space-y-3">
      <h2 id="transformers" className="stamp">
        {convertWords.controlTransformers}
      </h2>
      <RowList
        rows={transformers}
        onRowsChange={onTransformersChange}
        add={convertWords.addControlTransformer}
        remove={convertWords.remove}
        newRow={() => ({
          tag: `T${transformers.length + 1}`,
          taps: [
            { volts_v: "240", links: "H1-H3, H2-H4" },
            { volts_v: "480", links: "H2-H3" },
          ],
          secondary_v: "120",
          now_v: null,
        })}
      >
        {(item, change) => {
          const found = answers.find((other) => other.tag === item.tag);
          return (
            <>
              <Words
                label={convertWords.tag}
                value={item.tag}
                onValueChange={(tag) => change({ tag })}
                className="w-24"
              />
              <Taps taps={item.taps ?? []} onTapsChange={(taps) => change({ taps })} />
              <Reading
                label={convertWords.secondary}
                unit="V"
                value={item.secondary_v}
                onValueChange={(value) => change({ secondary_v: value ?? "120" })}
              />
              <p className="min-w-60 flex-1">
                {found?.text}
                {found?.refusal && (
                  <span className="text-caution">
                    {found.refusal.detail} {found.refusal.hint}
                  </span>
                )}
              </p>
            </>
          );
        }}
      </RowList>
    </section>
  );
}
