// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { Refused } from "../api/client";
import { useTried } from "./useTried";

afterEach(cleanup);

const PROBLEM = { code: "clash", detail: "Someone else was first.", field: "rev", hint: "Look." };

it("returns what came of it, and is busy until then", async () => {
  const { result } = renderHook(() => useTried());
  let done: (value: number) => void = () => undefined;
  let came: Promise<number | null> = Promise.resolve(null);
  act(() => {
    came = result.current.tried(() => new Promise<number>((on) => (done = on)));
  });
  expect(result.current.isBusy).toBe(true);
  await act(async () => {
    done(7);
    expect(await came).toBe(7);
  });
  expect(result.current.isBusy).toBe(false);
  expect(result.current.problem).toBeNull();
});

it("keeps what was refused until the next try, and tells who asked", async () => {
  const { result } = renderHook(() => useTried());
  const onRefused = vi.fn(async () => undefined);
  await act(async () => {
    const came = await result.current.tried(async () => {
      throw new Refused(PROBLEM, 409);
    }, onRefused);
    expect(came).toBeNull();
  });
  expect(result.current.problem).toEqual(PROBLEM);
  expect(onRefused).toHaveBeenCalledOnce();
  await act(async () => {
    await result.current.tried(async () => 1);
  });
  expect(result.current.problem).toBeNull();
});

it("does not swallow what is no refusal", async () => {
  const { result } = renderHook(() => useTried());
  await act(async () => {
    await expect(
      result.current.tried(async () => {
        throw new Error("a bug");
      }),
    ).rejects.toThrow("a bug");
  });
  expect(result.current.isBusy).toBe(false);
});
