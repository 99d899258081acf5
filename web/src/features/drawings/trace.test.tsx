// @vitest-environment happy-dom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Circuit } from "../../diagram/useCircuit";
import type { Given } from "../../state/useJob";
import { Trace } from "./Trace";

const touch = (terminal: string) => ({ terminal, x: 10, y: 10 });
const circuit = {
  devices: [
    { id: "k", tag: "KM1" },
    { id: "s", tag: "S2" },
  ],
  board: {
    width: 100,
    height: 100,
    shapes: [],
    touches: [touch("k.A1"), touch("s.13"), touch("s.14")],
    twin: [],
  },
} as unknown as Circuit;

describe("tracing", () => {
  beforeEach(() => {
    window.matchMedia = vi.fn().mockReturnValue({
      matches: false,
      addEventListener: vi.fn(),
      removeEventListener: vi.fn(),
    });
  });
  afterEach(cleanup);

  it("makes a wire of two taps, and begins the next where it ended", () => {
    const onAdd = vi.fn();
    render(
      <QueryClientProvider client={new QueryClient()}>
        <Trace works="w" given={{} as Given} circuit={circuit} onAdd={onAdd} />
      </QueryClientProvider>,
    );
    const at = (name: string) => screen.getByRole("button", { name });
    fireEvent.click(at("KM1 A1"));
    expect(onAdd).not.toHaveBeenCalled();
    fireEvent.click(at("S2 14"));
    fireEvent.keyDown(at("S2 13"), { key: "Enter" });
    expect(onAdd.mock.calls.map(([edits]) => edits[0])).toEqual([
      { kind: "add_wire", start: "k.A1", end: "s.14", tag: "" },
      { kind: "add_wire", start: "s.14", end: "s.13", tag: "" },
    ]);
    // the same terminal again lets go of it
    fireEvent.click(at("S2 13"));
    fireEvent.click(at("KM1 A1"));
    expect(onAdd).toHaveBeenCalledTimes(2);
  });
});
