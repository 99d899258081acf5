import { type PointerEvent, useEffect, useRef } from "react";
import type { Hand } from "./hands";
import type { Rehearsal } from "./useRehearsal";

export interface HandsProps {
  hands: readonly Hand[];
  words: Readonly<Record<string, string>>;
  rehearsal: Rehearsal;
}

/** Real buttons: held by key, pointer and any number of fingers; lost focus lets go of all. */
export function Hands({ hands, words, rehearsal }: HandsProps) {
  const held = useRef(new Map<string, string>());
  const { act } = rehearsal;
  const press = (hand: Hand, by: string) => {
    if ([...held.current.values()].includes(hand.device.id)) {
      held.current.set(by, hand.device.id);
      return;
    }
    held.current.set(by, hand.device.id);
    act("press", hand.device.id);
  };
  const letGo = (by: string) => {
    const device = held.current.get(by);
    if (device === undefined) return;
    held.current.delete(by);
    if (![...held.current.values()].includes(device)) act("release", device);
  };
  const now = useRef({ press, letGo, hands, words });
  now.current = { press, letGo, hands, words };

  const once = (hand: Hand) => {
    const word = now.current.words[hand.device.id] ?? "";
    const { id, verbs, positions } = hand.device;
    if (hand.kind === "latch") act(word === "in" ? "twist" : "press", id);
    else if (hand.kind === "pilot") act(word === "on" ? "off" : "on", id);
    else if (hand.kind === "reset") act("reset", id);
    else if (hand.kind === "switch") {
      if (word === "tripped") act("reset", id);
      else act(word === "on" || word === "blown" ? "open" : "close", id);
    } else if (hand.kind === "selector" && verbs.includes("turn")) {
      const next = positions[(positions.indexOf(word) + 1) % positions.length];
      act("turn", id, next);
    }
  };
  const doOnce = useRef(once);
  doOnce.current = once;

  useEffect(() => {
    const isWriting = (target: EventTarget | null) =>
      target instanceof HTMLElement && /INPUT|TEXTAREA|SELECT/.test(target.tagName);
    const down = (event: KeyboardEvent) => {
      if (event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
      if (isWriting(event.target) || document.querySelector("[role=dialog]")) return;
      const hand = now.current.hands.find((one) => one.key === event.key.toLowerCase());
      if (!hand) return;
      event.preventDefault();
      if (hand.kind === "hold") now.current.press(hand, `key ${hand.key}`);
      else doOnce.current(hand);
    };
    const up = (event: KeyboardEvent) => now.current.letGo(`key ${event.key.toLowerCase()}`);
    const all = () => {
      for (const by of [...held.current.keys()]) now.current.letGo(by);
    };
    window.addEventListener("keydown", down);
    window.addEventListener("keyup", up);
    window.addEventListener("blur", all);
    document.addEventListener("visibilitychange", all);
    return () => {
      window.removeEventListener("keydown", down);
      window.removeEventListener("keyup", up);
      window.removeEventListener("blur", all);
      document.removeEventListener("visibilitychange", all);
    };
  }, []);

  return (
    <div
      className="grid grid-cols-2 gap-3 sm:flex sm:flex-wrap"
      role="group"
      aria-label="Buttons you can hold"
    >
      {hands.map((hand) => {
        const word = words[hand.device.id] ?? "";
        const isHeld = word === "pressed" || word === "in" || word === "on";
        const shared = {
          className: "control hand select-none touch-none",
          "aria-keyshortcuts": hand.key,
          "data-hand": hand.device.id,
          "data-word": word,
          "aria-pressed": isHeld,
        };
        const said = (
          <>
            <span>{hand.label}</span>
            {word && hand.kind !== "hold" && <span className="font-mono text-sm">{word}</span>}
            {hand.key && (
              <kbd className="font-mono text-sm opacity-70 pointer-coarse:hidden">{hand.key}</kbd>
            )}
          </>
        );
        if (hand.kind !== "hold") {
          return (
            <button key={hand.device.id} type="button" {...shared} onClick={() => once(hand)}>
              {said}
            </button>
          );
        }
        const grab = (event: PointerEvent<HTMLButtonElement>) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          press(hand, `pointer ${event.pointerId}`);
        };
        const free = (event: PointerEvent<HTMLButtonElement>) =>
          letGo(`pointer ${event.pointerId}`);
        return (
          <button
            key={hand.device.id}
            type="button"
            {...shared}
            onPointerDown={grab}
            onPointerUp={free}
            onPointerCancel={free}
            onLostPointerCapture={free}
            onContextMenu={(event) => event.preventDefault()}
            onKeyDown={(event) => {
              if ((event.key === " " || event.key === "Enter") && !event.repeat) {
                event.preventDefault();
                press(hand, "space");
              }
            }}
            onKeyUp={(event) => {
              if (event.key === " " || event.key === "Enter") letGo("space");
            }}
            onBlur={() => letGo("space")}
          >
            {said}
          </button>
        );
      })}
    </div>
  );
}
