// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { Columns } from "./Columns";
import { packed, type Schedule } from "./useSchedule";

afterEach(cleanup);

const SCHEDULE: Schedule = {
  n: 1,
  name: "motors.csv",
  by: "Ruth",
  at: "2026-12-01 10:00",
  state: "read",
  done: 0,
  total: 0,
  added: 0,
  changed: 0,
  same: 0,
  kept: [],
  is_here: true,
  encoding: "utf-8",
  is_encoding_guessed: false,
  delimiter: ",",
  sheet: "",
  heads: ["Nr", "HP"],
  columns: [
    { field: "tag", head: "" },
    { field: "power_hp", head: "HP" },
  ],
  left: ["Nr"],
  good: 0,
  bad_lines: 1,
  bad: [],
  doubts: [],
};

it("sends every column with the one that was changed", () => {
  const onMap = vi.fn();
  render(<Columns schedule={SCHEDULE} isOpen onMap={onMap} />);
  fireEvent.change(screen.getByLabelText(/^Tag/), { target: { value: "Nr" } });
  expect(onMap).toHaveBeenCalledWith({ tag: "Nr", power_hp: "HP" });
});

it("changes nothing of a table that was taken", () => {
  render(<Columns schedule={{ ...SCHEDULE, state: "done" }} isOpen={false} onMap={vi.fn()} />);
  expect(screen.getByLabelText(/^Tag/)).toHaveProperty("disabled", true);
});

it("packs a file so that the server finds the same bytes", async () => {
  const text = "tag;hp\nA-1;7,5\n".repeat(5000);
  const data = await packed(new Blob([text]));
  const bytes = Uint8Array.from(atob(data), (sign) => sign.charCodeAt(0));
  const stream = new Blob([bytes]).stream().pipeThrough(new DecompressionStream("gzip"));
  expect(await new Response(stream).text()).toBe(text);
  expect(data.length).toBeLessThan(text.length / 10);
});
