// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Circuit } from "../../diagram/useCircuit";
import { drawingsWords } from "../../words/drawings";
import { Find } from "./Find";
import { matchesOf } from "./matches";

afterEach(cleanup);

const wire = (net: string, number: string, start: string, end: string) => ({
  net,
  number,
  start,
  end,
});
const CIRCUIT = {
  wires: [
    wire("n1", "3", "S2.14", "KM1.A1"),
    wire("n1", "3", "KM1.A1", "KM1.14"),
    wire("n2", "33", "KM1.A2", "OL1.95"),
  ],
  devices: [
    { id: "main", tag: "KM1", legend: "" },
    { id: "start", tag: "S2", legend: "START" },
  ],
} as unknown as Circuit;

it("finds a wire by its whole number or an end, each number once", () => {
  expect(matchesOf(CIRCUIT, "3")).toEqual([
    { kind: "wire", net: "n1", label: "3", ends: "S2.14 – KM1.A1" },
  ]);
  expect(matchesOf(CIRCUIT, " km1.a2 ").map((one) => one.label)).toEqual(["33"]);
  expect(matchesOf(CIRCUIT, "")).toEqual([]);
});

it("finds devices by how their tag begins, and says what is not there", () => {
  const onPick = vi.fn();
  render(<Find circuit={CIRCUIT} onPick={onPick} />);
  const field = screen.getByLabelText(drawingsWords.find);
  fireEvent.change(field, { target: { value: "s" } });
  fireEvent.click(screen.getByRole("button", { name: /S2/ }));
  expect(onPick).toHaveBeenLastCalledWith(expect.objectContaining({ device: "start" }));
  fireEvent.change(field, { target: { value: "33" } });
  fireEvent.keyDown(field, { key: "Enter" });
  expect(onPick).toHaveBeenLastCalledWith(expect.objectContaining({ net: "n2" }));
  fireEvent.change(field, { target: { value: "X9" } });
  fireEvent.keyDown(field, { key: "Enter" });
  expect(onPick).toHaveBeenCalledTimes(2);
  expect(screen.getByRole("status").textContent).toBe(drawingsWords.notFound("X9"));
});
