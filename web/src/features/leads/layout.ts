/** Where the ends of a winding are drawn: a wye as a star, a delta as a triangle. */
export interface Point {
  x: number;
  y: number;
}

const ARMS: readonly Point[] = [
  { x: 0, y: -1 },
  { x: 0.93, y: 0.56 },
  { x: -0.93, y: 0.56 },
];
const SIZE = 190;
export const CENTRE: Point = { x: 330, y: 262 };

const at = (arm: Point, part: number): Point => ({
  x: CENTRE.x + arm.x * SIZE * part,
  y: CENTRE.y + arm.y * SIZE * part,
});

function between(from: Point, to: Point, part: number): Point {
  return { x: from.x + (to.x - from.x) * part, y: from.y + (to.y - from.y) * part };
}

/** Return the place of every lead and of the star point inside. */
export function pointsOf(kind: string): Record<string, Point> {
  const found: Record<string, Point> = { S: CENTRE };
  const isNine = kind.startsWith("9");
  ARMS.forEach((arm, place) => {
    const next = ARMS[(place + 1) % 3] ?? arm;
    const [first, second, third] = [place + 1, place + 4, place + 7].map((lead) => `T${lead}`);
    if (kind.endsWith("wye")) {
      found[first ?? ""] = at(arm, 1);
      if (isNine) {
        found[second ?? ""] = at(arm, 0.62);
        found[third ?? ""] = at(arm, 0.44);
      }
    } else {
      found[first ?? ""] = at(arm, 1);
      if (isNine) {
        found[second ?? ""] = between(at(arm, 1), at(next, 1), 0.42);
        found[third ?? ""] = between(at(arm, 1), at(next, 1), 0.58);
      }
    }
  });
  return found;
}

/** Where the lines come in: beyond the outer ends of the phases. */
export function linePoints(): Record<string, Point> {
  return {
    L1: at(ARMS[0] ?? CENTRE, 1.27),
    L2: at(ARMS[1] ?? CENTRE, 1.32),
    L3: at(ARMS[2] ?? CENTRE, 1.32),
  };
}

/** A coil's arches along its straight way, and the place of its label beside it. */
export function coilPath(from: Point, to: Point): { path: string; label: Point } {
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
    (mx + nx - CENTRE.x) ** 2 + (my + ny - CENTRE.y) ** 2 >
    (mx - CENTRE.x) ** 2 + (my - CENTRE.y) ** 2;
  const side = Math.abs(ux * (my - CENTRE.y) - uy * (mx - CENTRE.x)) < 4 || away ? 1 : -1;
  return { path, label: { x: mx + nx * 46 * side, y: my + ny * 34 * side } };
}
