import { useMemo, useState } from "react";
import { numbersOf } from "../../diagram/numbers";
import type { Circuit } from "../../diagram/useCircuit";
import type { Check } from "./Checks";
import type { Match } from "./matches";
import type { Drawn } from "./verdict";

/** What is picked out in every view: a wire, a device, what a check is about. */
export function useSelection(
  circuit: Circuit | undefined,
  onSheet: (sheet: "ladder" | "power") => void,
) {
  const [picked, pickNet] = useState<string | null>(null);
  // a wire that an edit took away is no longer picked
  const net = circuit?.nets.some((one) => one.id === picked) ? picked : null;
  const [check, setCheck] = useState<Check | null>(null);
  const [device, setDevice] = useState<string | null>(null);
  const lit = useMemo(
    () => (check ? new Set(check.devices) : device ? new Set([device]) : undefined),
    [check, device],
  );
  const setNet = (next: string | null) => {
    setCheck(null);
    setDevice(null);
    pickNet(next);
  };
  /** Turn to the drawing that shows it: power if none of it stands in the ladder. */
  const turnTo = (about: { devices: readonly string[]; nets: readonly string[] }) => {
    pickNet(about.nets[0] ?? null);
    const inLadder = circuit?.ladder.shapes.some(
      (shape) => about.devices.includes(shape.device ?? "") || about.nets.includes(shape.net ?? ""),
    );
    onSheet(inLadder ? "ladder" : "power");
  };
  return {
    net,
    check,
    lit,
    setNet,
    pick: (match: Match) => {
      setNet(match.kind === "wire" ? match.net : null);
      if (match.kind === "device") setDevice(match.device);
    },
    light: (next: Check) => {
      setCheck(next);
      turnTo(next);
    },
    showProblem: (problem: Drawn) => {
      setCheck(null);
      setDevice(problem.devices[0] ?? null);
      turnTo(problem);
    },
    step: (by: number) => {
      const nets = Object.keys(numbersOf(circuit));
      if (nets.length === 0) return;
      const at = net === null ? (by > 0 ? -1 : 0) : nets.indexOf(net);
      setNet(nets[(at + by + nets.length) % nets.length] ?? null);
    },
  };
}
