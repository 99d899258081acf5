// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { convertWords } from "../../words/convert";
import { Loads } from "./Loads";

afterEach(cleanup);

const LAMP = { tag: "LT1", kind: "lamp", rated_v: "120", fed_from: "T1" } as const;
const BRAKE = { tag: "BR1", kind: "brake", rated_v: "230", fed_from: "" } as const;

function shown(loads: object[], answers: object[] = []) {
  const onLoadsChange = vi.fn();
  render(
    <Loads
      loads={loads as never}
      answers={answers as never}
      feeds={["T1", "T2"]}
      onLoadsChange={onLoadsChange}
    />,
  );
  return onLoadsChange;
}

it("puts each answer beside its own load", () => {
  shown(
    [LAMP, BRAKE],
    [
      { tag: "BR1", action: "replace", text: "480 V on a 230 V brake." },
      { tag: "LT1", action: "keep", text: "Its transformer keeps 120 V." },
    ],
  );
  const brake = within(screen.getByTestId("load-BR1"));
  expect(brake.getByText("replace")).toBeTruthy();
  expect(brake.queryByText(/keeps 120 V/)).toBeNull();
});

it("changes what feeds a load, the line included", () => {
  const onLoadsChange = shown([LAMP, BRAKE]);
  const [, feed] = within(screen.getByTestId("load-LT1")).getAllByRole("combobox");
  fireEvent.change(feed as HTMLElement, { target: { value: "" } });
  expect(onLoadsChange).toHaveBeenCalledWith([{ ...LAMP, fed_from: "" }, BRAKE]);
});

it("keeps the last volts and the last tag where a field is emptied", () => {
  const onLoadsChange = shown([LAMP]);
  fireEvent.change(screen.getByLabelText(convertWords.ratedVoltage), { target: { value: "" } });
  fireEvent.change(screen.getByLabelText(convertWords.tag), { target: { value: "" } });
  expect(onLoadsChange).not.toHaveBeenCalled();
});

it("adds a load on the first transformer and removes the one asked for", () => {
  const onLoadsChange = shown([BRAKE]);
  fireEvent.click(screen.getByRole("button", { name: convertWords.addLoad }));
  expect(onLoadsChange.mock.calls[0]?.[0]).toEqual([
    BRAKE,
    { tag: "LT2", kind: "lamp", rated_v: "120", fed_from: "T1" },
  ]);
  fireEvent.click(screen.getByRole("button", { name: convertWords.remove }));
  expect(onLoadsChange).toHaveBeenLastCalledWith([]);
});
