import { expect, it, vi } from "vitest";
import { isAsLastTold, noteAnswer, onAsLastTold } from "./asLastTold";

it("knows an answer of this device from one of the server", () => {
  const heard = vi.fn();
  const stop = onAsLastTold(heard);
  expect(isAsLastTold()).toBe(false);
  noteAnswer(new Headers({ "X-As-Last-Told": "1" }));
  expect(isAsLastTold()).toBe(true);
  noteAnswer(new Headers({ "X-As-Last-Told": "1" }));
  noteAnswer(new Headers());
  expect(isAsLastTold()).toBe(false);
  expect(heard).toHaveBeenCalledTimes(2);
  stop();
  noteAnswer(new Headers({ "X-As-Last-Told": "1" }));
  expect(heard).toHaveBeenCalledTimes(2);
  noteAnswer(new Headers());
});
