// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Options } from "./Options";

afterEach(cleanup);

const LAMPS = {
  name: "lamps",
  label: "Pilot lights",
  choices: ["none", "run", "run_trip"],
  words: ["none", "run", "run and trip"],
  used: "none",
  default: "none",
  unit: "",
  least: "",
  most: "",
};
const DELAY = {
  name: "delay_s",
  label: "Time in star",
  choices: [],
  words: [],
  used: "8",
  default: "8",
  unit: "s",
  least: "1",
  most: "60",
};

function shown(starter: object = {}, options: object[] = [LAMPS, DELAY]) {
  const onChange = vi.fn();
  render(
    <Options
      options={options as never}
      starter={starter as never}
      letters="iec"
      onChange={onChange}
    />,
  );
  return onChange;
}

describe("how a starter is built", () => {
  it("keeps only what differs from the standard circuit", () => {
    const onChange = shown();
    fireEvent.click(screen.getByRole("button", { name: "run and trip" }));
    expect(onChange).toHaveBeenCalledWith({ options: { lamps: "run_trip" } });
    cleanup();

    const back = shown({ options: { lamps: "run_trip", estop: "x" } }, [
      { ...LAMPS, used: "run_trip" },
    ]);
    fireEvent.click(screen.getByRole("button", { name: "none" }));
    expect(back).toHaveBeenCalledWith({ options: { estop: "x" } });
  });

  it("takes a number when the field is left or Enter is pressed, with a decimal point", () => {
    const onChange = shown();
    const field = screen.getByLabelText("Time in star");
    fireEvent.change(field, { target: { value: "6,5" } });
    expect(onChange).not.toHaveBeenCalled();
    fireEvent.keyDown(field, { key: "Enter" });
    expect(onChange).toHaveBeenCalledWith({ options: { delay_s: "6.5" } });
  });

  it("takes nothing where the number stayed as it was", () => {
    const onChange = shown();
    fireEvent.blur(screen.getByLabelText("Time in star"));
    expect(onChange).not.toHaveBeenCalled();
  });

  it("changes names and symbols without touching the options", () => {
    const starter = { standard_circuit: "3A", options: { lamps: "run" } };
    const onChange = shown(starter);
    fireEvent.click(screen.getByRole("button", { name: "M, OL, START" }));
    expect(onChange).toHaveBeenLastCalledWith({ ...starter, naming: "nema" });
    const symbols = screen.getAllByRole("group").at(-1) as HTMLElement;
    fireEvent.click(within(symbols).getByRole("button", { name: "IEC" }));
    expect(onChange).toHaveBeenLastCalledWith({ ...starter, symbols: "iec" });
  });
});
