// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Library, Usual } from "./library";
import { choicesOf, Palette } from "./Palette";

const picture = { width: 10, height: 10, shapes: [], touches: [], twin: [] };
const library = [
  { type: "pb", label: "push-button", letters: "S", settings: [], picture },
  { type: "contactor", label: "contactor", letters: "KM", settings: [], picture },
] as unknown as Library[];
const usual = [
  { key: "stop", label: "STOP button", type: "pb", letters: "S", parameters: { c: "11-12" } },
] as unknown as Usual[];

describe("the palette", () => {
  afterEach(cleanup);

  it("finds a device by parts of its trade name, the usual ones first", () => {
    expect(choicesOf(library, usual, "").map((one) => one.key)).toEqual([
      "usual:stop",
      "contactor",
      "pb",
    ]);
    expect(choicesOf(library, usual, "butt st").map((one) => one.key)).toEqual(["usual:stop"]);
    expect(choicesOf(library, usual, "km").map((one) => one.key)).toEqual(["contactor"]);
  });

  it("takes the first at Enter, and says when there is none", () => {
    const onChoose = vi.fn();
    render(<Palette library={library} usual={usual} chosen="" onChoose={onChoose} />);
    const field = screen.getByLabelText("Search devices by their trade name");
    fireEvent.change(field, { target: { value: "stop" } });
    fireEvent.keyDown(field, { key: "Enter" });
    expect(onChoose.mock.calls[0]?.[0].parameters).toEqual({ c: "11-12" });
    fireEvent.change(field, { target: { value: "turbine" } });
    expect(screen.getByRole("status").textContent).toContain("turbine");
  });
});
