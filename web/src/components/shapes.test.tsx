// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { frameWords } from "../words/frame";
import { AskAgain, ProblemSlab, Stop, Tag } from "./shapes";

afterEach(cleanup);

const problem = (code: string) => ({ code, detail: "480 V", field: "supply.text", hint: "Look." });

describe("a refusal", () => {
  it.each(["refused", "out_of_range", "file_format"])("of code %s is a stop", (code) => {
    render(<ProblemSlab problem={problem(code)} />);
    expect(screen.getByRole("alert").dataset.strength).toBe("stop");
    expect(screen.getByText(frameWords.stop.trim())).toBeTruthy();
  });

  it.each(["missing", "no_line", "conflict", "not_in_table", "not_allowed"])(
    "of code %s only holds: a fact is missing, nobody is in danger",
    (code) => {
      render(<ProblemSlab problem={problem(code)} />);
      expect(screen.getByRole("alert").dataset.strength).toBe("hold");
      expect(screen.getByText(frameWords.blocked.trim())).toBeTruthy();
    },
  );

  it("says what is wrong and what to do next", () => {
    render(<ProblemSlab problem={problem("refused")}>more</ProblemSlab>);
    const said = screen.getByRole("alert").textContent ?? "";
    expect(said.indexOf("480 V")).toBeLessThan(said.indexOf("Look."));
    expect(said).toContain("more");
  });

  it("is a stop unless it says otherwise", () => {
    render(<Stop title="No full voltage" />);
    expect(screen.getByRole("alert").dataset.strength).toBe("stop");
  });
});

it("asks again only when it is pressed", () => {
  const refetch = vi.fn();
  render(<AskAgain query={{ refetch }} />);
  expect(refetch).not.toHaveBeenCalled();
  fireEvent.click(screen.getByRole("button", { name: frameWords.tryAgain }));
  expect(refetch).toHaveBeenCalledOnce();
});

it("shows an act with its person and its time", () => {
  render(<Tag who="Marta Quillan" when="2026-11-29 10:00" />);
  expect(screen.getByText("Marta Quillan")).toBeTruthy();
  expect(screen.getByText("2026-11-29 10:00")).toBeTruthy();
});
