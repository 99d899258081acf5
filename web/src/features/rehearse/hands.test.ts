import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { handsOf } from "./hands";

const device = (id: string, type: string, tag: string): Schemas["DeviceOut"] => ({
  id,
  tag,
  type,
  legend: "",
  color: "",
  terminals: [],
  verbs: [],
  positions: [],
  links: [],
  contacts: [],
  coils: [],
});

describe("what hands can reach", () => {
  it("offers controls and no coils, switches first", () => {
    const found = handsOf([
      device("main", "contactor", "KM1"),
      device("start", "pb", "S2"),
      device("overload", "olr", "F2"),
      device("breaker", "cb3", "Q1"),
    ]);

    expect(found.map((hand) => hand.device.id)).toEqual(["breaker", "start", "overload"]);
    expect(found.map((hand) => hand.label)).toEqual(["Q1", "START S2", "F2 reset"]);
  });

  it("gives every control its own key, none of those that the frame of the screen has", () => {
    const many = Array.from({ length: 15 }, (_, place) =>
      device(`start_${place}`, "pb", `S${place}`),
    );
    const keys = handsOf(many).map((hand) => hand.key);

    expect(new Set(keys).size).toBe(15);
    expect(keys.filter((key) => "hpgkxwz".includes(key))).toEqual([]);
  });
});
