// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, expect, it, vi } from "vitest";
import { groupsOf, Machine } from "./Machine";
import type { ListedMotor } from "./useMotors";

afterEach(cleanup);

const motor = (tag: string, machine: string, more: Partial<ListedMotor> = {}) =>
  ({
    tag,
    machine,
    name: "pump",
    job: 1,
    headline: "5 hp",
    supply: "480Y/277",
    arches: [{ step: "plate", state: "done" }],
    wants: "",
    next_step: "",
    is_old: false,
    needs_repair: false,
    ...more,
  }) as ListedMotor;

const LIST = [motor("A-1", "Line 1"), motor("A-2", "Line 1"), motor("B-1", "Line 2")];

it("puts every motor in one group, in the order of the list", () => {
  const groups = groupsOf(LIST);
  expect(groups.map((group) => group.machine)).toEqual(["Line 1", "Line 2"]);
  expect(groups.flatMap((group) => group.motors.map((one) => one.place))).toEqual([0, 1, 2]);
  expect(groupsOf([])).toEqual([]);
});

it("shows a machine with its actions, its motors, and what they wait for", () => {
  const onFocus = vi.fn();
  const [first] = groupsOf([motor("A/1", "Line #1", { wants: "Leads not joined yet." })]);
  render(
    <MemoryRouter>
      <Machine
        works="larkfall"
        group={first as NonNullable<typeof first>}
        to={(one) => `/to/${one.tag}`}
        onFocus={onFocus}
      />
    </MemoryRouter>,
  );
  const section = within(screen.getByRole("region", { name: "Line #1" }));
  expect(section.getByText("1 motor")).toBeTruthy();
  const convert = section.getByRole("link", { name: "Convert Line #1" });
  expect(convert.getAttribute("href")).toBe("/w/larkfall/convert/Line%20%231");
  const feeder = section.getByRole("link", { name: "Feeder Line #1" });
  expect(feeder.getAttribute("href")).toBe("/w/larkfall/feeder/Line%20%231");
  expect(section.getByText("Leads not joined yet.")).toBeTruthy();
  fireEvent.focus(section.getAllByRole("link", { name: /A\/1/ }).at(-1) as HTMLElement);
  expect(onFocus).toHaveBeenCalledWith(0);
});
