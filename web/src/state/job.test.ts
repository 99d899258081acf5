// @vitest-environment happy-dom
import { describe, expect, it } from "vitest";
import { givenOf, partsOf, same, unsaved } from "./job";
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

  it("are saved in whatever order their members came back, also of a device deep inside", () => {
    const edit = { id: "e", kind: "set", parameters: { coil: "24", aux: "13-14" }, by: "" };
    const back = { by: "", parameters: { aux: "13-14", coil: "24" }, kind: "set", id: "e" };
    const job = { ...jobOf(), starter: { edits: [edit] } } as unknown as ReturnType<typeof jobOf>;
    const given = { ...givenOf(job), starter: { edits: [back] } } as never;
    expect(unsaved(job, given)).toBeUndefined();
    expect(same([1, 2], [2, 1])).toBe(false);
  });
});
