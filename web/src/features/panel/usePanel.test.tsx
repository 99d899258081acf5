// @vitest-environment happy-dom
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { PLACE, withQueries } from "../../state/testing";

const store = new Map<string, unknown>();
const room = { isFull: false };
vi.mock("idb-keyval", () => ({
  keys: async () => [...store.keys()],
  get: async (key: string) => store.get(key),
  // a database takes its time
  set: async (key: string, value: unknown) => {
    await new Promise((done) => setTimeout(done, 5));
    store.set(key, value);
  },
  update: async (key: string, change: (old: unknown) => unknown) => {
    if (room.isFull) throw new DOMException("full", "QuotaExceededError");
    store.set(key, change(store.get(key)));
  },
}));

const { usePanel } = await import("./usePanel");
const told = (heads: string[], entries: { id: string }[] = []) => ({ rev: 1, heads, entries });

/** Answer as the server does; a question after the first one waits until it is let go. */
function serving() {
  let asked = 0;
  const letGo: (() => void)[] = [];
  const kept: { id: string }[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    if (request.method === "POST") {
      const { acts } = (await request.json()) as { acts: { uid: string }[] };
      const answers = acts.map(({ uid }) => ({ uid, answer: "kept", said: "Kept." }));
      kept.push(...acts.map(({ uid }) => ({ id: uid })));
      return Response.json({ answers, panel: told([kept.at(-1)?.id ?? ""], [...kept]) });
    }
    asked += 1;
    if (asked > 1) await new Promise<void>((done) => letGo.push(done));
    return Response.json(told(["h1"]));
  });
  return { letGo, kept };
}

describe("the panel on this device", () => {
  afterEach(() => {
    cleanup();
    store.clear();
    vi.unstubAllGlobals();
  });

  it("is not taken back by an older answer, and is kept before the outbox lets go", async () => {
    const { letGo } = serving();
    const queries = withQueries();
    const { result } = renderHook(() => usePanel(PLACE, "marta"), queries);
    await waitFor(() => expect(result.current.panel?.heads).toEqual(["h1"]));
    // asked before the entry was made, answered after it was kept
    act(() => void queries.client.invalidateQueries({ queryKey: ["panel"] }));
    await waitFor(() => expect(letGo).toHaveLength(1));
    await act(() => result.current.act({ kind: "lock_on" }));
    const heads = result.current.panel?.heads ?? [];
    await act(async () => {
      for (const go of letGo) go();
      await new Promise((done) => setTimeout(done, 20));
    });
    expect(heads).toHaveLength(1);
    expect(heads).not.toEqual(["h1"]);
    expect(result.current.panel?.heads).toEqual(heads);
    expect(result.current.held).toEqual([]);
    // a reload without network goes on from there
    const last = store.get("panel marta larkfall/IC-2/1") as { heads: string[] };
    expect(last.heads).toEqual(heads);
  });

  it("shows an entry once, whatever arrives first: the answer or the empty outbox", async () => {
    const { kept } = serving();
    vi.stubGlobal("IS_REACT_ACT_ENVIRONMENT", false);
    let gaps = 0;
    let doubles = 0;
    const { result } = renderHook(() => {
      const now = usePanel(PLACE, "marta");
      const uids = [
        ...now.held.map((one) => one.act.uid),
        ...(now.panel?.entries ?? []).map((one) => one.id),
      ];
      if (kept.some(({ id }) => !uids.includes(id))) gaps += 1;
      if (new Set(uids).size < uids.length) doubles += 1;
      return now;
    }, withQueries());
    await waitFor(() => expect(result.current.panel).toBeDefined());
    for (const kind of ["lock_on", "note", "note"]) {
      // each rendering by itself, as in a browser: `act` would show only the last one
      await result.current.act({ kind });
      await new Promise((done) => setTimeout(done, 30));
    }
    expect(kept).toHaveLength(3);
    expect(result.current.held).toEqual([]);
    expect([gaps, doubles]).toEqual([0, 0]);
  });

  it("says that nothing was saved where the device has no room left", async () => {
    serving();
    const { result } = renderHook(() => usePanel(PLACE, "marta"), withQueries());
    await waitFor(() => expect(result.current.panel?.heads).toEqual(["h1"]));
    room.isFull = true;
    await act(() => result.current.act({ kind: "lock_on" }));
    expect(result.current.refusal?.code).toBe("storage_full");
    expect(result.current.held).toEqual([]);
    room.isFull = false;
  });

  it("keeps a picture that the server will not take, and sends what stands behind it", async () => {
    const { kept } = serving();
    const taken = globalThis.fetch;
    vi.stubGlobal("fetch", async (request: Request) => {
      if (!request.url.endsWith("/photos")) return taken(request);
      const problem = {
        code: "photo_size",
        detail: "100 megapixels are too many.",
        field: "data",
        hint: "Take it smaller.",
      };
      return Response.json(problem, { status: 422 });
    });
    const { result } = renderHook(() => usePanel(PLACE, "marta"), withQueries());
    await waitFor(() => expect(result.current.panel).toBeDefined());
    await act(() => result.current.act({ kind: "photo", picture: "aaaa" }));
    await act(() => result.current.act({ kind: "lock_on" }));
    expect(kept).toHaveLength(1);
    expect(result.current.held.map((one) => one.refused)).toEqual([
      "100 megapixels are too many. Take it smaller.",
    ]);
  });
});
