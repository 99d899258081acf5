/** How a coil is drawn between two places. Where leads stand comes from the core. */
export interface Point {
  x: number;
  y: number;
}

export const CENTRE: Point = { x: 330, y: 262 };

/** A coil's arches along its straight way, and the place of its label beside it. */
export function coilPath(
  from: Point,
  to: Point,
  middle: Point = CENTRE,
): { path: string; label: Point } {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [ux, uy] = [(to.x - from.x) / length, (to.y - from.y) / length];
  const [start, stop] = [16, length - 16];
  const turns = Math.max(3, Math.round((stop - start) / 17));
  const step = (stop - start) / turns;
  let path = `M${from.x + ux * start} ${from.y + uy * start}`;
  for (let turn = 1; turn <= turns; turn += 1) {
    const reach = start + step * turn;
    path += `A${step / 2} ${step / 2} 0 0 1 ${from.x + ux * reach} ${from.y + uy * reach}`;
  }
  const [mx, my] = [(from.x + to.x) / 2, (from.y + to.y) / 2];
  // the label stands on the side away from the middle of the picture, or right of an arm
  const [nx, ny] = [-uy, ux];
  const away =
    (mx + nx - middle.x) ** 2 + (my + ny - middle.y) ** 2 >
    (mx - middle.x) ** 2 + (my - middle.y) ** 2;
  const side = Math.abs(ux * (my - middle.y) - uy * (mx - middle.x)) < 4 || away ? 1 : -1;
  return { path, label: { x: mx + nx * 46 * side, y: my + ny * 34 * side } };
}
