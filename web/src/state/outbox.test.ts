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

const { answered, boxOf, dropped, heldIn, make, othersIn, pictured } = await import("./outbox");
const box = boxOf("marta", "larkfall", "IC-2", 1);
const seen = { rev: 3, heads: ["h1", "h2"] };

describe("entries on this device only", () => {
  beforeEach(() => store.clear());

  it("name everything that was seen, and the own one made before", async () => {
    await make(box, { kind: "lock_on" }, seen);
    const [first, second] = await make(box, { kind: "note", body: { text: "x" } }, seen);
    expect(first?.act.based_on).toEqual(["h1", "h2"]);
    expect(second?.act.based_on).toEqual(["h1", "h2", first?.act.uid]);
    expect(second?.act.rev).toBe(3);
    expect(first?.act.device).toBe(second?.act.device);
    expect(await heldIn(box)).toHaveLength(2);
  });

  it("leave when kept, stay when refused until a person drops them", async () => {
    await make(box, { kind: "lock_on" }, seen);
    const held = await make(box, { kind: "covers_on" }, seen);
    const [lock, covers] = held.map((one) => one.act.uid) as [string, string];
    const left = await answered(box, [
      { uid: lock, answer: "kept", said: "Kept." },
      { uid: covers, answer: "refused:role", said: "Not kept: your role may not do this." },
    ]);
    expect(left.map((one) => one.refused)).toEqual(["Not kept: your role may not do this."]);
    expect(await dropped(box, lock)).toHaveLength(1);
    expect(await dropped(box, covers)).toHaveLength(0);
  });

  it("wait when what came before has not arrived, and are never another person's", async () => {
    const [one] = await make(box, { kind: "landed" }, seen);
    const uid = one?.act.uid ?? "";
    const left = await answered(box, [{ uid, answer: "history_missing", said: "" }]);
    expect(left).toHaveLength(1);
    expect(left[0]?.refused).toBe("");
    expect(await heldIn(boxOf("dov", "larkfall", "IC-2", 1))).toHaveLength(0);
    // a refused one is not built upon: its content never counts
    await answered(box, [{ uid, answer: "refused:not_proven", said: "Not kept." }]);
    const again = await make(box, { kind: "landed" }, seen);
    expect(again[1]?.act.based_on).toEqual(["h1", "h2"]);
  });

  it("of other people are counted for the same job only, and never shown", async () => {
    await make(boxOf("pim", "larkfall", "IC-2", 1), { kind: "lock_off" }, seen);
    await make(boxOf("pim", "larkfall", "IC-2", 2), { kind: "lock_off" }, seen);
    await make(box, { kind: "lock_on" }, seen);
    expect(await othersIn(box)).toEqual(["lock_off"]);
    expect(await heldIn(box)).toHaveLength(1);
  });

  it("carry a picture until it has arrived, and its digest from then on", async () => {
    const [photo] = await make(box, { kind: "photo", picture: "AAAA" }, seen);
    expect(photo?.picture).toBe("AAAA");
    await pictured(box, photo?.act.uid ?? "", "f00d");
    const [after] = await heldIn(box);
    expect(after?.picture).toBeUndefined();
    expect(after?.act.body).toEqual({ sha256: "f00d" });
  });
});
