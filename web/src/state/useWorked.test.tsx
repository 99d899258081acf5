// @vitest-environment happy-dom
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { givenOf } from "./job";
import { answering, jobOf, withQueries } from "./testing";
import { AGAIN_AFTER_MS, useWorked } from "./useWorked";

afterEach(async () => {
  cleanup();
  vi.useRealTimers();
  // what leaving the page still saves is answered by the same stand-in
  await new Promise((done) => setTimeout(done, 0));
  vi.unstubAllGlobals();
});

const draftOf = (text: string) => {
  const given = givenOf(jobOf());
  return { ...given, plate: { ...given.plate, text } };
};

describe("useWorked", () => {
  it("shows the job's own answer until something is typed, and asks nothing", () => {
    const sent = answering(() => ({ body: {} }));
    const job = jobOf();
    const { result } = renderHook(() => useWorked("larkfall", null, job), withQueries());
    expect(result.current.worked).toBe(job.worked);
    expect(result.current.readText).toBe("15 HP, 460 V");
    expect(sent).toEqual([]);
  });

  it("asks once for what was typed last, and keeps the answer before until the next", async () => {
    const sent = answering(({ body }) => ({
      body: { rating_rule: (body.plate as { text: string }).text },
    }));
    const { result, rerender } = renderHook(({ draft }) => useWorked("larkfall", draft, jobOf()), {
      initialProps: { draft: draftOf("1") },
      ...withQueries(),
    });
    rerender({ draft: draftOf("10") });
    rerender({ draft: draftOf("10 HP") });
    await waitFor(() => expect(result.current.worked?.rating_rule).toBe("10 HP"));
    expect(sent.length).toBeLessThanOrEqual(2);
    expect(result.current.readText).toBe("10 HP");
    expect(result.current.read?.plate.text).toBe("10 HP");

    rerender({ draft: draftOf("20 HP") });
    // the new answer is not there: the last one stands, and is not taken for the new draft's
    expect(result.current.worked?.rating_rule).toBe("10 HP");
    await waitFor(() => expect(result.current.read?.plate.text).toBe("20 HP"));
  });

  it("a refusal is shown, is not tried again, and leaves nothing to save", async () => {
    const problem = { code: "refused", detail: "No.", field: "plate.text", hint: "Again." };
    const sent = answering(() => ({ status: 422, body: problem }));
    const { result } = renderHook(() => useWorked("larkfall", DRAFT, jobOf()), withQueries());
    await waitFor(() => expect(result.current.refusal?.problem).toEqual(problem));
    expect(result.current.read).toBeNull();
    expect(sent).toHaveLength(1);
  });

  it("a lost line is told at once and tried again by itself", async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    let isDown = true;
    const sent = answering(() => (isDown ? null : { body: { rating_rule: "back" } }));
    const { result } = renderHook(() => useWorked("larkfall", DRAFT, jobOf()), withQueries());
    await waitFor(() => expect(result.current.refusal?.status).toBe(0));
    isDown = false;
    await act(() => vi.advanceTimersByTimeAsync(AGAIN_AFTER_MS + 50));
    await waitFor(() => expect(result.current.worked?.rating_rule).toBe("back"));
    expect(result.current.refusal).toBeNull();
    expect(sent).toHaveLength(2);
  });
});

const DRAFT = draftOf("75 HP");
