// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { benchWords } from "../../words/bench";
import { KnownTags } from "./KnownTags";
import type { BenchState } from "./useBench";

afterEach(cleanup);

function shown(bench: object) {
  const set = vi.fn();
  render(
    <KnownTags
      bench={{ bench, set } as unknown as BenchState}
      leadLetters={["a", "b", "c", "d", "e", "f"]}
    />,
  );
  return set;
}

const type = (label: string, value: string) => {
  const field = screen.getByLabelText(label);
  fireEvent.change(field, { target: { value } });
  fireEvent.blur(field);
};

it("keeps a tag with its letter, and forgets it when it is emptied", () => {
  const set = shown({ known: { a: "T1" } });
  type("b", "T4");
  expect(set).toHaveBeenLastCalledWith({ known: { a: "T1", b: "T4" } });
  type("a", "");
  expect(set).toHaveBeenLastCalledWith({ known: {} });
});

it("takes corners and halves as typed, and leaves out what is no pair of pairs", () => {
  const set = shown({});
  type(benchWords.cornersKnown, "A, d");
  expect(set).toHaveBeenLastCalledWith({ corners: ["a", "d"] });
  type(benchWords.halvesKnown, "a-b c-d / e-f");
  expect(set).toHaveBeenLastCalledWith({
    same_phase: [
      [
        ["a", "b"],
        ["c", "d"],
      ],
    ],
  });
});
