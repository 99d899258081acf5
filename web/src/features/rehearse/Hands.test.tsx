// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Hands, type HandsProps } from "./Hands";
import { handsOf } from "./hands";

const DEVICES = [
  { id: "breaker", tag: "QF1", type: "cb3", verbs: ["close", "open"], positions: [] },
  { id: "selector", tag: "S3", type: "sel", verbs: ["turn"], positions: ["HAND", "OFF", "AUTO"] },
  { id: "estop_1", tag: "S0", type: "estop", verbs: ["press", "twist"], positions: [] },
].map((device) => ({ legend: "", color: "", links: [], terminals: [], ...device }));
const HANDS = handsOf(DEVICES as unknown as Parameters<typeof handsOf>[0]);
const STANDING = { breaker: "off", selector: "OFF", estop_1: "out" };

function shown(words: HandsProps["words"]) {
  const act = vi.fn();
  const rehearsal = { act } as unknown as HandsProps["rehearsal"];
  const view = render(<Hands hands={HANDS} words={words} rehearsal={rehearsal} />);
  const again = (next: HandsProps["words"]) =>
    view.rerender(<Hands hands={HANDS} words={next} rehearsal={rehearsal} />);
  return { act, again };
}

function hand(id: string): HTMLButtonElement {
  const found = document.querySelector<HTMLButtonElement>(`[data-hand=${id}]`);
  if (!found) throw new Error(`no hand ${id}`);
  return found;
}

describe("Hands", () => {
  afterEach(cleanup);

  it("keeps moves by pointer and key until it is known how all stands, and loses none", () => {
    const { act, again } = shown(null);
    fireEvent.keyDown(window, { key: "b" });
    fireEvent.click(hand("selector"));
    fireEvent.click(hand("selector"));
    expect(act).not.toHaveBeenCalled();

    again(STANDING);
    expect(act.mock.calls).toEqual([
      ["close", "breaker", undefined],
      ["turn", "selector", "AUTO"],
      ["turn", "selector", "HAND"],
    ]);
  });

  it("goes two positions on two clicks, though no answer has come", () => {
    const { act } = shown(STANDING);
    fireEvent.click(hand("selector"));
    fireEvent.click(hand("selector"));
    expect(act.mock.calls.map((call) => call[2])).toEqual(["AUTO", "HAND"]);
  });

  it("believes the answer, not the hand, once there is one", () => {
    const { act, again } = shown(STANDING);
    fireEvent.click(hand("breaker"));
    again({ ...STANDING, breaker: "tripped" });
    fireEvent.click(hand("breaker"));
    again(STANDING);
    fireEvent.click(hand("breaker"));
    expect(act.mock.calls.map((call) => call[0])).toEqual(["close", "reset", "close"]);
  });

  it("lets a stop be pushed in and twisted out", () => {
    const { act, again } = shown(STANDING);
    fireEvent.click(hand("estop_1"));
    again({ ...STANDING, estop_1: "in" });
    fireEvent.click(hand("estop_1"));
    expect(act.mock.calls.map((call) => call[0])).toEqual(["press", "twist"]);
    expect(screen.getAllByRole("button").length).toBe(3);
  });
});
