// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Hazards } from "./Hazards";

afterEach(cleanup);

const HAZARD = {
  code: "power_back",
  label: "Unexpected start when power comes back",
  accepted: false,
  never: false,
};

function seen(maySign: boolean) {
  const onChange = vi.fn();
  render(
    <Hazards
      hazards={[HAZARD] as never}
      starter={{ accepted: [] } as never}
      maySign={maySign}
      onChange={onChange}
    />,
  );
  return onChange;
}

describe("a hazard of the circuit", () => {
  it("is accepted with a reason by whoever may sign", () => {
    const onChange = seen(true);
    fireEvent.click(screen.getByText("Accept"));
    expect(onChange).not.toHaveBeenCalled();
    fireEvent.change(screen.getByRole("textbox"), { target: { value: "locked fence" } });
    fireEvent.click(screen.getByText("Accept"));
    expect(onChange.mock.calls[0]?.[0].accepted).toEqual([
      { hazard: "power_back", why: "locked fence", by: "", at: "" },
    ]);
  });

  it("says who accepts it to whoever may not", () => {
    seen(false);
    expect(screen.queryByText("Accept")).toBeNull();
    expect(screen.getByText(/An electrician or a reviewer accepts it/)).toBeTruthy();
  });
});
