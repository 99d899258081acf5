import { useState } from "react";
import { Reading, Words } from "../../components/inputs";
import { benchWords } from "../../words/bench";
import type { BenchState } from "./useBench";

const words = (text: string) =>
  text
    .toLowerCase()
    .split(/[\s,]+/)
    .filter(Boolean);

/** Phase halves as typed, "a-b c-d" in each line; what is no pair of pairs is left out. */
function phases(text: string): [[string, string], [string, string]][] {
  return text.split("/").flatMap((part) => {
    const found = words(part).map((word) => word.split("-"));
    const [one, other] = found;
    return one?.length === 2 && other?.length === 2
      ? [[one, other] as [[string, string], [string, string]]]
      : [];
  });
}

/** What is sure before any reading: tags still there, corners, halves of a phase, the meter. */
export function KnownTags({ bench, leadLetters }: { bench: BenchState; leadLetters: string[] }) {
  const { set } = bench;
  const known = bench.bench?.known ?? {};
  const corners = (bench.bench?.corners ?? []).join(" ");
  const halves = (bench.bench?.same_phase ?? [])
    .map((pairs) => pairs.map((pair) => pair.join("-")).join(" "))
    .join(" / ");
  const [cornersTyped, setCorners] = useState<string | null>(null);
  const [halvesTyped, setHalves] = useState<string | null>(null);
  return (
    <div className="space-y-3" data-testid="known-tags">
      <p className="text-sm">{benchWords.tagsStillThere}</p>
      <div className="grid grid-cols-3 gap-2 sm:grid-cols-6">
        {leadLetters.map((letter) => (
          <Words
            key={letter}
            label={letter}
            value={known[letter] ?? ""}
            placeholder="T?"
            onValueChange={(mark) => {
              const rest = Object.fromEntries(
                Object.entries(known).filter(([other]) => other !== letter),
              );
              set({ known: mark.trim() ? { ...rest, [letter]: mark } : rest });
            }}
          />
        ))}
      </div>
      <div className="flex flex-wrap items-end gap-3">
        <Words
          label={benchWords.cornersKnown}
          value={cornersTyped ?? corners}
          placeholder="a d g"
          onValueChange={setCorners}
          onRest={() => {
            if (cornersTyped !== null) set({ corners: words(cornersTyped) });
            setCorners(null);
          }}
          className="w-32"
        />
        <Words
          label={benchWords.halvesKnown}
          value={halvesTyped ?? halves}
          placeholder="a-b c-d / e-f g-h"
          onValueChange={setHalves}
          onRest={() => {
            if (halvesTyped !== null) set({ same_phase: phases(halvesTyped) });
            setHalves(null);
          }}
          className="w-52"
        />
        <Reading
          label={benchWords.tipsTogether}
          unit="Ω"
          value={bench.bench?.probe_ohm}
          onValueChange={(probe_ohm) => set({ probe_ohm })}
          className="w-20"
        />
      </div>
    </div>
  );
}
