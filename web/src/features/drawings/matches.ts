import type { Circuit } from "../../diagram/useCircuit";

const MOST = 8;

/** What was looked for and is there: a wire by its net, or a device. */
export type Match =
  | { kind: "wire"; net: string; label: string; ends: string }
  | { kind: "device"; device: string; label: string; ends: string };

/** Wires by number or an end, devices by tag, best first; case and spaces do not matter. */
export function matchesOf(
  circuit: Pick<Circuit, "wires" | "devices">,
  text: string,
): readonly Match[] {
  const asked = plain(text);
  if (!asked) return [];
  const wires = new Map<string, Match & { kind: "wire" }>();
  for (const wire of circuit.wires) {
    const isIt =
      plain(wire.number) === asked || plain(wire.start) === asked || plain(wire.end) === asked;
    if (isIt && !wires.has(wire.net)) {
      const ends = `${wire.start} – ${wire.end}`;
      wires.set(wire.net, { kind: "wire", net: wire.net, label: wire.number, ends });
    }
  }
  const devices = circuit.devices
    .filter((device) => plain(device.tag).startsWith(asked))
    .map(
      (device): Match => ({
        kind: "device",
        device: device.id,
        label: device.tag,
        ends: device.legend,
      }),
    );
  return [...wires.values(), ...devices].slice(0, MOST);
}

const plain = (text: string) => text.replace(/\s/g, "").toLowerCase();
