// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Worked } from "../../api/client";
import { plateWords } from "../../words/plate";
import { Gaps } from "./Gaps";
import { SupplyPlate } from "./SupplyPlate";
import { Trust } from "./Trust";

afterEach(cleanup);

const worked = (more: object): Worked =>
  ({
    supply: null,
    supply_refusal: null,
    verdict: [],
    supply_checks: [],
    checks: [],
    estimate: null,
    ...more,
  }) as unknown as Worked;

describe("a supply", () => {
  const shown = (more: object, text = "230") => {
    const onSupplyChange = vi.fn();
    render(
      <SupplyPlate
        supply={{ text } as never}
        worked={worked(more)}
        onSupplyChange={onSupplyChange}
        onRest={vi.fn()}
      />,
    );
    return onSupplyChange;
  };

  it("offers both numbers of phases where nobody said one, and adds it to the name", () => {
    const onSupplyChange = shown({
      checks: [{ field: "phases", level: "doubt", code: "assumed", text: "", hint: "" }],
    });
    fireEvent.click(screen.getByRole("button", { name: plateWords.singlePhase }));
    expect(onSupplyChange).toHaveBeenCalledWith({ text: "230 1PH" });
  });

  it("asks for no phases where amps have decided them", () => {
    shown({ checks: [{ field: "phases", level: "note", code: "by_amps_1", text: "", hint: "" }] });
    expect(screen.queryByRole("button", { name: plateWords.singlePhase })).toBeNull();
  });

  it("offers another code on the spot where the tables have no column", () => {
    const onSupplyChange = shown(
      { supply_checks: [{ code: "other_code", level: "doubt", text: "400 V", hint: "" }] },
      "400Y/230",
    );
    fireEvent.click(screen.getByRole("button", { name: plateWords.useAnotherCode }));
    expect(onSupplyChange).toHaveBeenCalledWith({ text: "400Y/230", territory: "other" });
  });

  it("says what was assumed of it", () => {
    shown({
      supply: {
        line_volts_v: "480",
        ground_volts_v: "277",
        phases: 3,
        frequency_hz: "60",
        is_frequency_assumed: true,
        system: "wye",
      },
    });
    expect(screen.getByText(/60 Hz \(assumed\), wye/)).toBeTruthy();
  });
});

describe("what the nameplate does not give", () => {
  const gap = { field: "code_letter", label: "Code letter", cost: "No code letter: …" };

  const shown = (assumed: object[] = [], missing: object[] = [gap]) => {
    const onAssumedChange = vi.fn();
    render(
      <Gaps
        missing={missing as never}
        assumed={assumed as never}
        labels={{ design_letter: "Design letter" }}
        onAssumedChange={onAssumedChange}
      />,
    );
    return onAssumedChange;
  };

  it("takes a letter only by its button, with where it was taken from", () => {
    const onAssumedChange = shown();
    fireEvent.click(screen.getByRole("button", { name: plateWords.unreadableAssume }));
    fireEvent.click(screen.getByRole("button", { name: plateWords.enterGuess }));
    expect(onAssumedChange).not.toHaveBeenCalled();

    expect(screen.queryByRole("button", { name: "I" })).toBeNull();
    fireEvent.click(screen.getByRole("button", { name: "G" }));
    fireEvent.change(screen.getByLabelText(plateWords.takenFrom), {
      target: { value: " sister motor " },
    });
    fireEvent.click(screen.getByRole("button", { name: plateWords.enterGuess }));
    expect(onAssumedChange).toHaveBeenCalledWith([
      { field: "code_letter", value: "G", reason: "sister motor" },
    ]);
  });

  it("shows a guess by the trade's name of its field, and takes it out again", () => {
    const onAssumedChange = shown([{ field: "design_letter", value: "B", reason: "" }], []);
    expect(screen.getByText("Design letter")).toBeTruthy();
    expect(screen.getByText(plateWords.noSourceGiven)).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: plateWords.removeGuess }));
    expect(onAssumedChange).toHaveBeenCalledWith([]);
  });
});

describe("a nameplate in doubt", () => {
  const shown = (estimate: object | null, trust: object = { is_doubted: true }) =>
    render(<Trust trust={trust as never} worked={worked({ estimate })} onTrustChange={vi.fn()} />);
  const estimate = {
    odds: [{ volts: "460", percent: 93 }],
    confidence: "high",
    working: ["36 V and 9 A at standstill"],
    ways_out: ["Use a drive."],
    refusal: null,
  };

  it("forbids full voltage until a test supports it", () => {
    shown({ ...estimate, may_energize: false });
    expect(screen.getByText(plateWords.noFullVoltage)).toBeTruthy();
  });

  it("forbids it too while nothing was read at all", () => {
    shown(null);
    expect(screen.getByText(plateWords.noFullVoltage)).toBeTruthy();
  });

  it("lets go once a test supports it", () => {
    shown({ ...estimate, may_energize: true });
    expect(screen.queryByText(plateWords.noFullVoltage)).toBeNull();
  });

  it("asks nothing of a nameplate that is trusted", () => {
    shown(null, { is_doubted: false });
    expect(screen.queryByText(plateWords.noFullVoltage)).toBeNull();
    expect(screen.queryByLabelText(plateWords.powerFrame)).toBeNull();
  });
});
