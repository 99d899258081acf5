// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import { Beside } from "./Beside";
import { Lines } from "./Lines";
import { AS_IT_IS, Suppose } from "./Suppose";
import { Topics } from "./Topics";
import { FOUND } from "./useAudit";

afterEach(cleanup);

const overload: Schemas["AuditTopicOut"] = {
  topic: "overload",
  said: "Overload",
  counts: [
    { state: "fails", said: "fails", jobs: 17 },
    { state: "holds", said: "holds", jobs: 283 },
  ],
};
const line: Schemas["AuditLineOut"] = {
  id: 1,
  tag: "RC 7/2",
  job: 3,
  machine: "Stack",
  panel: "",
  topic: "overload",
  topic_said: "Overload",
  state: "fails_if",
  state_said: "fails if the assumed is true",
  was_said: "",
  said: "Trips at 31 A.",
  do: "",
  guesses: ["30 °C assumed."],
  rule: "NEC 2023, 430.32(A)(1)",
  step: "size",
};

it("opens the lines of a count, and offers none where everything holds", () => {
  const onChoose = vi.fn();
  render(<Topics topics={[overload]} chosen={FOUND} onChoose={onChoose} />);
  fireEvent.click(screen.getByRole("button", { name: "17 fails" }));
  expect(onChoose).toHaveBeenCalledWith({ topic: "overload", state: "fails" });
  expect(screen.queryByRole("button", { name: "283 holds" })).toBeNull();
  expect(screen.getByText("283 holds")).toBeTruthy();
});

it("leads from a line to its job, with what is assumed beside it", () => {
  const onPage = vi.fn();
  render(
    <MemoryRouter>
      <Lines
        works="here"
        found={{ lines: [line], found: 51, jobs: 9, page: 2, pages: 2 }}
        onPage={onPage}
      />
    </MemoryRouter>,
  );
  expect(screen.getByRole("link").getAttribute("href")).toBe("/w/here/m/RC%207%2F2/j/3/size");
  expect(screen.getByText("51 lines in 9 motors")).toBeTruthy();
  expect(screen.getByText(/30 °C assumed/)).toBeTruthy();
  expect(screen.getByText(/not found before/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Worse ones" }));
  expect(onPage).toHaveBeenCalledWith(1);
  expect(screen.getByRole("button", { name: "Further ones" }).hasAttribute("disabled")).toBe(true);
});

it("says that nothing of a kind was found, and not that nothing is there", () => {
  render(
    <MemoryRouter>
      <Lines
        works="here"
        found={{ lines: [], found: 0, jobs: 0, page: 1, pages: 1 }}
        onPage={() => {}}
      />
    </MemoryRouter>,
  );
  expect(screen.getByText("Nothing of this kind was found.")).toBeTruthy();
});

it("supposes nothing until something is asked", () => {
  const onBegin = vi.fn();
  render(<Suppose isBusy={false} onBegin={onBegin} />);
  const begin = screen.getByRole("button", { name: "Audit as if", hidden: true });
  expect(begin.hasAttribute("disabled")).toBe(true);
  fireEvent.click(screen.getByRole("checkbox", { hidden: true }));
  fireEvent.click(screen.getByRole("button", { name: "2017", hidden: true }));
  fireEvent.click(screen.getByRole("button", { name: "Audit as if", hidden: true }));
  expect(onBegin).toHaveBeenCalledWith({ ...AS_IT_IS, breakers: true, edition: 2017 });
});

it("shows what an unknown fact costs, and panels only where one is named", () => {
  const place = { name: "", total: 4, fails: 1, doubt: 0, open: 2 };
  const audit = {
    needs: [
      { fact: "ambient_c", said: "30 °C assumed.", step: "size", jobs: 4, withheld: 0, assumed: 9 },
    ],
    machines: [{ ...place, name: "Stack" }],
    panels: [place],
  } as unknown as Schemas["AuditOut"];
  const onChoose = vi.fn();
  render(<Beside audit={audit} chosen={FOUND} onChoose={onChoose} />);
  expect(screen.getByText(/9 figures on a guess/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "in 4 motors" }));
  expect(onChoose).toHaveBeenCalledWith({ fact: "ambient_c" });
  expect(screen.queryByRole("region", { name: "By panel" })).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "Stack" }));
  expect(onChoose).toHaveBeenCalledWith({ machine: "Stack" });
});
