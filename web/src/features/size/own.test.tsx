// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { sizeWords } from "../../words/size";
import { OwnSizes } from "./OwnSizes";

afterEach(cleanup);

const FIGURES = [
  { id: "conductor_size", label: "Conductor", step: null, group: "branch", refusal: {} },
  {
    id: "overload_setting_a",
    label: "Overload setting, max",
    step: "overload_setting_a",
    group: "branch",
    refusal: null,
  },
];
const OWN = { figure: "conductor_size", value: "2.5 mm2", source: "own code, 5.1" };

function shown(size: object) {
  const onSizeChange = vi.fn();
  render(
    <OwnSizes
      figures={FIGURES as never}
      steps={[{ id: "overload_setting_a", shown: "21" }] as never}
      size={size as never}
      onSizeChange={onSizeChange}
    />,
  );
  return onSizeChange;
}

const type = (label: string, value: string) => {
  const field = screen.getByLabelText(label);
  fireEvent.change(field, { target: { value } });
  fireEvent.blur(field);
};

it("says once that no NEC size is shown, whatever the number of figures", () => {
  shown({});
  expect(screen.getAllByText(sizeWords.jobAnotherCode)).toHaveLength(1);
});

it("keeps a figure only together with its source", () => {
  const onSizeChange = shown({});
  type("Conductor", "2.5 mm2");
  expect(onSizeChange).not.toHaveBeenCalled();
  expect(screen.getByText(sizeWords.sourceMissing)).toBeTruthy();
  type(sizeWords.sourceOf("Conductor"), "own code, 5.1");
  expect(onSizeChange).toHaveBeenCalledWith({ own: [OWN] });
});

it("drops a figure that is emptied with its source, and leaves the others", () => {
  const other = { figure: "overload_setting_a", value: "20", source: "measured" };
  const onSizeChange = shown({ own: [OWN, other] });
  type("Conductor", "");
  type(sizeWords.sourceOf("Conductor"), "");
  expect(onSizeChange).toHaveBeenLastCalledWith({ own: [other] });
});

it("shows what is known without any code as a proposal, not as an entry", () => {
  shown({});
  const overload = screen.getByLabelText("Overload setting, max") as HTMLInputElement;
  expect([overload.value, overload.placeholder]).toEqual(["", "21"]);
});
