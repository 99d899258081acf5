// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { ByName } from "./ByName";

afterEach(cleanup);

const TERMINALS = ["stop.11", "stop.12", "main.A1", "main.A1"];
const nameOf = (terminal: string) => terminal.replace("stop", "S1").replace("main", "KM1");

function shown(isSingle: boolean) {
  const onDone = vi.fn();
  render(
    <ByName
      terminals={TERMINALS}
      nameOf={nameOf}
      isSingle={isSingle}
      does="Land"
      onDone={onDone}
    />,
  );
  return onDone;
}

const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const button = () => screen.getByRole("button", { name: "Land" });

it("lands a wire between two terminals by the names that people read", () => {
  const onDone = shown(false);
  type("From", "s1.12 ");
  type("To", "KM1.A1");
  fireEvent.click(button());
  expect(onDone).toHaveBeenCalledWith("stop.12", "main.A1");
  expect(screen.getByLabelText("From")).toHaveProperty("value", "");
});

it("does nothing for a name that is none, or for one terminal twice", () => {
  const onDone = shown(false);
  type("From", "S9.1");
  type("To", "KM1.A1");
  expect(button()).toHaveProperty("disabled", true);
  type("From", "KM1.A1");
  expect(button()).toHaveProperty("disabled", true);
  fireEvent.click(button());
  expect(onDone).not.toHaveBeenCalled();
});

it("asks one terminal where one is enough", () => {
  const onDone = shown(true);
  expect(screen.queryByLabelText("To")).toBeNull();
  type("From", "S1.11");
  fireEvent.click(button());
  expect(onDone).toHaveBeenCalledWith("stop.11", "");
});
