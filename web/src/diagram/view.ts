/** Which part of a sheet is seen: its upper left corner and how many pixels a unit takes. */
export interface View {
  x: number;
  y: number;
  scale: number;
}
export interface Size {
  width: number;
  height: number;
}

/** Below this, figures on a sheet cannot be read at arm's length. */
export const LEGIBLE = 0.8;
const LEAST = 0.25;
const MOST = 5;
const LARGEST_FIT = 1.35;
/** Kept free below a sheet for the buttons that bring it closer [px]. */
export const FOOT = 48;

/**
 * The whole sheet if it stays legible, else its width if that is; where neither is, the room shows
 * the whole as an overview. Never blown up beyond reason.
 */
export function fitted(sheet: Size, room: Size): View {
  const byWidth = room.width / Math.max(sheet.width, 1);
  const whole = Math.min(byWidth, (room.height - FOOT) / Math.max(sheet.height, 1));
  const isWhole = whole >= LEGIBLE || byWidth < LEGIBLE;
  const scale = Math.min(isWhole ? whole : byWidth, LARGEST_FIT);
  const left = (sheet.width - room.width / scale) / 2;
  return { x: Math.min(left, 0), y: 0, scale };
}

/** Closer or further, the point under the hand staying where it is (in pixels of the room). */
export function zoomed(view: View, by: number, at: { x: number; y: number }): View {
  const scale = Math.min(Math.max(view.scale * by, LEAST), MOST);
  return {
    x: view.x + at.x / view.scale - at.x / scale,
    y: view.y + at.y / view.scale - at.y / scale,
    scale,
  };
}

/** Moved by so many pixels; a part of the sheet always stays in sight. */
export function panned(view: View, by: { x: number; y: number }, sheet: Size, room: Size): View {
  const keep = 60 / view.scale;
  const within = (value: number, size: number, seen: number) =>
    Math.min(Math.max(value, keep - seen), size - keep);
  return {
    ...view,
    x: within(view.x - by.x / view.scale, sheet.width, room.width / view.scale),
    y: within(view.y - by.y / view.scale, sheet.height, room.height / view.scale),
  };
}

/** What an SVG calls the part that is seen. */
export function boxOf(view: View, room: Size): string {
  const figures = [view.x, view.y, room.width / view.scale, room.height / view.scale];
  return figures.map((figure) => figure.toFixed(2)).join(" ");
}
