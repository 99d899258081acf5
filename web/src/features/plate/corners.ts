/** Corners of a plate on its photo: x and y in turn from the upper left clockwise, as shares. */
export type Corners = readonly number[];

/** A little inside the whole picture. */
export const WHOLE: Corners = [0.06, 0.06, 0.94, 0.06, 0.94, 0.94, 0.06, 0.94];

/** One corner led elsewhere, never out of the picture. */
export function led(corners: Corners, corner: number, to: { x: number; y: number }): Corners {
  const inside = (share: number) => Math.min(1, Math.max(0, share));
  return corners.map((share, place) =>
    place === 2 * corner ? inside(to.x) : place === 2 * corner + 1 ? inside(to.y) : share,
  );
}

/** A word as it is being confirmed: what it will be taken as, and whether a person said so. */
export interface Word {
  text: string;
  row: number;
  place: readonly number[];
  crop: string;
  isSure: boolean;
  isConfirmed: boolean;
}

/** The text of the plate, row by row; a word that was emptied does not stand there. */
export function textOf(words: readonly Word[]): string {
  const rows = new Map<number, string[]>();
  for (const word of words) {
    if (word.text.trim()) rows.set(word.row, [...(rows.get(word.row) ?? []), word.text.trim()]);
  }
  return [...rows.entries()]
    .sort(([one], [other]) => one - other)
    .map(([, row]) => row.join(" "))
    .join("\n");
}

/** How many words nobody has looked at yet. */
export const leftOf = (words: readonly Word[]) =>
  words.filter((word) => !word.isSure && !word.isConfirmed).length;
