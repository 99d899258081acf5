/** What a sentence may take in: a figure or a name, as the core said it. */
export type Shown = string | number;

/** A count with its noun: `1 wire`, `2 wires`. */
export function counted(count: Shown, one: string, many = `${one}s`): string {
  return `${count} ${String(count) === "1" ? one : many}`;
}
