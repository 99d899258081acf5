// @vitest-environment happy-dom
import { fireEvent, render, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { Diagram, type Picture } from "./Diagram";

const picture: Picture = {
  width: 100,
  height: 60,
  touches: [],
  twin: ["Rung 1: 1 - S1 - 2"],
  shapes: [
    { k: "line", p: [0, 10, 40, 10], net: "1" },
    { k: "line", p: [60, 10, 99, 10], net: "2" },
  ] as Picture["shapes"],
};

describe("a drawing", () => {
  it("tells which wire was tapped, and lets it go at the second tap", () => {
    const onPick = vi.fn();
    const { container, rerender } = render(
      <Diagram picture={picture} label="Ladder" onPick={onPick} picked={null} />,
    );
    const wire = container.querySelector('[data-net="2"]');
    expect(wire).not.toBeNull();
    fireEvent.click(wire as Element);
    expect(onPick).toHaveBeenLastCalledWith("2");

    rerender(<Diagram picture={picture} label="Ladder" onPick={onPick} picked="2" />);
    fireEvent.click(container.querySelector('[data-net="2"]') as Element);
    expect(onPick).toHaveBeenLastCalledWith(null);
  });

  it("shows a live wire hot and a closed contact closed, and says so", () => {
    const withContact = {
      ...picture,
      shapes: [
        ...picture.shapes,
        { k: "line", p: [40, 10, 60, 10], device: "start", link: "start:3-4" },
      ] as Picture["shapes"],
    };
    const { container } = render(
      <Diagram
        picture={withContact}
        label="Ladder"
        onPick={vi.fn()}
        live={{
          nets: { "1": 120 },
          hot: new Set(["1"]),
          closed: new Set(["start:3-4"]),
          words: {},
        }}
      />,
    );

    expect(screen.getByRole("button", { name: "wire 1, live 120 V" })).toBeTruthy();
    expect(screen.getByRole("button", { name: "wire 2, dead" })).toBeTruthy();
    expect(container.querySelector('[data-link="start:3-4"]')?.getAttribute("data-closed")).toBe(
      "true",
    );
  });
});
