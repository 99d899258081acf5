import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { numbersOf } from "./numbers";

const wire = (net: string, number: string) => ({ net, number }) as Schemas["WireOut"];

describe("wire numbers", () => {
  it("label nets by their id, however often a net has a wire", () => {
    const wires = [wire("start.14", "8"), wire("start.14", "8"), wire("stop.11", "5")];
    expect(numbersOf({ wires })).toEqual({ "start.14": "8", "stop.11": "5" });
  });

  it("are none while there is no circuit", () => {
    expect(numbersOf(undefined)).toEqual({});
  });
});
