import type { Place } from "../../state/useJob";

/** Where a kept picture of a job's motor is. */
export const photoAddress = (place: Place, sha256: string): string =>
  `/api/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}/photos/${sha256}`;
