import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, told } from "../../api/client";
import { named } from "../../api/question";
import { Working } from "../../components/Edges";
import { Sheet } from "../../components/Sheet";
import type { Place } from "../../state/useJob";
import { plateWords } from "../../words/plate";
import { CornerPicture } from "./CornerPicture";
import { type Corners, leftOf, textOf, WHOLE, type Word } from "./corners";
import { photoAddress } from "./photoAddress";

/** What a photo seems to say: every doubted word beside its crop, nothing counts unconfirmed. */
export function ReadPhoto({
  place,
  sha256,
  kept,
  onTake,
  onClose,
}: {
  place: Place;
  sha256: string;
  /** Corners from an earlier reading. */
  kept: Corners;
  onTake: (text: string, corners: Corners, words: readonly Word[]) => void;
  onClose: () => void;
}) {
  const [corners, setCorners] = useState<Corners>(kept.length === 8 ? kept : WHOLE);
  const [asked, setAsked] = useState<Corners | null>(null);
  const [words, setWords] = useState<readonly Word[]>([]);
  const key = ["words", place, sha256, asked];
  const path = { works: place.works, tag: place.tag, number: place.number, sha256 };
  const read = useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/m/{tag}/j/{number}/photos/{sha256}/words", {
          params: { path },
          body: { corners: [...(asked ?? WHOLE)] },
          signal,
          ...named(key),
        }),
      ),
    enabled: asked !== null,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  useEffect(() => {
    setWords(
      (read.data?.words ?? []).map((word) => ({
        text: word.text,
        row: word.row,
        place: word.place,
        crop: word.crop,
        isSure: word.is_sure,
        isConfirmed: false,
      })),
    );
  }, [read.data]);
  const set = (at: number, part: Partial<Word>) =>
    setWords((known) => known.map((word, n) => (n === at ? { ...word, ...part } : word)));
  const left = leftOf(words);
  const url = photoAddress(place, sha256);
  return (
    <Sheet
      title={plateWords.readPhoto}
      isOpen
      isWide
      onOpenChange={(isOpen) => !isOpen && onClose()}
    >
      <div className="grid gap-4 lg:grid-cols-2">
        <div className="space-y-3">
          <p>{plateWords.dragCorners}</p>
          <CornerPicture url={url} corners={corners} onChange={setCorners} />
          <button
            type="button"
            className="control"
            data-primary="true"
            onClick={() => setAsked(corners)}
          >
            {plateWords.readIt}
          </button>
        </div>
        <div className="space-y-3" data-testid="seen">
          {asked && !read.data && <Working query={read} question={{ works: place.works, key }} />}
          {read.data?.poor && (
            <p role="alert" className="border-l-8 border-caution px-3 py-1 font-semibold">
              {read.data.poor}
            </p>
          )}
          {words.length > 0 && (
            <>
              <p role="status">
                {left > 0 ? plateWords.leftToConfirm(left) : plateWords.allConfirmed}
              </p>
              <ol className="flex flex-wrap gap-2">
                {words.map((word, at) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: words of one reading have no other name
                  <li key={at} className="min-w-0">
                    {word.isSure ? (
                      <span className="inline-block border-b-2 border-proven px-1 font-mono text-lg">
                        {word.text}
                      </span>
                    ) : (
                      <Doubted
                        word={word}
                        onText={(text) => set(at, { text, isConfirmed: false })}
                        onConfirm={() => set(at, { isConfirmed: true })}
                        onDrop={() => set(at, { text: "", isConfirmed: true })}
                      />
                    )}
                  </li>
                ))}
              </ol>
              <pre className="metal overflow-x-auto px-4 py-3 font-mono">{textOf(words)}</pre>
              <button
                type="button"
                className="control"
                aria-disabled={left > 0}
                onClick={() => left === 0 && asked && onTake(textOf(words), asked, words)}
              >
                {left > 0 ? plateWords.confirmFirst(left) : plateWords.takeText}
              </button>
              <p className="text-sm text-soft">{plateWords.replacesTyped}</p>
            </>
          )}
        </div>
      </div>
    </Sheet>
  );
}

function Doubted({
  word,
  onText,
  onConfirm,
  onDrop,
}: {
  word: Word;
  onText: (text: string) => void;
  onConfirm: () => void;
  onDrop: () => void;
}) {
  return (
    <div
      className={`space-y-1 border-2 border-dashed p-2 ${word.isConfirmed ? "border-proven" : "border-caution bg-caution-wash"}`}
      data-testid="doubted"
    >
      <img src={`data:image/png;base64,${word.crop}`} alt={plateWords.cropOf} className="h-12" />
      <input
        className="field w-36"
        aria-label={plateWords.doubtedWord(word.text)}
        value={word.text}
        maxLength={60}
        onChange={(event) => onText(event.target.value)}
        onKeyDown={(event) => event.key === "Enter" && onConfirm()}
      />
      <span className="flex gap-3">
        <button type="button" className="ask" onClick={onConfirm}>
          {word.isConfirmed ? plateWords.confirmed : plateWords.confirmWord}
        </button>
        <button type="button" className="ask" onClick={onDrop}>
          {plateWords.dropWord}
        </button>
      </span>
    </div>
  );
}
