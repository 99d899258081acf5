// @vitest-environment happy-dom
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Job } from "../api/client";
import { answering, jobOf, KEY, PLACE, withQueries } from "./testing";
import { useDraft } from "./useDraft";
import { useKeep } from "./useKeep";
import { AGAIN_AFTER_MS } from "./useWorked";

afterEach(async () => {
  cleanup();
  vi.useRealTimers();
  // what leaving the page still saves is answered by the same stand-in
  await new Promise((done) => setTimeout(done, 0));
  vi.unstubAllGlobals();
});

function opened() {
  const { client, wrapper } = withQueries();
  client.setQueryData<Job>(KEY, jobOf());
  const hook = renderHook(
    () => {
      const draft = useDraft(client.getQueryData<Job>(KEY));
      return { draft, kept: useKeep(PLACE, KEY, draft) };
    },
    { wrapper },
  );
  const type = (text: string) =>
    act(() => {
      hook.result.current.draft.change("supply", { ...jobOf().supply, text });
      hook.result.current.kept.typed();
    });
  return { client, hook, type };
}

const version = (n: number) => ({ n, by: "Marta Quillan", at: "10:42" });

describe("useKeep", () => {
  it("saves one step based on its version, and the next save is based on that one", async () => {
    const sent = answering(({ body }) => ({
      body: { ...version(Number(body.based_on) + 1), body: body.body },
    }));
    const { client, hook, type } = opened();
    type("240 delta");
    expect(hook.result.current.kept.line.state).toBe("typing");
    await act(() => hook.result.current.kept.keep());
    expect(sent[0]).toMatchObject({
      method: "PUT",
      path: "/api/w/larkfall/m/IC-2/j/1/supply",
      body: { based_on: 1, body: { text: "240 delta" } },
    });
    expect(hook.result.current.kept.line).toEqual({ state: "saved", version: version(2) });
    expect(client.getQueryData<Job>(KEY)?.supply.text).toBe("240 delta");

    type("208Y/120");
    await act(() => hook.result.current.kept.keep());
    expect(sent[1]?.body.based_on).toBe(2);
  });

  it("says saved and sends nothing when the draft is what is saved", async () => {
    const sent = answering(() => ({ body: {} }));
    const { hook, type } = opened();
    type("480Y/277");
    await act(() => hook.result.current.kept.keep());
    expect(hook.result.current.kept.line.state).toBe("saved");
    expect(sent).toEqual([]);
  });

  it("takes over what the server stamped, but not over what was typed meanwhile", async () => {
    let meanwhile: (() => void) | null = null;
    answering(({ body }) => {
      meanwhile?.();
      return { body: { ...version(2), body: { ...(body.body as object), stamped: "by Marta" } } };
    });
    const { hook, type } = opened();
    type("240 delta");
    await act(() => hook.result.current.kept.keep());
    expect(hook.result.current.draft.given?.supply).toMatchObject({ stamped: "by Marta" });

    meanwhile = () => {
      hook.result.current.draft.change("supply", { ...jobOf().supply, text: "typed meanwhile" });
    };
    type("208Y/120");
    await act(() => hook.result.current.kept.keep());
    expect(hook.result.current.draft.given?.supply.text).toBe("typed meanwhile");
  });

  it("says nothing of saved while what was typed meanwhile is not", async () => {
    let meanwhile: (() => void) | null = null;
    const sent = answering(({ body }) => {
      meanwhile?.();
      meanwhile = null;
      return { body: { ...version(Number(body.based_on) + 1), body: body.body } };
    });
    const { client, wrapper } = withQueries();
    client.setQueryData<Job>(KEY, jobOf());
    const said: string[] = [];
    const hook = renderHook(
      () => {
        const draft = useDraft(client.getQueryData<Job>(KEY));
        const kept = useKeep(PLACE, KEY, draft);
        said.push(`${kept.line.state} after ${sent.length}`);
        return { draft, kept };
      },
      { wrapper },
    );
    meanwhile = () => {
      hook.result.current.draft.change("supply", { ...jobOf().supply, text: "208Y/120" });
    };
    act(() => {
      hook.result.current.draft.change("supply", { ...jobOf().supply, text: "240 delta" });
      hook.result.current.kept.typed();
    });
    said.length = 0;
    await act(() => hook.result.current.kept.keep());
    await waitFor(() => expect(hook.result.current.kept.line.state).toBe("saved"));
    expect(sent.map((one) => (one.body.body as { text: string }).text)).toEqual([
      "240 delta",
      "208Y/120",
    ]);
    expect(said.filter((one) => one.startsWith("saved after 1"))).toEqual([]);
  });

  it("a newer version of somebody else is a clash; mine becomes the version after theirs", async () => {
    const theirs = { n: 5, by: "Dov Ansell", at: "10:50" };
    const sent = answering(({ body }) =>
      body.based_on === 1
        ? {
            status: 409,
            body: {
              code: "conflict",
              detail: "Changed.",
              field: "supply",
              hint: "Look.",
              theirs,
              body: { text: "208Y/120" },
            },
          }
        : { body: { ...version(6), body: body.body } },
    );
    const { hook, type } = opened();
    type("240 delta");
    await act(() => hook.result.current.kept.keep());
    expect(hook.result.current.kept.clash).toMatchObject({ part: "supply", theirs });
    expect(hook.result.current.kept.line.state).toBe("refused");
    // nothing is saved over an open clash
    await act(() => hook.result.current.kept.keep());
    expect(sent).toHaveLength(1);

    act(() => hook.result.current.kept.settle("mine"));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1]?.body).toMatchObject({ based_on: 5, body: { text: "240 delta" } });
    expect(hook.result.current.kept.clash).toBeNull();
  });

  it("taking theirs drops the own change and sends nothing", async () => {
    const theirs = { n: 5, by: "Dov Ansell", at: "10:50" };
    const sent = answering(() => ({
      status: 409,
      body: {
        code: "conflict",
        detail: "Changed.",
        field: "supply",
        hint: "Look.",
        theirs,
        body: { text: "208Y/120" },
      },
    }));
    const { hook, type } = opened();
    type("240 delta");
    await act(() => hook.result.current.kept.keep());
    act(() => hook.result.current.kept.settle("theirs"));
    expect(hook.result.current.draft.given?.supply.text).toBe("208Y/120");
    await act(() => hook.result.current.kept.keep());
    expect(sent).toHaveLength(1);
    expect(hook.result.current.kept.line).toMatchObject({ state: "saved" });
  });

  it("a lost line keeps the draft and tries again by itself", async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    let isDown = true;
    const sent = answering(({ body }) =>
      isDown ? null : { body: { ...version(2), body: body.body } },
    );
    const { hook, type } = opened();
    type("240 delta");
    await act(() => hook.result.current.kept.keep());
    expect(hook.result.current.kept.line.state).toBe("refused");
    expect(hook.result.current.draft.given?.supply.text).toBe("240 delta");
    isDown = false;
    await act(() => vi.advanceTimersByTimeAsync(AGAIN_AFTER_MS + 50));
    await waitFor(() => expect(hook.result.current.kept.line.state).toBe("saved"));
    expect(sent).toHaveLength(2);
  });

  it("a refusal of the step is shown and not sent again", async () => {
    const problem = { code: "refused", detail: "No.", field: "supply.text", hint: "Again." };
    const sent = answering(() => ({ status: 422, body: problem }));
    const { hook, type } = opened();
    type("999999 delta");
    await act(() => hook.result.current.kept.keep());
    expect(hook.result.current.kept.line).toEqual({ state: "refused", problem });
    expect(sent).toHaveLength(1);
  });
});
