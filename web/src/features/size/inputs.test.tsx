// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Step, Worked } from "../../api/client";
import { words } from "../../words/common";
import { sizeWords } from "../../words/size";
import { sizePartsWords } from "../../words/sizeParts";
import { ConductorInputs } from "./ConductorInputs";
import { Decides } from "./Decides";
import type { Size } from "./parts/parts";
import { RatingRules } from "./parts/RatingRules";
import { Slip } from "./Slip";

afterEach(cleanup);

const step = (more: Partial<Step>): Step =>
  ({
    id: "overload_setting_a",
    label: "Overload setting, max",
    kind: "calculated",
    shown: "175",
    unit: "A",
    marks: [],
    tips: [],
    verdict: "",
    rule: null,
    rating_rules: "",
    ...more,
  }) as unknown as Step;

const worked = (more: object): Worked =>
  ({ steps: [], supply: null, rating_rules: [], edition: 2023, ...more }) as unknown as Worked;

it.each(["assumed", "doubted", "check_the_book"] as const)(
  "stamps a figure that stands on something %s",
  (kind) => {
    render(
      <Slip step={step({ marks: [{ kind, origin: "x", text: "why" }] })} isOpen onWhy={vi.fn()} />,
    );
    expect(screen.getByText(words.marks[kind] ?? "")).toBeTruthy();
  },
);

it("names every reading of the rule in the trade's words, never by its id", () => {
  const row = (id: string) => ({ id, amps_a: "40", is_chosen: false, applies: true, reason: "r" });
  const ids = ["main_rule", "next_size_up", "raised", "ordinary"];
  render(<RatingRules worked={worked({ rating_rules: ids.map(row) })} />);

  for (const id of ids) expect(screen.queryByText(id)).toBeNull();
  expect(screen.getByText(sizePartsWords.mainRule)).toBeTruthy();
  expect(screen.getByText(sizePartsWords.nextSizeUp)).toBeTruthy();
});

it("shows what is assumed for a conductor, and enters it with one tap", () => {
  const onSizeChange = vi.fn();
  render(
    <ConductorInputs
      size={{} as Size}
      guessOf={(id) => (id === "ambient_c" ? "30 °C" : null)}
      onSizeChange={onSizeChange}
      onRest={vi.fn()}
    />,
  );
  fireEvent.click(screen.getByRole("button", { name: /30 °C/ }));
  expect(onSizeChange).toHaveBeenCalledWith({ ambient_c: "30" });
  fireEvent.click(screen.getByRole("button", { name: sizeWords.aluminum }));
  expect(onSizeChange).toHaveBeenLastCalledWith({ conductor_material: "al" });
});

const decides = (more: object) => {
  const onSizeChange = vi.fn();
  render(
    <Decides
      plateText=""
      onPlateTextChange={vi.fn()}
      size={{} as Size}
      isOther={false}
      worked={worked(more)}
      onSizeChange={onSizeChange}
      onRest={vi.fn()}
    />,
  );
  return onSizeChange;
};

it("asks for the source only of direct current", () => {
  decides({ supply: { system: "wye" } });
  expect(screen.queryByText(sizeWords.sourceDirectCurrent)).toBeNull();
  cleanup();

  const onSizeChange = decides({ supply: { system: "direct current" } });
  fireEvent.click(screen.getByRole("button", { name: sizeWords.halfWaveSingle }));
  expect(onSizeChange).toHaveBeenCalledWith({ dc_source: "half_wave_single_phase" });
});

it("asks how the motor leads run only where a starter switches them", () => {
  decides({});
  expect(screen.queryByText(sizeWords.motorLeadConductors)).toBeNull();
  cleanup();

  const onSizeChange = decides({ steps: [step({ id: "leg_ampacity_a" })] });
  const group = screen.getByRole("group", { name: sizeWords.motorLeadConductors });
  fireEvent.click(within(group).getByRole("button", { name: sizeWords.threeEachTwo }));
  expect(onSizeChange).toHaveBeenCalledWith({ motor_leads_apart: true });
});
