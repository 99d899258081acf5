import { useState } from "react";
import type { Circuit } from "../../diagram/useCircuit";
import type { Edit } from "./edits";

/** What the next tap on a terminal does. */
export type Touch =
  | { kind: "wire"; from: string }
  | { kind: "move"; wire: string; from: string; why: string };

/** Terminals by the tag and number that people read. */
export function namesOf(
  circuit: Pick<Circuit, "devices">,
  between = ".",
): (terminal: string) => string {
  const tags = new Map(circuit.devices.map((device) => [device.id, device.tag]));
  return (terminal) => {
    const at = terminal.lastIndexOf(".");
    const owner = terminal.slice(0, at);
    return `${tags.get(owner) ?? owner}${between}${terminal.slice(at + 1)}`;
  };
}

/** What a tap leads to: the next state of the hand, and an edit if one is whole. */
export function tapped(
  touch: Touch,
  terminal: string,
): { touch: Touch | null; edit: Partial<Edit> | null } {
  if (touch.kind === "move") {
    if (terminal === touch.from) return { touch: null, edit: null };
    return {
      touch: null,
      edit: { kind: "move_end", wire: touch.wire, start: touch.from, end: terminal },
    };
  }
  if (!touch.from) return { touch: { ...touch, from: terminal }, edit: null };
  // the same terminal again lets go of it
  if (touch.from === terminal) return { touch: { ...touch, from: "" }, edit: null };
  return {
    touch: { kind: "wire", from: "" },
    edit: { kind: "add_wire", start: touch.from, end: terminal, tag: "" },
  };
}

/** Wires drawn by touching two terminals, in any view. */
export function useTouch(onEdit: (edit: Partial<Edit>, why: string) => void) {
  const [touch, setTouch] = useState<Touch | null>(null);
  const go = (from: Touch, terminal: string) => {
    const next = tapped(from, terminal);
    setTouch(next.touch);
    if (next.edit) onEdit(next.edit, from.kind === "move" ? from.why : "");
  };
  return {
    touch,
    setTouch,
    tap: (terminal: string) => touch && go(touch, terminal),
    /** A drag: of a new wire, or of the end being moved; a drag of anything else is none. */
    join: (start: string, end: string) => {
      if (touch?.kind === "wire") go({ kind: "wire", from: start }, end);
      else if (touch && start === touch.from) go(touch, end);
    },
  };
}
