// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { WireFaultChoice, WireFaultsHeld } from "./WireFaults";

afterEach(cleanup);

const WIRES = [
  {
    id: "a",
    number: "2",
    start: "S1.12",
    end: "S2.13",
    start_terminal: "stop.12",
    end_terminal: "start.13",
  },
  {
    id: "b",
    number: "3",
    start: "S2.14",
    end: "KM1.A1",
    start_terminal: "start.14",
    end_terminal: "main.A1",
  },
];

describe("a wire wrong in the rehearsal only", () => {
  it("is missing, by its two ends", () => {
    const onFault = vi.fn();
    render(<WireFaultChoice wires={WIRES as never} onFault={onFault} />);
    fireEvent.change(screen.getByLabelText("A wire"), { target: { value: "b" } });
    fireEvent.click(screen.getByText("is missing"));
    expect(onFault).toHaveBeenCalledWith({
      said: "The wire S2.14 – KM1.A1 is missing.",
      edit: { kind: "remove_wire", wire: "b" },
    });
  });

  it("is landed on another terminal with one of its ends", () => {
    const onFault = vi.fn();
    render(<WireFaultChoice wires={WIRES as never} onFault={onFault} />);
    fireEvent.change(screen.getByLabelText("Which end"), { target: { value: "end" } });
    fireEvent.change(screen.getByLabelText("lands on"), { target: { value: "start.14" } });
    fireEvent.click(screen.getByText("Land it there"));
    expect(onFault).toHaveBeenCalledWith({
      said: "The wire S1.12 – S2.13 is landed on S2.14 instead of S2.13.",
      edit: { kind: "move_end", wire: "a", start: "start.13", end: "start.14" },
    });
  });

  it("is told as long as it is wrong, with the way back", () => {
    const onMend = vi.fn();
    const fault = { said: "The wire a is missing.", edit: {} };
    render(<WireFaultsHeld faults={[fault]} onMend={onMend} />);
    expect(screen.getByText("The wire a is missing.")).toBeTruthy();
    fireEvent.click(screen.getByText("Wire it as drawn"));
    expect(onMend).toHaveBeenCalled();
  });
});
