import type { Schemas } from "../../api/client";

export type Edit = Schemas["EditInput"];
export type Starter = Schemas["StarterInputs"];

/** An id that never comes again: time first, then chance (UUID version 7). */
export function newId(now = Date.now(), chance = crypto.getRandomValues(new Uint8Array(10))) {
  const time = now.toString(16).padStart(12, "0");
  const rest = [...chance];
  rest[0] = ((rest[0] ?? 0) % 16) | 0x70;
  rest[2] = ((rest[2] ?? 0) % 64) | 0x80;
  const hex = rest.map((byte) => byte.toString(16).padStart(2, "0")).join("");
  return `${time.slice(0, 8)}-${time.slice(8)}-${hex.slice(0, 4)}-${hex.slice(4, 8)}-${hex.slice(8)}`;
}

/** A starter with one more change; the same id twice would be the same change. */
export function withEdits(starter: Starter, edits: readonly Partial<Edit>[], why = ""): Starter {
  const known = starter.edits ?? [];
  const fresh = edits.map(
    (edit) =>
      ({ ...edit, id: edit.id && !edit.id.startsWith("fix.") ? edit.id : newId(), why }) as Edit,
  );
  return { ...starter, edits: [...known, ...fresh] };
}

/** A starter without its last change, or without one of them. */
export function withoutEdit(starter: Starter, id?: string): Starter {
  const known = starter.edits ?? [];
  return {
    ...starter,
    edits: id === undefined ? known.slice(0, -1) : known.filter((edit) => edit.id !== id),
  };
}
