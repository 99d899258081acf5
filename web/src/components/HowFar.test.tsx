// @vitest-environment happy-dom
import { useQuery } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { named, nameOf } from "../api/question";
import { answering, withQueries } from "../state/testing";
import { Working } from "./Edges";
import { HowFar } from "./HowFar";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const asked: AbortSignal[] = [];
const QUESTION = { works: "larkfall", key: ["dead", "larkfall", { a: 1, b: 2 }] };

function Heavy() {
  const query = useQuery({
    queryKey: QUESTION.key,
    queryFn: ({ signal }) => {
      asked.push(signal);
      return new Promise(() => {});
    },
  });
  return <Working query={query} question={QUESTION} />;
}

it("names a question by its key, whatever the order of its members", () => {
  const name = nameOf(QUESTION.key);
  expect(name).toMatch(/^[0-9a-f]+-[0-9a-f]+$/);
  expect(nameOf(["dead", "larkfall", { b: 2, a: 1 }])).toBe(name);
  expect(nameOf(["dead", "larkfall", { a: 1, b: 3 }])).not.toBe(name);
  expect(nameOf(["dead", "larkfall", { a: 1, b: 2 }, 0])).not.toBe(name);
  expect(named(QUESTION.key)).toEqual({ headers: { "X-Question": name } });
});

it.each([
  [{ state: "unknown", done: 0, of: 0 }, "Calculating…"],
  [{ state: "waiting", done: 0, of: 0 }, "Waiting for a free place: next."],
  [{ state: "waiting", done: 1, of: 0 }, "Waiting: 1 question ahead."],
  [{ state: "waiting", done: 3, of: 0 }, "Waiting: 3 questions ahead."],
  [{ state: "running", done: 0, of: 0 }, "Calculating…"],
  [{ state: "running", done: 119, of: 120 }, "Calculating: 99 %"],
])("says of %j: %s", async (told, words) => {
  const sent = answering(() => ({ body: told }));
  const { wrapper } = withQueries();
  render(<HowFar question={QUESTION} />, { wrapper });
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]?.path).toBe(`/api/w/larkfall/questions/${nameOf(QUESTION.key)}`);
  await waitFor(() => expect(screen.getByTestId("how-far").textContent).toBe(words));
});

it("stops the question: the request is given up, and can be asked again", async () => {
  answering(() => ({ body: { state: "running", done: 30, of: 60 } }));
  const { wrapper } = withQueries();
  render(<Heavy />, { wrapper });
  const stop = await screen.findByRole("button", { name: "Stop" }, { timeout: 3000 });
  await waitFor(() => expect(screen.getByTestId("how-far").textContent).toBe("Calculating: 50 %"));
  fireEvent.click(stop);
  await waitFor(() =>
    expect(screen.getByRole("status").textContent).toContain("Stopped: not calculated."),
  );
  expect(asked[0]?.aborted).toBe(true);
  fireEvent.click(screen.getByRole("button", { name: "Try again" }));
  await waitFor(() => expect(asked).toHaveLength(2));
});
