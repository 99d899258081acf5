// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useMemo } from "react";
import { MemoryRouter } from "react-router";
import { afterEach, expect, it, vi } from "vitest";
import type { Step, Worked } from "../../api/client";
import type { Given } from "../../state/useJob";
import { words } from "../../words/common";
import { sizeWords } from "../../words/size";
import { sizePartsWords } from "../../words/sizeParts";
import { BranchRows } from "./ledger/BranchRows";
import { Fold } from "./ledger/Fold";
import { Row } from "./ledger/Row";
import { useMoved } from "./ledger/useMoved";
import { RatingRules } from "./parts/RatingRules";
import { Slip } from "./Slip";

afterEach(cleanup);

const step = (more: Partial<Step>): Step =>
  ({
    id: "overload_setting_a",
    label: "Overload setting, max",
    kind: "calculated",
    shown: "175",
    said: "175 A",
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

const GIVEN = { plate: { text: "15 HP" }, supply: { text: "480Y/277" }, size: {} };

function rows(more: object, size: object = {}) {
  const onSizeChange = vi.fn();
  const onPlateTextChange = vi.fn();
  const said = { figures: [], ...more };
  render(
    <MemoryRouter>
      <BranchRows
        given={{ ...GIVEN, size } as unknown as Given}
        worked={worked(said)}
        base=""
        shown={undefined}
        moved={new Map()}
        isOther={false}
        onWhy={vi.fn()}
        onSizeChange={onSizeChange}
        onPlateTextChange={onPlateTextChange}
        onRest={vi.fn()}
      />
    </MemoryRouter>,
  );
  return { onSizeChange, onPlateTextChange };
}

const pick = (label: string, option: string) => {
  const field = screen.getByLabelText(label) as HTMLSelectElement;
  const found = [...field.options].find((one) => one.textContent === option);
  fireEvent.change(field, { target: { value: found?.value } });
};

it("shows what is assumed for a conductor, and takes what is entered instead", () => {
  const assumed = { id: "ambient_c", kind: "assumed", said: "30 °C" };
  const material = { id: "conductor_material", kind: "assumed", said: "copper" };
  const { onSizeChange } = rows({ steps: [step(assumed as never), step(material as never)] });
  const ambient = screen.getByLabelText(sizeWords.ambient) as HTMLInputElement;
  expect([ambient.value, ambient.placeholder]).toEqual(["", "30"]);
  fireEvent.change(ambient, { target: { value: "41,5" } });
  expect(onSizeChange).toHaveBeenLastCalledWith({ ambient_c: "41.5" });
  fireEvent.change(ambient, { target: { value: "hot" } });
  expect(onSizeChange).toHaveBeenCalledTimes(1);
  expect(screen.getByText(/“hot” is not a number/)).toBeTruthy();
  const metal = screen.getByLabelText(sizeWords.conductorMaterial) as HTMLSelectElement;
  expect(metal.selectedOptions[0]?.textContent).toBe(sizeWords.assumedShort("copper"));
  pick(sizeWords.conductorMaterial, sizeWords.aluminum);
  expect(onSizeChange).toHaveBeenLastCalledWith({ conductor_material: "al" });
  pick(sizeWords.conductorMaterial, sizeWords.assumedShort("copper"));
  expect(onSizeChange).toHaveBeenLastCalledWith({ conductor_material: null });
});

it("asks for the source only of direct current", () => {
  rows({ supply: { system: "wye" } });
  expect(screen.queryByLabelText(sizeWords.sourceDirectCurrent)).toBeNull();
  cleanup();

  const { onSizeChange } = rows({ supply: { system: "direct current" } });
  pick(sizeWords.sourceDirectCurrent, sizeWords.halfWaveSingle);
  expect(onSizeChange).toHaveBeenCalledWith({ dc_source: "half_wave_single_phase" });
});

it("asks how the motor leads run only where a starter switches them", () => {
  rows({});
  expect(screen.queryByLabelText(sizeWords.motorLeadConductors)).toBeNull();
  cleanup();

  const leg = { id: "leg_conductor_size", group: "branch", step: "leg_conductor_size" };
  const { onSizeChange } = rows({ figures: [leg], steps: [step({ id: "leg_conductor_size" })] });
  pick(sizeWords.motorLeadConductors, sizeWords.threeEachTwo);
  expect(onSizeChange).toHaveBeenCalledWith({ motor_leads_apart: true });
});

it("keeps every input in sight while no figure is calculated yet", () => {
  const { onPlateTextChange, onSizeChange } = rows({});
  fireEvent.change(screen.getByLabelText(sizeWords.nameplateStamped), {
    target: { value: "20 HP" },
  });
  expect(onPlateTextChange).toHaveBeenCalledWith("20 HP");
  pick(sizeWords.kindFuseBreaker, sizeWords.inverseTimeBreaker);
  expect(onSizeChange).toHaveBeenLastCalledWith({ protection_kind: "inverse_time_breaker" });
  pick(sizeWords.edition, "NEC 2017");
  expect(onSizeChange).toHaveBeenLastCalledWith({ edition: 2017 });
  fireEvent.change(screen.getByLabelText(sizeWords.oneWay), { target: { value: "300" } });
  expect(onSizeChange).toHaveBeenLastCalledWith({ run_length_ft: "300", run_length_m: null });
});

it("wears the reason in the row of a figure that is withheld", () => {
  const waits = {
    code: "missing",
    detail: "The full-load current comes first.",
    hint: "hp",
    field: "power_hp",
  };
  const stops = {
    code: "refused",
    detail: "The motor would burn out.",
    hint: "240 V",
    field: "supply.text",
  };
  rows({
    figures: [
      { id: "conductor_size", label: "Conductor", group: "branch", step: null, refusal: waits },
      {
        id: "table_flc_a",
        label: "Full-load current",
        group: "branch",
        step: null,
        refusal: stops,
      },
    ],
  });
  expect(screen.getByTestId("withheld-conductor_size").textContent).toContain(waits.detail);
  expect(screen.getByRole("alert").textContent).toContain(stops.detail);
  expect(screen.getAllByRole("link", { name: sizeWords.nameplate })).toHaveLength(2);
});

function Ledger({ amps, name }: { amps: string; name: string }) {
  const now = useMemo(
    () =>
      worked({
        steps: [step({ said: amps } as never), step({ id: "name", said: name } as never)],
      }),
    [amps, name],
  );
  const moved = useMoved(now);
  return (
    <ul>
      {now.steps.map((one) => (
        <Row
          key={one.id}
          step={one}
          isOpen={false}
          before={moved.get(one.id) ?? null}
          onWhy={vi.fn()}
        />
      ))}
    </ul>
  );
}

it("strikes the old value beside the new one until the next change moves another", () => {
  const struck = () => screen.queryAllByTestId("ghost").map((one) => one.textContent);
  const view = render(<Ledger amps="40 A" name="a" />);
  expect(struck()).toEqual([]);
  view.rerender(<Ledger amps="50 A" name="a" />);
  expect(struck()).toEqual(["was 40 A"]);
  view.rerender(<Ledger amps="50 A" name="a" />);
  expect(struck()).toEqual(["was 40 A"]);
  view.rerender(<Ledger amps="50 A" name="b" />);
  expect(struck()).toEqual(["was a"]);
});

it("tells of a section in its fold what fails, what waits, or what it comes to", () => {
  const onOpenChange = vi.fn();
  const fold = (steps: object[], figures: object[], moved = 0) => {
    cleanup();
    render(
      <Fold
        part="fault"
        name="Fault current"
        worked={worked({ steps, figures })}
        moved={moved}
        isOpen={false}
        onOpenChange={onOpenChange}
      >
        rows
      </Fold>,
    );
    return screen.getByTestId("part-fault").textContent;
  };
  const figure = { id: "starter", group: "fault", step: "starter", refusal: null };
  const holds = { id: "starter", label: "Starter rating", said: "65 kA", verdict: "holds" };
  expect(fold([holds], [figure], 2)).toContain("Starter rating 65 kA2 moved");
  const fails = { ...holds, verdict: "fails", working: "5 kA is less than 10 kA." };
  expect(fold([fails], [figure])).toContain("Starter rating: 5 kA is less than 10 kA.1 fails");
  const waits = { ...figure, step: null, refusal: { detail: "The rating is missing." } };
  expect(fold([], [waits])).toContain("The rating is missing.");
  fireEvent.click(screen.getByTestId("part-fault"));
  expect(onOpenChange).toHaveBeenCalledWith(true);
  expect(screen.queryByText("rows")).toBeNull();
});
