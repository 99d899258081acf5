import type { Schemas } from "../api/client";

/** The wire number of each net id: a label, never a key. */
export function numbersOf(
  circuit: Pick<Schemas["CircuitOut"], "wires"> | undefined,
): Readonly<Record<string, string>> {
  return Object.fromEntries(circuit?.wires.map((wire) => [wire.net, wire.number]) ?? []);
}
