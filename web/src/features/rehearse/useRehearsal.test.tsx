// @vitest-environment happy-dom
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { givenOf } from "../../state/job";
import { answering, jobOf } from "../../state/testing";
import type { Act, Trace } from "./timeline";
import { useRehearsal } from "./useRehearsal";

let tick: ((at: number) => void) | null = null;

beforeEach(() => {
  tick = null;
  vi.stubGlobal("requestAnimationFrame", (run: (at: number) => void) => {
    tick = run;
    return 1;
  });
  vi.stubGlobal("cancelAnimationFrame", () => {
    tick = null;
  });
});

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const START = givenOf(jobOf({ starter: { standard_circuit: "3A" } } as never));

function frame(t: number, snapshot: number | null) {
  const full = snapshot !== null;
  return {
    t,
    words: full ? { main: "1" } : null,
    closed: full ? [] : null,
    nets: full ? {} : null,
    live: full ? [] : null,
    motors: {},
    heats: {},
    snapshot,
  };
}

/** A server that plays nothing but a frame each second, and a hazard where told. */
function server(hazardAt: number | null = null) {
  return answering(({ body }) => {
    const { actions, until, snapshot } = body as unknown as {
      actions: Act[];
      until: number;
      snapshot: string;
    };
    const start = snapshot ? Number(snapshot) : 0;
    const frames = [];
    for (let t = start, n = 0; t <= until; t += 1_000_000, n += 1) frames.push(frame(t, n));
    const asked = actions.some((one) => one.do === "push");
    const hazards =
      hazardAt !== null && asked ? [{ t: hazardAt, code: "springs_to_life", chain: [] }] : [];
    const trace = {
      constants: "catalogue",
      fingerprint: "f",
      start,
      until,
      never_settles: false,
      cut: false,
      frames,
      events: [],
      hazards,
      snapshots: frames.map((one) => String(one.t)),
    };
    return { body: trace as unknown as Trace };
  });
}

const ran = async (ms: number) => {
  const begun = performance.now();
  for (let at = 0; at <= ms; at += 200) {
    await act(async () => tick?.(begun + at));
  }
};

describe("useRehearsal", () => {
  it("asks nothing without a starter, and ten seconds ahead with one", async () => {
    const sent = server();
    const none = renderHook(() => useRehearsal("larkfall", givenOf(jobOf())));
    expect(none.result.current.line.until).toBe(0);
    expect(sent).toEqual([]);

    const { result } = renderHook(() => useRehearsal("larkfall", START));
    await waitFor(() => expect(result.current.line.until).toBe(10_000_000));
    expect(sent[0]?.body).toMatchObject({ snapshot: "", actions: [], until: 10_000_000 });
  });

  it("an act goes on from the last sealed state before it, and is asked once", async () => {
    const sent = server();
    const { result } = renderHook(() => useRehearsal("larkfall", START));
    await waitFor(() => expect(result.current.line.until).toBe(10_000_000));
    act(() => result.current.seek(2_500_000));
    expect(result.current.isRunning).toBe(false);

    await act(async () => result.current.act("push", "start"));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1]?.body).toMatchObject({
      snapshot: "2000000",
      actions: [{ t: 2_500_000, do: "push", on: "start", word: "" }],
      until: 12_500_000,
    });
    expect(result.current.acts).toHaveLength(1);
    expect(result.current.isRunning).toBe(true);
    await waitFor(() => expect(result.current.line.until).toBe(12_500_000));
  });

  it("stops at the instant of a hazard and holds it until somebody goes on", async () => {
    server(1_000_000);
    const { result } = renderHook(() => useRehearsal("larkfall", START));
    await waitFor(() => expect(result.current.line.until).toBe(10_000_000));
    act(() => result.current.seek(0));
    await act(async () => result.current.act("push", "start"));
    await waitFor(() => expect(result.current.line.hazards).toHaveLength(1));
    await ran(3000);
    expect(result.current.now).toBe(1_000_000);
    expect(result.current.held.map((one) => one.t)).toEqual([1_000_000]);
    expect(result.current.isRunning).toBe(false);
    act(() => result.current.goOn());
    expect(result.current.held).toEqual([]);
    expect(result.current.isRunning).toBe(true);
  });

  it("another drawing begins again; a change elsewhere does not", async () => {
    const sent = server();
    const { result, rerender } = renderHook(({ given }) => useRehearsal("larkfall", given), {
      initialProps: { given: START },
    });
    await waitFor(() => expect(result.current.line.until).toBe(10_000_000));
    rerender({ given: { ...START, size: { ...START.size, rating_rule: "main_rule" } } as never });
    await act(async () => undefined);
    expect(sent).toHaveLength(1);
    rerender({
      given: { ...START, starter: { ...START.starter, standard_circuit: "2A" } } as never,
    });
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1]?.body).toMatchObject({ snapshot: "", until: 10_000_000 });
  });

  it("a refusal of the server is shown, and time stands", async () => {
    const problem = { code: "refused", detail: "No.", field: "starter", hint: "Choose." };
    answering(() => ({ status: 422, body: problem }));
    const { result } = renderHook(() => useRehearsal("larkfall", START));
    await waitFor(() => expect(result.current.refusal?.problem).toEqual(problem));
    await ran(1000);
    expect(result.current.now).toBe(0);
  });

  it("goes slower and faster between the ends of its speeds", () => {
    server();
    const { result } = renderHook(() => useRehearsal("larkfall", START));
    for (let n = 0; n < 9; n += 1) act(() => result.current.faster(1));
    expect(result.current.speed).toBe(10);
    for (let n = 0; n < 9; n += 1) act(() => result.current.faster(-1));
    expect(result.current.speed).toBe(0.1);
  });
});
