import { describe, expect, it } from "vitest";
import { at, inParallel, inSeries, moved, renamed, toggled, without } from "./rungTree";

const seal = { series: [{ parallel: [{ no: "I2" }, { no: "Run" }] }, { no: "I1" }, { nc: "Flt" }] };

describe("contacts of a rung", () => {
  it("are found by their way down", () => {
    expect(at(seal, [0, 1])).toEqual({ no: "Run" });
    expect(at(seal, [2])).toEqual({ nc: "Flt" });
    expect(at({ no: "I1" }, [])).toEqual({ no: "I1" });
  });

  it("come behind another, in the same group", () => {
    expect(inSeries({ no: "I1" }, [], { no: "I2" })).toEqual({
      series: [{ no: "I1" }, { no: "I2" }],
    });
    expect(inSeries(seal, [2], { no: "I3" }).series).toHaveLength(4);
  });

  it("come beside another, and a wire is replaced", () => {
    expect(inParallel(seal, [0, 0], { no: "I3" })).toEqual({
      series: [
        { parallel: [{ no: "I2" }, { no: "I3" }, { no: "Run" }] },
        { no: "I1" },
        { nc: "Flt" },
      ],
    });
    expect(inParallel({ always: true }, [], { no: "I1" })).toEqual({ no: "I1" });
  });

  it("go, and a group of one is no group", () => {
    expect(without(seal, [0, 0])).toEqual({ series: [{ no: "Run" }, { no: "I1" }, { nc: "Flt" }] });
    expect(without({ no: "I1" }, [])).toEqual({ always: true });
  });

  it("open for closed, and another variable", () => {
    expect(toggled(seal, [2])).toEqual({
      series: [{ parallel: [{ no: "I2" }, { no: "Run" }] }, { no: "I1" }, { no: "Flt" }],
    });
    expect(at(renamed(seal, [1], "I4"), [1])).toEqual({ no: "I4" });
  });
});

it("moves a rung up and down, and no further than the ends", () => {
  expect(moved(["a", "b", "c"], 0, 1)).toEqual(["b", "a", "c"]);
  expect(moved(["a", "b", "c"], 0, -1)).toEqual(["a", "b", "c"]);
});
