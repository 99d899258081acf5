import { type PointerEvent, useEffect, useRef } from "react";
import { rehearseWords } from "../../words/rehearse";
import type { Hand } from "./hands";
import type { Rehearsal } from "./useRehearsal";

/** An answer takes a tenth of this; a move that nothing answers is forgotten after it. */
const ANSWER_MS = 2000;

export interface HandsProps {
  hands: readonly Hand[];
  /** How each device stands; null until the first answer has come. */
  words: Readonly<Record<string, string>> | null;
  rehearsal: Rehearsal;
}

/** Real buttons: held by key, pointer and any number of fingers; lost focus lets go of all. */
export function Hands({ hands, words, rehearsal }: HandsProps) {
  const held = useRef(new Map<string, string>());
  /** Where a hand has just put a device, for which no answer has come: the next move goes on there. */
  const put = useRef(new Map<string, { from: string; to: string; till: number }>());
  /** Moves made before the first answer: done in their order once it has come. */
  const waiting = useRef<Hand[]>([]);
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
  const now = useRef({ press, letGo, hands });
  now.current = { press, letGo, hands };

  const once = (hand: Hand) => {
    const { id, verbs, positions } = hand.device;
    if (hand.kind === "reset") return act("reset", id);
    if (!words) {
      // where it stands is not known yet, so neither is where this move puts it
      waiting.current.push(hand);
      return;
    }
    const from = words[id] ?? "";
    const last = put.current.get(id);
    const word = last?.from === from && performance.now() < last.till ? last.to : from;
    const move = (to: string, verb: string, how?: string) => {
      put.current.set(id, { from, to, till: performance.now() + ANSWER_MS });
      act(verb, id, how);
    };
    if (hand.kind === "latch") {
      if (word === "in") move("out", "twist");
      else move("in", "press");
    } else if (hand.kind === "pilot") {
      if (word === "on") move("off", "off");
      else move("on", "on");
    } else if (hand.kind === "switch") {
      if (word === "tripped") act("reset", id);
      else if (word === "on" || word === "blown") move("off", "open");
      else move("on", "close");
    } else if (hand.kind === "selector" && verbs.includes("turn")) {
      const next = positions[(positions.indexOf(word) + 1) % positions.length] ?? "";
      move(next, "turn", next);
    }
  };
  const doOnce = useRef(once);
  doOnce.current = once;
  useEffect(() => {
    for (const [id, { from }] of put.current) if (words?.[id] !== from) put.current.delete(id);
    if (words) for (const hand of waiting.current.splice(0)) doOnce.current(hand);
  }, [words]);

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
      aria-label={rehearseWords.operators}
    >
      {hands.map((hand) => {
        const word = words?.[hand.device.id] ?? "";
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
