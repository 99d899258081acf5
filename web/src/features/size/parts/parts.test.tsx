// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Worked } from "../../../api/client";
import { sizePartsWords } from "../../../words/sizeParts";
import { DisconnectPart } from "./DisconnectPart";
import { ExistingPart } from "./ExistingPart";
import { FaultPart } from "./FaultPart";
import { failsOf, figuresOf, PARTS, type PartProps, type Size, withheldOf } from "./parts";
import { RacewayPart } from "./RacewayPart";

afterEach(cleanup);

const WORKED = {
  figures: [
    { id: "existing_conductor", group: "existing", step: "a", refusal: null },
    { id: "existing_device", group: "existing", step: "b", refusal: null },
    { id: "weakest_part", group: "existing", step: "b", refusal: null },
    { id: "existing_plug", group: "existing", step: null, refusal: { detail: "Not entered." } },
    { id: "conductor_size", group: "branch", step: "c", refusal: null },
  ],
  steps: [
    { id: "a", verdict: "holds" },
    { id: "b", verdict: "fails" },
    { id: "c", verdict: "fails" },
  ],
} as unknown as Worked;

describe("parts of the size sheet", () => {
  it("counts what fails and what is withheld from the list it shows", () => {
    expect(figuresOf(WORKED, "existing").map((one) => one.id)).toEqual([
      "existing_conductor",
      "existing_device",
      "weakest_part",
      "existing_plug",
    ]);
    // the weakest part repeats another verdict: it is not counted twice
    expect(failsOf(WORKED, "existing")).toBe(1);
    expect(withheldOf(WORKED, "existing")).toBe(1);
    expect(failsOf(WORKED, "run")).toBe(0);
  });

  it("names every part once", () => {
    const names = PARTS.map((part) => part.name);
    expect(new Set(names).size).toBe(names.length);
  });
});

describe.each([
  ["fault", FaultPart, sizePartsWords.compareRatings],
  ["raceway", RacewayPart, sizePartsWords.calculateRaceway],
  ["place", DisconnectPart, sizePartsWords.enterLocations],
  ["existing", ExistingPart, sizePartsWords.enterExistingInstallation],
] as const)("%s", (key, Part, button) => {
  const shown = (size: Size) => {
    const onSizeChange = vi.fn();
    const props: PartProps = { size, worked: WORKED, onSizeChange, onRest: vi.fn() };
    render(<Part {...props} />);
    return onSizeChange;
  };

  it("is nothing until it is asked for", () => {
    const change = shown({} as Size);
    fireEvent.click(screen.getByRole("button", { name: button }));
    expect(change).toHaveBeenCalledTimes(1);
    expect(change.mock.calls[0]?.[0]?.[key]).toBeTruthy();
  });
});

describe("fault current", () => {
  it("passes on a rating as typed, and not one that is not a number", () => {
    const change = vi.fn();
    const fault = { device_ka: "10", starter_ka: null, device_volts: "" };
    render(
      <FaultPart size={{ fault } as Size} worked={WORKED} onSizeChange={change} onRest={vi.fn()} />,
    );
    const field = screen.getByLabelText(sizePartsWords.fuseBreakerInterrupting);
    fireEvent.change(field, { target: { value: "22,5" } });
    expect(change.mock.calls[0]?.[0]?.fault.device_ka).toBe("22.5");
    fireEvent.change(field, { target: { value: "2x" } });
    expect(change).toHaveBeenCalledTimes(1);
    expect(screen.getByRole("status").textContent).toContain("“2x” is not a number");
    fireEvent.click(screen.getByRole("button", { name: sizePartsWords.removeFaultCurrent }));
    expect(change.mock.calls.at(-1)?.[0]?.fault).toBeNull();
  });
});
