// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { sizePartsWords } from "../../../words/sizeParts";
import { MeasuredStart, Site } from "./MotorSite";
import type { Size } from "./parts";

afterEach(cleanup);

const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

it("keeps a measured start only when both readings are there", () => {
  const onSizeChange = vi.fn();
  render(<MeasuredStart size={{} as Size} onSizeChange={onSizeChange} onRest={vi.fn()} />);
  type(sizePartsWords.startingCurrent, "140");
  expect(onSizeChange).toHaveBeenLastCalledWith({ measured_start: null });
  type(sizePartsWords.voltsWhileStarting, "460");
  expect(onSizeChange).toHaveBeenLastCalledWith({
    measured_start: { amps_a: "140", volts_v: "460" },
  });
});

it("drops the site with its last figure", () => {
  const onSizeChange = vi.fn();
  const size = { site: { altitude_ft: "6000", source: "" } } as Size;
  render(<Site size={size} onSizeChange={onSizeChange} onRest={vi.fn()} />);
  type(sizePartsWords.mayCarry, "90");
  expect(onSizeChange).toHaveBeenLastCalledWith({
    site: { altitude_ft: "6000", load_percent: "90", source: "" },
  });
  type(sizePartsWords.altitude, "");
  expect(onSizeChange).toHaveBeenLastCalledWith({ site: null });
});
