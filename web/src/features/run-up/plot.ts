/** Axes of the plots: round steps, and points to places. */

/** Round marks from a low to a high figure, about as many as asked. */
export function marksOf(low: number, high: number, about = 4): number[] {
  const span = high - low;
  if (!(span > 0) || !Number.isFinite(span)) return [low];
  const rough = span / about;
  const ten = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((times) => times * ten).find((one) => one >= rough) ?? rough;
  const found: number[] = [];
  for (let at = Math.ceil(low / step); at * step <= high * (1 + 1e-9); at++) {
    found.push(Number((at * step).toPrecision(9)));
  }
  return found;
}

/** A path through points, straight between them. */
export const pathOf = (
  xs: readonly number[],
  ys: readonly number[],
  x: (value: number) => number,
  y: (value: number) => number,
): string =>
  xs
    .map((at, place) => `${place ? "L" : "M"}${x(at).toFixed(1)} ${y(ys[place] ?? 0).toFixed(1)}`)
    .join("");

/** The figure of a line at some place of its other axis, straight between its points. */
export function readAt(xs: readonly number[], ys: readonly number[], at: number): number {
  const next = xs.findIndex((one) => one >= at);
  if (next < 0) return ys.at(-1) ?? 0;
  const [before, after] = [xs[next - 1], xs[next]];
  const [low, high] = [ys[next - 1], ys[next]];
  if (before === undefined || after === undefined || low === undefined || high === undefined) {
    return ys[next] ?? 0;
  }
  return after === before ? high : low + ((high - low) * (at - before)) / (after - before);
}
