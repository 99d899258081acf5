// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { leadsWords } from "../../words/leads";
import { StudOrder } from "./StudOrder";

afterEach(cleanup);

const box = { board: { rows: [["T6", "T4", "T5"]] } };
const board = { rows: [], jumpers: 0, nuts_per_stud: 3 };

function shown(more: object = {}) {
  const onBoardChange = vi.fn();
  render(
    <StudOrder box={box} board={{ ...board, ...more } as never} onBoardChange={onBoardChange} />,
  );
  return onBoardChange;
}

it("sends the studs as typed, row by row, and leaves their names to the core", () => {
  const onBoardChange = shown();
  const field = screen.getByLabelText(leadsWords.studsRowRow);
  expect((field as HTMLInputElement).value).toBe("T6 T4 T5");
  fireEvent.change(field, { target: { value: "6 4 5 / 1 t2 3 /" } });
  fireEvent.blur(field);
  expect(onBoardChange).toHaveBeenCalledWith({
    board: {
      ...board,
      rows: [
        ["6", "4", "5"],
        ["1", "t2", "3"],
      ],
    },
  });
});

it("takes any number of bars, and none for as many as are needed", () => {
  const onBoardChange = shown({ bars: 3 });
  const field = screen.getByLabelText(leadsWords.barsThere);
  fireEvent.change(field, { target: { value: "7" } });
  expect(onBoardChange).toHaveBeenLastCalledWith({ board: { ...board, bars: 7 } });
  fireEvent.change(field, { target: { value: "" } });
  expect(onBoardChange).toHaveBeenLastCalledWith({ board: { ...board, bars: null } });
});
