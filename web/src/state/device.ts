import { useCallback, useEffect, useState, useSyncExternalStore } from "react";

/** Settings of this device, not of the person: seat, lamp, single-letter keys. */
export type Seat = "desk" | "panel";
export type Lamp = "light" | "dark" | "auto";

const listeners = new Set<() => void>();

function read(key: string): string | null {
  try {
    return window.localStorage.getItem(`even-coil.${key}`);
  } catch {
    return null;
  }
}

function write(key: string, value: string): void {
  try {
    window.localStorage.setItem(`even-coil.${key}`, value);
  } catch {
    // private windows may forbid it: the setting then lasts as long as the page
  }
  memory.set(key, value);
  apply();
  for (const listener of listeners) listener();
}

const memory = new Map<string, string>();
const narrow = () => window.matchMedia("(max-width: 760px), (pointer: coarse)").matches;
const prefersDark = () => window.matchMedia("(prefers-color-scheme: dark)").matches;

function seatNow(): Seat {
  const kept = memory.get("seat") ?? read("seat");
  if (kept === "desk" || kept === "panel") return kept;
  return narrow() ? "panel" : "desk";
}

function lampNow(): Lamp {
  const kept = memory.get("lamp") ?? read("lamp");
  return kept === "light" || kept === "dark" ? kept : "auto";
}

function keysNow(): "on" | "off" {
  return (memory.get("keys") ?? read("keys")) === "off" ? "off" : "on";
}

/** Put seat and lamp on the page; called before the first drawing. */
export function apply(): void {
  const root = document.documentElement;
  const lamp = lampNow();
  root.dataset.seat = seatNow();
  root.dataset.lamp = lamp === "auto" ? (prefersDark() ? "dark" : "light") : lamp;
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  const media = [
    window.matchMedia("(max-width: 760px), (pointer: coarse)"),
    window.matchMedia("(prefers-color-scheme: dark)"),
  ];
  const changed = () => {
    apply();
    listener();
  };
  for (const query of media) query.addEventListener("change", changed);
  return () => {
    listeners.delete(listener);
    for (const query of media) query.removeEventListener("change", changed);
  };
}

export function useDevice() {
  const seat = useSyncExternalStore(subscribe, seatNow);
  const lamp = useSyncExternalStore(subscribe, lampNow);
  const keys = useSyncExternalStore(subscribe, keysNow);
  return {
    seat,
    lamp,
    areKeysOn: keys === "on",
    onSeatChange: useCallback((next: Seat) => write("seat", next), []),
    onLampChange: useCallback((next: Lamp) => write("lamp", next), []),
    onKeysChange: useCallback((isOn: boolean) => write("keys", isOn ? "on" : "off"), []),
  };
}

/** True while the page is too narrow for a margin beside the work. */
export function useIsNarrow(): boolean {
  const query = "(max-width: 1023px)";
  const [isNarrow, setNarrow] = useState(() => window.matchMedia(query).matches);
  useEffect(() => {
    const media = window.matchMedia(query);
    const changed = () => setNarrow(media.matches);
    media.addEventListener("change", changed);
    return () => media.removeEventListener("change", changed);
  }, []);
  return isNarrow;
}
