// @vitest-environment happy-dom
import { act, cleanup, render, screen } from "@testing-library/react";
import { afterEach, it, vi } from "vitest";
import { useIsOnline } from "./useIsOnline";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function Told() {
  return <p>{useIsOnline() ? "on" : "off"}</p>;
}

it("follows the network of this device, there and back", () => {
  const has = vi.spyOn(navigator, "onLine", "get").mockReturnValue(true);
  render(<Told />);
  screen.getByText("on");
  has.mockReturnValue(false);
  act(() => void window.dispatchEvent(new Event("offline")));
  screen.getByText("off");
  has.mockReturnValue(true);
  act(() => void window.dispatchEvent(new Event("online")));
  screen.getByText("on");
});
