import { describe, expect, it } from "vitest";
import { runsOf, type Token } from "./tokens";

const token = (start: number, end: number, status: Token["status"] = "understood"): Token => ({
  start,
  end,
  status,
  field: "power_hp",
  label: "Power",
  note: "",
});

describe("runsOf", () => {
  it("covers the text without a gap, lit where a token stands", () => {
    const runs = runsOf("15 HP, x", "15 HP, x", [token(0, 5), token(7, 8, "unread")]);

    expect(runs.map((run) => run.text)).toEqual(["15 HP", ", ", "x"]);
    expect(runs.map((run) => run.token?.status)).toEqual(["understood", undefined, "unread"]);
  });

  it("drops light that no longer stands at its place while a hand types", () => {
    const runs = runsOf("115 HP", "15 HP", [token(0, 5)]);

    expect(runs).toEqual([{ text: "115 HP", token: null }]);
  });

  it("counts as the core does: code points, not UTF-16 units", () => {
    const text = "😀 15 HP";

    expect(runsOf(text, text, [token(2, 7)]).map((run) => run.text)).toEqual(["😀 ", "15 HP"]);
  });
});
