// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { convertWords } from "../../words/convert";
import { Unnamed } from "./Unnamed";

afterEach(cleanup);

function shown(unnamed: object[], answers: object[] = []) {
  const onUnnamedChange = vi.fn();
  render(
    <Unnamed
      unnamed={unnamed as never}
      answers={answers as never}
      onUnnamedChange={onUnnamedChange}
    />,
  );
  return onUnnamedChange;
}

it("adds a starter, takes its readings and removes it", () => {
  const onUnnamedChange = shown([{ label: "Starter 1" }]);
  fireEvent.click(screen.getByRole("button", { name: convertWords.addStarter }));
  expect(onUnnamedChange).toHaveBeenLastCalledWith([
    { label: "Starter 1" },
    { label: convertWords.starterN(2) },
  ]);
  fireEvent.change(screen.getByLabelText(convertWords.runningAmps), { target: { value: "17" } });
  expect(onUnnamedChange).toHaveBeenLastCalledWith([{ label: "Starter 1", running_a: "17" }]);
  fireEvent.click(screen.getByRole("button", { name: convertWords.remove }));
  expect(onUnnamedChange).toHaveBeenLastCalledWith([]);
});

it("shows each answer beside its own row, two of one label apart", () => {
  shown(
    [{ label: "A" }, { label: "A" }],
    [
      { label: "A", tag: "SF-5", fits: ["SF-5"], text: "only its 52 A fits" },
      { label: "A", tag: "", fits: ["BM-3", "IC-2"], text: "fits two" },
    ],
  );
  const [first, second] = screen.getAllByTestId("unnamed");
  expect(first?.textContent).toContain("SF-5");
  expect(second?.textContent).toContain("fits two");
});
