import { describe, expect, it } from "vitest";
import { changesOf, programAt } from "./programs";
import { EMPTY, type Frame } from "./timeline";

type Told = Frame["programs"][string];

const frame = (t: number, told?: Told) =>
  ({ t, programs: told ? { plc: told } : {} }) as unknown as Frame;

const line = {
  ...EMPTY,
  frames: [
    frame(0, { run: false, values: {}, flows: {} }),
    frame(300, { run: true, values: { I1: "0", Q1: "0" }, flows: { 0: "0:0" } }),
    frame(400),
    frame(500, { run: true, values: { I1: "1" }, flows: { 0: "2:1" } }),
    frame(510, { run: true, values: { Q1: "1" }, flows: {} }),
    frame(900, { run: false, values: {}, flows: {} }),
    frame(1500, { run: true, values: { I1: "1", Q1: "0" }, flows: { 0: "2:1" } }),
  ],
};

describe("what a program shows", () => {
  it("is put together from what changed, and is nothing without a running program", () => {
    expect(programAt(line, 100, "plc")).toEqual({ run: false, values: {}, flows: {} });
    expect(programAt(line, 505, "plc").values).toEqual({ I1: "1", Q1: "0" });
    expect(programAt(line, 600, "plc")).toEqual({
      run: true,
      values: { I1: "1", Q1: "1" },
      flows: { 0: "2:1" },
    });
    expect(programAt(line, 1000, "plc").values).toEqual({});
    expect(programAt(line, 1500, "plc").values.Q1).toBe("0");
    expect(programAt(line, 1500, "other").run).toBe(false);
  });

  it("tells when a name changed, and when it was worth nothing", () => {
    expect(changesOf(line, "plc", "Q1")).toEqual([
      { t: 300, value: "0" },
      { t: 510, value: "1" },
      { t: 900, value: "" },
      { t: 1500, value: "0" },
    ]);
  });
});
