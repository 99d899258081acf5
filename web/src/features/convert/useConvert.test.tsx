// @vitest-environment happy-dom
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { answering, withQueries } from "../../state/testing";
import { useConvert } from "./useConvert";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const SAVED = { to_supply: "480Y/277", transformers: [] };
const plan = (given: unknown, n: number, headline: string) => ({
  given,
  headline,
  version: { n, by: "Marta Quillan", at: "10:00" },
});

describe("useConvert", () => {
  it("tries a draft without saving it, and saves on the version it was read from", async () => {
    const sent = answering(({ method, body }) => {
      if (method === "GET") return { body: plan(SAVED, 3, "2 of 3 convertible") };
      if (method === "POST") return { body: plan(body, 3, "1 of 3 convertible") };
      return { body: plan(body.body, 4, "1 of 3 convertible") };
    });
    const { result } = renderHook(() => useConvert("larkfall", "Lime Line 1"), withQueries());
    await waitFor(() => expect(result.current.given).toEqual(SAVED));
    expect(result.current.isDraft).toBe(false);

    act(() => result.current.set({ to_supply: "600Y/347" } as never));
    expect(result.current.isDraft).toBe(true);
    await waitFor(() => expect(result.current.answered.data?.headline).toBe("1 of 3 convertible"));
    expect(sent.filter((one) => one.method === "PUT")).toEqual([]);
    expect(result.current.kept.data?.headline).toBe("2 of 3 convertible");

    await act(() => result.current.keep());
    const put = sent.find((one) => one.method === "PUT");
    expect(put?.body.based_on).toBe(3);
    expect(put?.body.body).toMatchObject({ to_supply: "600Y/347" });
    expect(result.current.isDraft).toBe(false);
    expect(result.current.kept.data?.version.n).toBe(4);
  });

  it("a plan that another person saved first is refused, and the draft stays", async () => {
    const problem = { code: "stale", detail: "Changed.", field: "", hint: "Look again." };
    answering(({ method, body }) => {
      if (method === "GET") return { body: plan(SAVED, 3, "") };
      if (method === "POST") return { body: plan(body, 3, "") };
      return { status: 409, body: problem };
    });
    const { result } = renderHook(() => useConvert("larkfall", "Lime Line 1"), withQueries());
    await waitFor(() => expect(result.current.given).not.toBeNull());
    act(() => result.current.set({ to_supply: "208Y/120" } as never));
    await act(() => result.current.keep());
    expect(result.current.refusal?.problem).toMatchObject(problem);
    expect(result.current.isDraft).toBe(true);
    expect(result.current.given).toMatchObject({ to_supply: "208Y/120" });
  });
});
