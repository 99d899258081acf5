import { useLayoutEffect, useRef } from "react";
import { useDevice } from "./device";

/** One key of a screen, for acting and for the sheet that lists them. */
export interface Key {
  /** As pressed: `w`, `?`, `Ctrl+z`, `g p` for one after the other. */
  press: string;
  does: string;
  run: () => void;
}

function isWriting(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName);
}

/** Listen for a screen's keys; single letters act only while no field has focus. */
export function useKeys(keys: readonly Key[]): void {
  const { areKeysOn } = useDevice();
  const now = useRef(keys);
  now.current = keys;
  // with the screen itself, not a frame later: a key pressed at once is not lost
  useLayoutEffect(() => {
    if (!areKeysOn) return;
    let first = "";
    let clear = 0;
    const pressed = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.altKey) return;
      if (isWriting(event.target) || document.querySelector("[role=dialog]")) return;
      const pressedKey =
        event.ctrlKey || event.metaKey ? `Ctrl+${event.key.toLowerCase()}` : event.key;
      const both = first ? `${first} ${pressedKey}` : pressedKey;
      const found = now.current.find((key) => key.press === both);
      window.clearTimeout(clear);
      first = "";
      if (found) {
        event.preventDefault();
        found.run();
      } else if (now.current.some((key) => key.press.startsWith(`${pressedKey} `))) {
        first = pressedKey;
        clear = window.setTimeout(() => {
          first = "";
        }, 1500);
      }
    };
    window.addEventListener("keydown", pressed);
    return () => {
      window.clearTimeout(clear);
      window.removeEventListener("keydown", pressed);
    };
  }, [areKeysOn]);
}
