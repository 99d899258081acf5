// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Worked } from "../../../api/client";
import { sizePartsWords } from "../../../words/sizeParts";
import { ControlPart } from "./ControlPart";
import { DisconnectPart } from "./DisconnectPart";
import type { Size } from "./parts";

afterEach(cleanup);

const WORKED = { figures: [], steps: [] } as unknown as Worked;

function shown(Part: typeof ControlPart, size: object) {
  const onSizeChange = vi.fn();
  render(<Part size={size as Size} worked={WORKED} onSizeChange={onSizeChange} onRest={vi.fn()} />);
  return onSizeChange;
}

describe("control power", () => {
  it("is opened without volts: those are read on the transformer", () => {
    const onSizeChange = shown(ControlPart, {});
    fireEvent.click(screen.getByRole("button", { name: sizePartsWords.enterCoilsLamps }));
    const { control } = onSizeChange.mock.calls[0]?.[0] ?? {};
    expect(control.volts_v).toBeUndefined();
    expect(control.coils).toEqual([{ label: "M", count: 1, inrush_va: "0", sealed_va: "0" }]);
  });

  const COILS = [
    { label: "1M", count: 2, inrush_va: "250", sealed_va: "30" },
    { label: "2M", count: 1, inrush_va: "570", sealed_va: "55" },
  ];

  it("changes one coil and leaves the other", () => {
    const onSizeChange = shown(ControlPart, { control: { coils: COILS } });
    fireEvent.change(screen.getAllByLabelText(sizePartsWords.sealedEach)[1] as HTMLElement, {
      target: { value: "60" },
    });
    expect(onSizeChange.mock.calls[0]?.[0].control.coils).toEqual([
      COILS[0],
      { ...COILS[1], sealed_va: "60" },
    ]);
  });

  it("removes the coil whose button was pressed", () => {
    const onSizeChange = shown(ControlPart, { control: { coils: COILS } });
    const first = screen.getAllByRole("button", { name: sizePartsWords.removeCoil })[0];
    fireEvent.click(first as HTMLElement);
    expect(onSizeChange.mock.calls[0]?.[0].control.coils).toEqual([COILS[1]]);
  });

  it("goes as a whole when control power is removed", () => {
    const onSizeChange = shown(ControlPart, { control: { coils: COILS }, run_length_ft: "80" });
    fireEvent.click(screen.getByRole("button", { name: sizePartsWords.removeControlPower }));
    expect(onSizeChange).toHaveBeenCalledWith({ control: null, run_length_ft: "80" });
  });
});

describe("disconnects", () => {
  it("are opened without an answer to whether they are in sight", () => {
    const onSizeChange = shown(DisconnectPart as typeof ControlPart, {});
    fireEvent.click(screen.getByRole("button", { name: sizePartsWords.enterLocations }));
    const { place } = onSizeChange.mock.calls[0]?.[0] ?? {};
    expect(place.controller_visible).toBeUndefined();
    expect(place.motor_visible).toBeUndefined();
  });

  it("keep both answers apart", () => {
    const onSizeChange = shown(DisconnectPart as typeof ControlPart, {
      place: { controller_ft: "6", motor_ft: "85", controller_visible: true },
    });
    const questions = screen.getAllByRole("group", { name: sizePartsWords.sight });
    expect(questions).toHaveLength(2);
    const motor = within(questions[1] as HTMLElement);
    fireEvent.click(motor.getByRole("button", { name: sizePartsWords.no }));
    expect(onSizeChange.mock.calls[0]?.[0].place).toMatchObject({
      controller_visible: true,
      motor_visible: false,
    });
  });
});
