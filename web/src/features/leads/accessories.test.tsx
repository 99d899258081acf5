// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { leadsWords } from "../../words/leads";
import { Accessories } from "./Accessories";

afterEach(cleanup);

const ITEM = { id: "x", marks: ["P1", "P2"], ohms: "2", is_open: false, kind: "unknown" } as const;

function shown(items: object[], told: object[] = []) {
  const onItemsChange = vi.fn();
  render(<Accessories items={items as never} told={told as never} onItemsChange={onItemsChange} />);
  return onItemsChange;
}

it("reads marks apart by spaces, in capitals, six at most", () => {
  const onItemsChange = shown([ITEM]);
  fireEvent.change(screen.getByLabelText(leadsWords.marksSpaces), {
    target: { value: "p1  p2 h1 h2 h3 h4 h5" },
  });
  expect(onItemsChange.mock.calls[0]?.[0][0].marks).toEqual(["P1", "P2", "H1", "H2", "H3", "H4"]);
});

it("has either ohms or OL, never both", () => {
  const onItemsChange = shown([ITEM]);
  fireEvent.click(screen.getByRole("button", { name: leadsWords.ol }));
  expect(onItemsChange).toHaveBeenLastCalledWith([{ ...ITEM, is_open: true, ohms: null }]);
  fireEvent.change(screen.getByLabelText(leadsWords.cold), { target: { value: "48" } });
  expect(onItemsChange).toHaveBeenLastCalledWith([{ ...ITEM, is_open: false, ohms: "48" }]);
});

it("says what the ohms tell, and what would settle it", () => {
  shown([ITEM], [{ id: "x", text: "A closed thermostat.", settles: "Warm it." }]);
  expect(screen.getByText("A closed thermostat.")).toBeTruthy();
  expect(screen.getByText("Warm it.")).toBeTruthy();
});

it("adds one that nobody has named yet", () => {
  const onItemsChange = shown([]);
  fireEvent.click(screen.getByRole("button", { name: leadsWords.addAuxiliaryLeads }));
  expect(onItemsChange.mock.calls[0]?.[0][0]).toMatchObject({ marks: [], kind: "unknown" });
});
