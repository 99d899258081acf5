// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { frameWords } from "../words/frame";
import { Choice, Drawer, Reading, Words } from "./inputs";

afterEach(cleanup);

function Kept({ start, onSent }: { start: string | null; onSent: (value: string | null) => void }) {
  const [value, setValue] = useState(start);
  return (
    <Reading
      label="Ambient"
      unit="°C"
      value={value}
      onValueChange={(next) => {
        setValue(next);
        onSent(next);
      }}
    />
  );
}

const typed = (text: string) =>
  fireEvent.change(screen.getByLabelText("Ambient"), { target: { value: text } });

describe("a reading typed in place", () => {
  it("is sent as soon as it is a number, with a decimal point", () => {
    const onSent = vi.fn();
    render(<Kept start={null} onSent={onSent} />);
    typed("38,6");
    expect(onSent).toHaveBeenLastCalledWith("38.6");
  });

  it.each(["4O", "1.2.3", "12345678", "-5"])(
    "keeps %s as typed, sends nothing, and says so",
    (text) => {
      const onSent = vi.fn();
      render(<Kept start="30" onSent={onSent} />);
      typed(text);
      expect(onSent).not.toHaveBeenCalled();
      expect(screen.getByLabelText("Ambient").getAttribute("aria-invalid")).toBe("true");
      expect(screen.getByRole("status").textContent).toBe(
        frameWords.notNumberStill(text.slice(0, 12), "30"),
      );
    },
  );

  it("goes back to the value that holds once it is a number again", () => {
    render(<Kept start="30" onSent={vi.fn()} />);
    typed("4O");
    typed("40");
    fireEvent.blur(screen.getByLabelText("Ambient"));
    expect(screen.queryByRole("status")).toBeNull();
    expect((screen.getByLabelText("Ambient") as HTMLInputElement).value).toBe("40");
  });

  it("empties a value, and an empty field is no mistake", () => {
    const onSent = vi.fn();
    render(<Kept start="30" onSent={onSent} />);
    typed(" ");
    expect(onSent).toHaveBeenLastCalledWith(null);
    expect(screen.getByLabelText("Ambient").getAttribute("aria-invalid")).toBe("false");
  });
});

describe("a choice", () => {
  const options = [
    { value: true, label: "Yes" },
    { value: false, label: "No" },
  ];

  it("has none pressed while nobody has chosen", () => {
    render(<Choice label="In sight" options={options} value={null} onValueChange={vi.fn()} />);
    for (const button of screen.getAllByRole("button"))
      expect(button.getAttribute("aria-pressed")).toBe("false");
  });

  it("tells no apart from not chosen", () => {
    const onValueChange = vi.fn();
    render(<Choice options={options} value={false} onValueChange={onValueChange} />);
    expect(screen.getByRole("button", { name: "No" }).getAttribute("aria-pressed")).toBe("true");
    fireEvent.click(screen.getByRole("button", { name: "Yes" }));
    expect(onValueChange).toHaveBeenCalledWith(true);
  });
});

it("sends words as typed, empty ones too", () => {
  const onValueChange = vi.fn();
  render(<Words label="Marked" value="M" onValueChange={onValueChange} />);
  fireEvent.change(screen.getByLabelText("Marked"), { target: { value: "" } });
  expect(onValueChange).toHaveBeenCalledWith("");
});

it("opens a drawer that calls for a look, and never closes it under a hand", () => {
  const { rerender, container } = render(<Drawer name="Rotation">inside</Drawer>);
  const drawer = container.querySelector("details");
  expect(drawer?.open).toBe(false);
  rerender(
    <Drawer name="Rotation" isOpen>
      inside
    </Drawer>,
  );
  expect(drawer?.open).toBe(true);
  rerender(<Drawer name="Rotation">inside</Drawer>);
  expect(drawer?.open).toBe(true);
});
