import { describe, expect, it } from "vitest";
import { boxOf, FOOT, fitted, LEGIBLE, panned, zoomed } from "./view";

const room = { width: 800, height: 500 + FOOT };

describe("the part of a sheet that is seen", () => {
  it("is the whole sheet while it can be read", () => {
    const view = fitted({ width: 900, height: 600 }, room);
    expect(view.scale).toBeCloseTo(500 / 600, 6);
    // 900 units take 750 of 800 px: the rest is left on both sides
    expect(view.x).toBeCloseTo((900 - 800 / view.scale) / 2, 6);
  });

  it("is the width of a sheet that is too tall to be read whole", () => {
    const view = fitted({ width: 800, height: 2000 }, room);
    expect(view).toEqual({ x: 0, y: 0, scale: 1 });
    expect(500 / 2000).toBeLessThan(LEGIBLE);
  });

  it("is the whole as an overview where the room is too small to read anything", () => {
    const small = { width: 300, height: 200 + FOOT };
    expect(fitted({ width: 800, height: 1000 }, small).scale).toBeCloseTo(0.2, 6);
  });

  it("keeps the point under the hand where it is", () => {
    const view = { x: 10, y: 20, scale: 1 };
    const at = { x: 200, y: 100 };
    const near = zoomed(view, 2, at);
    expect(near.x + at.x / near.scale).toBeCloseTo(210, 6);
    expect(near.y + at.y / near.scale).toBeCloseTo(120, 6);
    expect(zoomed(near, 1000, at).scale).toBe(5);
    expect(zoomed(near, 0.0001, at).scale).toBe(0.25);
  });

  it("never loses the sheet", () => {
    const sheet = { width: 800, height: 500 };
    const far = panned({ x: 0, y: 0, scale: 1 }, { x: -9999, y: 9999 }, sheet, room);
    expect(far.x).toBe(740);
    expect(far.y).toBe(-488);
    expect(boxOf({ x: 1, y: 2, scale: 2 }, room)).toBe("1.00 2.00 400.00 274.00");
  });
});
