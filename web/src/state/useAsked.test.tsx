// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";
import { Refused } from "../api/client";
import { useAsked } from "./useAsked";

afterEach(cleanup);

const refused = () =>
  Promise.reject(new Refused({ detail: "No such motor." } as Refused["problem"], 422));

it("shows the last answer, or why there is none, never both", async () => {
  const { result } = renderHook(() => useAsked<string>());
  await act(() => result.current.ask(() => Promise.resolve("12 ohm")));
  expect(result.current.shown).toBe("12 ohm");
  await act(() => result.current.ask(refused));
  expect(result.current.shown).toBeUndefined();
  expect(result.current.problem?.detail).toBe("No such motor.");
  await act(() => result.current.ask(() => Promise.resolve("13 ohm")));
  expect(result.current.shown).toBe("13 ohm");
  expect(result.current.problem).toBeUndefined();
});

it("lets everything that is no refusal through", async () => {
  const { result } = renderHook(() => useAsked<string>());
  const broken = () => Promise.reject(new Error("no network"));
  await expect(act(() => result.current.ask(broken))).rejects.toThrow("no network");
});
