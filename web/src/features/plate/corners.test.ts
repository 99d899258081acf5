import { describe, expect, it } from "vitest";
import { led, leftOf, textOf, WHOLE, type Word } from "./corners";

const word = (text: string, row: number, more: Partial<Word> = {}): Word => ({
  text,
  row,
  place: [0, 0, 1, 1],
  crop: "",
  isSure: true,
  isConfirmed: false,
  ...more,
});

describe("a plate on a photo", () => {
  it("is led by its corners, never out of the picture", () => {
    expect(led(WHOLE, 2, { x: 0.8, y: 1.4 })).toEqual([0.06, 0.06, 0.94, 0.06, 0.8, 1, 0.06, 0.94]);
  });
  it("becomes text row by row; what was emptied is left out", () => {
    const words = [word("RPM", 1), word("15", 0), word("HP", 0), word(" ", 1), word("1765", 1)];
    expect(textOf(words)).toBe("15 HP\nRPM 1765");
  });
  it("counts what is in doubt and not looked at", () => {
    const doubted = { isSure: false };
    expect(
      leftOf([
        word("A", 0),
        word("8", 0, doubted),
        word("B", 0, { ...doubted, isConfirmed: true }),
      ]),
    ).toBe(1);
  });
});
