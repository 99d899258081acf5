import { useId, useState } from "react";
import { api, Refused, told } from "../../api/client";
import { ProblemSlab } from "../../components/shapes";
import { shrunk } from "../../state/shrunk";
import type { Place } from "../../state/useJob";
import { plateWords } from "../../words/plate";
import { photoAddress } from "./photoAddress";

const NO_PICTURE = {
  code: "file_format",
  detail: plateWords.pictureCannotRead,
  field: "photo",
  hint: plateWords.useJpegPng,
};

export interface PhotoProps {
  place: Place;
  sha256: string;
  subject: "plate" | "diagram" | "box";
  onPhotoChange: (sha256: string) => void;
}

const SUBJECTS = {
  plate: plateWords.nameplate,
  diagram: plateWords.diagram,
  box: plateWords.terminalBox,
} as const;

/** A photo of what is read, kept without its location and shown beside the fields. */
export function Photo({ place, sha256, subject, onPhotoChange }: PhotoProps) {
  const id = useId();
  const [problem, setProblem] = useState<typeof NO_PICTURE | null>(null);
  const [isBusy, setBusy] = useState(false);
  const [isLarge, setLarge] = useState(false);
  const take = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    try {
      const data = await shrunk(file);
      const kept = await told(
        api.POST("/api/w/{works}/m/{tag}/j/{number}/photos", {
          params: { path: { works: place.works, tag: place.tag, number: place.number } },
          body: { subject, data },
        }),
      );
      setProblem(null);
      onPhotoChange(kept.sha256);
    } catch (error) {
      setProblem(error instanceof Refused ? error.problem : NO_PICTURE);
    } finally {
      setBusy(false);
    }
  };
  const url = photoAddress(place, sha256);
  return (
    <div className="space-y-2" data-testid="photo">
      {problem && <ProblemSlab problem={problem} />}
      {sha256 && (
        <button
          type="button"
          className="block w-full border-2 border-ink bg-sunk p-0"
          aria-label={isLarge ? plateWords.makePhotoSmall : plateWords.makePhotoLarge}
          onClick={() => setLarge(!isLarge)}
        >
          <img
            src={url}
            alt={plateWords.photo(SUBJECTS[subject])}
            className={`mx-auto block w-full object-contain ${isLarge ? "" : "max-h-56"}`}
          />
        </button>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <label htmlFor={id} className="control">
          {isBusy
            ? plateWords.saving
            : sha256
              ? plateWords.anotherPhoto
              : plateWords.photo2(SUBJECTS[subject])}
        </label>
        <input
          id={id}
          type="file"
          accept="image/jpeg,image/png,image/webp"
          capture="environment"
          className="sr-only"
          onChange={(event) => void take(event.target.files?.[0])}
        />
        {sha256 && (
          <button type="button" className="ask" onClick={() => onPhotoChange("")}>
            {plateWords.remove}
          </button>
        )}
      </div>
    </div>
  );
}
