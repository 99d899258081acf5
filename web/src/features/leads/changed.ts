import type { Schemas } from "../../api/client";

type Coils = Schemas["BoxOut"]["coils"];

/** A coil whose volts the last joint changed. */
interface Change {
  coil: string;
  before: string;
  now: string;
}

const SMALL_V = 0.5;

/** Coils whose volts at standstill moved, in the order of the winding. */
export function coilsChanged(before: Coils, now: Coils): readonly Change[] {
  const old = new Map(before.map((coil) => [coil.name, coil]));
  return now.flatMap((coil) => {
    const was = old.get(coil.name);
    if (!was || Math.abs(was.volts_v - coil.volts_v) < SMALL_V) return [];
    return [{ coil: coil.name, before: was.volts_v.toFixed(0), now: coil.volts_v.toFixed(0) }];
  });
}
