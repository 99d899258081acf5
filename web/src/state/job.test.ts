// @vitest-environment happy-dom
import { describe, expect, it } from "vitest";
import { givenOf, partsOf, unsaved } from "./job";
import { jobOf } from "./testing";

describe("the inputs of a job", () => {
  it("are the steps that the server has versions of, and nothing that comes out of them", () => {
    const job = jobOf();
    expect(partsOf(job)).toEqual(["plate", "supply", "leads", "size", "starter"]);
    expect(Object.keys(givenOf(job))).toEqual([...partsOf(job)]);
  });

  it("name the first step that differs from what is saved", () => {
    const job = jobOf();
    const given = givenOf(job);
    expect(unsaved(job, given)).toBeUndefined();
    const changed = { ...given, supply: { ...given.supply, text: "240 delta" } };
    expect(unsaved(job, changed)).toBe("supply");
  });
});
