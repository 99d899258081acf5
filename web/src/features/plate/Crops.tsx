import type { Schemas } from "../../api/client";
import type { Place } from "../../state/useJob";
import { plateWords } from "../../words/plate";
import { photoAddress } from "./photoAddress";

/** Where the photo shows a figure: the crops of the words it was taken from, as long as they stand. */
export function Crops({
  place,
  plate,
  text,
}: {
  place: Place;
  plate: Schemas["PlateInputs"];
  text: string;
}) {
  const parts = new Set(text.toUpperCase().split(/\s+/));
  const words = (plate.seen ?? []).filter((word) => parts.has(word.text.toUpperCase()));
  if (!plate.photo || plate.corners?.length !== 8) return null;
  const base = `${photoAddress(place, plate.photo)}/crop`;
  return (
    <span className="flex flex-wrap gap-1">
      {words.slice(0, 3).map((word) => {
        const asked = new URLSearchParams({
          corners: (plate.corners ?? []).join(","),
          place: word.place.join(","),
        });
        return (
          <img
            key={word.place.join()}
            src={`${base}?${asked}`}
            alt={plateWords.fromPhoto}
            title={plateWords.fromPhoto}
            className="h-5 border border-hair"
            loading="lazy"
          />
        );
      })}
    </span>
  );
}
