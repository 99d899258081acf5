// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Step, Worked } from "../../api/client";
import { words } from "../../words/common";
import { sizeWords } from "../../words/size";
import { WhySheet } from "./WhySheet";

afterEach(cleanup);

const step = (id: string, more: object = {}): Step =>
  ({
    id,
    label: id,
    kind: "calculated",
    shown: "21",
    said: "21 A",
    unit: "A",
    working: "",
    rule: { standard: "NEC", edition: 2023, section: "430.22" },
    uses: [],
    cell: null,
    marks: [],
    tips: [],
    verdict: "",
    ...more,
  }) as unknown as Step;

const STEPS = [
  step("power_hp", { kind: "read", rule: null }),
  step("phases", { kind: "assumed", rule: null }),
  step("table_flc_a", { uses: ["power_hp", "phases"] }),
  step("required_ampacity_a", { uses: ["table_flc_a"] }),
];

function shown(of: Step, steps: Step[] = STEPS) {
  const onStepChange = vi.fn();
  render(
    <WhySheet worked={{ steps } as unknown as Worked} step={of} onStepChange={onStepChange} />,
  );
  return onStepChange;
}

describe("why this figure", () => {
  it("counts every input that it stands on in the end, and which are assumed", () => {
    shown(STEPS[3] as Step);
    const said = screen.getByTestId("why").textContent ?? "";
    expect(said).toContain(`${sizeWords.basedEntered(2)} ${sizeWords.figures}`);
    expect(said).toContain(sizeWords.assumed2(1));
  });

  it("counts an input once that two values stand on", () => {
    const both = step("disconnect", { uses: ["table_flc_a", "power_hp"] });
    shown(both, [...STEPS, both]);
    expect(screen.getByTestId("why").textContent).toContain(sizeWords.basedEntered(2));
  });

  it("goes on to a value that it stands on", () => {
    const onStepChange = shown(STEPS[3] as Step);
    fireEvent.click(screen.getByRole("button", { name: "table_flc_a" }));
    expect(onStepChange).toHaveBeenCalledWith("table_flc_a");
  });

  it("shows the cell that was read between its neighbors", () => {
    shown(
      step("table_flc_a", {
        cell: {
          table: "430_250",
          title: "Full-load current",
          source: "NEC Table 430.250",
          units: "A",
          columns: ["hp", "v460"],
          rows: [
            ["10", "14"],
            ["15", "21"],
            ["20", "27"],
          ],
          hit_row: 1,
          hit_column: 1,
        },
      }),
    );
    const rows = screen.getAllByRole("row");
    expect(rows).toHaveLength(4);
    const [hit] = screen.getAllByRole("cell").filter((cell) => cell.textContent?.includes("21"));
    expect(hit?.textContent).toContain(sizeWords.readHere);
  });

  it("shows every mark, two of one origin apart", () => {
    const complained = vi.spyOn(console, "error").mockImplementation(() => undefined);
    shown(
      step("overload_setting_a", {
        marks: [
          { kind: "doubted", origin: "plate_amps_a", text: "140 A cannot be." },
          { kind: "doubted", origin: "plate_amps_a", text: "The table gives 14 A." },
        ],
      }),
    );
    const marks = screen.getAllByText(words.marks.doubted ?? "");
    expect(marks).toHaveLength(2);
    expect(screen.getByText(/The table gives 14 A/)).toBeTruthy();
    expect(complained).not.toHaveBeenCalled();
    complained.mockRestore();
  });

  it.each([
    ["read", sizeWords.enteredNoRule],
    ["assumed", sizeWords.noRuleGuess],
  ])("says of what was %s that no rule stands behind it", (kind, says) => {
    const of = step("x", { kind, rule: null });
    shown(of, [of]);
    expect(within(screen.getByTestId("why")).getByText(new RegExp(says.slice(0, 20)))).toBeTruthy();
  });
});
