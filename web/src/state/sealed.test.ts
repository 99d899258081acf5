import { beforeEach, describe, expect, it, vi } from "vitest";

const store = new Map<string, unknown>();
vi.mock("idb-keyval", () => ({
  del: async (key: string) => void store.delete(key),
  get: async (key: string) => store.get(key),
  keys: async () => [...store.keys()],
  set: async (key: string, value: unknown) => void store.set(key, value),
  update: async (key: string, change: (old: unknown) => unknown) =>
    void store.set(key, change(store.get(key))),
}));

const { boxOf, heldIn, make, othersIn } = await import("./outbox");
const { hasSeal, isSealed, keepSeal, sealOthers } = await import("./sealed");
const mine = boxOf("marta", "larkfall", "IC-2", 1);
const theirs = boxOf("dov", "larkfall", "IC-2", 1);
const seen = { rev: 1, heads: [] };
const key = btoa(String.fromCharCode(...Array.from({ length: 32 }, (_, place) => place)));
const other = btoa(String.fromCharCode(...Array.from({ length: 32 }, () => 7)));

describe("unsent entries of somebody who is not signed in", () => {
  beforeEach(() => store.clear());

  it("cannot be read here, and their kinds still count", async () => {
    await keepSeal("marta", key);
    await make(mine, { kind: "lock_off", body: { lock_no: "a secret" } }, seen);
    await sealOthers(null);
    expect(isSealed(store.get(mine))).toBe(true);
    expect(JSON.stringify(store.get(mine))).not.toContain("a secret");
    expect(await hasSeal("marta")).toBe(false);
    expect(await othersIn(theirs)).toEqual(["lock_off"]);
    expect(await heldIn(mine)).toEqual([]);
  });

  it("are there again when that person is, in their order", async () => {
    await keepSeal("marta", key);
    await make(mine, { kind: "lock_on" }, seen);
    await make(mine, { kind: "lock_off" }, seen);
    await sealOthers("dov");
    await keepSeal("marta", key);
    expect((await heldIn(mine)).map((one) => one.act.kind)).toEqual(["lock_on", "lock_off"]);
    const [, , third] = await make(mine, { kind: "note" }, seen);
    expect(third?.act.kind).toBe("note");
  });

  it("are never written over while they cannot be opened", async () => {
    await keepSeal("marta", key);
    await make(mine, { kind: "lock_on" }, seen);
    await sealOthers(null);
    const before = store.get(mine);
    await expect(make(mine, { kind: "note" }, seen)).rejects.toThrow("sealed");
    await keepSeal("marta", other);
    expect(await heldIn(mine)).toEqual([]);
    expect(store.get(mine)).toBe(before);
  });

  it("of the one who is signed in stay open", async () => {
    await keepSeal("marta", key);
    await make(mine, { kind: "lock_on" }, seen);
    await sealOthers("marta");
    expect(isSealed(store.get(mine))).toBe(false);
    expect(await hasSeal("marta")).toBe(true);
  });
});
