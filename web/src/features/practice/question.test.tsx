// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { Question } from "./Question";
import type { Drill, Verdict } from "./usePractice";

afterEach(cleanup);

const BRANCH: Drill = {
  kind: "branch",
  seed: 1,
  setting: "field",
  asked: "Size it.",
  facts: [{ label: "Power", value: "40 hp" }],
  unit: "",
  choices: [],
  parts: [
    { asked: "Table current", unit: "A" },
    { asked: "Conductor", unit: "" },
  ],
};
const FIGURE: Drill = { ...BRANCH, kind: "ampacity", unit: "A", parts: [] };
const VERDICT: Verdict = {
  is_right: false,
  is_section_right: null,
  right: "52; 6 AWG",
  unit: "",
  said: "You took the nameplate amps.",
  path: ["NEC 2023, 430.22"],
  working: ["52 A"],
  surplus: [],
  slips: [],
  parts: [
    {
      asked: "Table current",
      given: "49",
      is_right: false,
      right: "52",
      unit: "A",
      said: "Plate.",
    },
    { asked: "Conductor", given: "", is_right: false, right: "6 AWG", unit: "", said: "" },
  ],
  steps: [],
  box: 0,
  due: "2026-12-02",
};

function shown(drill: Drill, verdict: Verdict | null = null, isBook = false) {
  const onAnswer = vi.fn();
  render(
    <Question
      drill={drill}
      verdict={verdict}
      isBook={isBook}
      place=""
      onAnswer={onAnswer}
      onNext={() => undefined}
    />,
  );
  return onAnswer;
}

it("sends several answers in one text, in their order", () => {
  const onAnswer = shown(BRANCH);
  fireEvent.change(screen.getByLabelText("Conductor"), { target: { value: "6" } });
  fireEvent.change(screen.getByLabelText("Table current"), { target: { value: " 52" } });
  fireEvent.click(screen.getByRole("button", { name: "Answer" }));
  expect(onAnswer).toHaveBeenCalledWith("52; 6", "");
});

it("names what went wrong by its part, and says nothing of what was not answered", () => {
  shown(BRANCH, VERDICT);
  const rows = screen.getByTestId("parts").querySelectorAll("tbody tr");
  expect(rows[0]?.textContent).toContain("Plate.");
  expect(rows[1]?.textContent).toBe("Conductor–6 AWG ");
});

it("asks for the section first where the code book is closed", () => {
  const onAnswer = shown(FIGURE, null, true);
  fireEvent.change(screen.getByLabelText("Your answer"), { target: { value: "65" } });
  expect(screen.getByRole("button", { name: "Answer" })).toHaveProperty("disabled", true);
  fireEvent.change(screen.getByLabelText("Table or section"), { target: { value: "430.22" } });
  fireEvent.click(screen.getByRole("button", { name: "Answer" }));
  expect(onAnswer).toHaveBeenCalledWith("65", "430.22");
});
