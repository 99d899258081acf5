import { useState } from "react";
import type { Circuit } from "../../diagram/useCircuit";
import { rehearseWords as w } from "../../words/rehearse";
import type { Frame } from "./timeline";

export interface DrivesProps {
  circuit: Circuit;
  frame: Frame | null;
  words: Readonly<Record<string, string>> | null;
  onDial: (drive: string, hz: string) => void;
}

/** Each drive as its keypad shows it, with the speed to dial. */
export function Drives({ circuit, frame, words, onDial }: DrivesProps) {
  const drives = circuit.devices.filter((device) => device.type === "drive");
  return drives.map((drive) => {
    const at = frame?.drives[drive.id];
    if (!at) return null;
    const word = words?.[drive.id] ?? "off";
    return (
      <section
        key={drive.id}
        aria-label={`${w.drive} ${drive.tag}`}
        className="metal space-y-2 px-4 py-3"
        data-testid="drive"
      >
        <p className="flex items-baseline justify-between gap-2">
          <b className="font-mono">{drive.tag}</b>
          <b className={`stamp ${word === "fault" ? "text-live" : ""}`}>{w.driveStates[word]}</b>
        </p>
        <p className="font-mono text-sm">
          {w.gives(at.hz.toFixed(1), at.out.toFixed(0), at.a.toFixed(1))}
        </p>
        <p className="text-sm">
          {w.bus(at.bus.toFixed(0))} · {w.driveHeat(at.heat.toFixed(0))}
        </p>
        {at.fault && <p className="text-sm text-live">{w.driveFaults[at.fault] ?? at.fault}</p>}
        {word === "off" && at.bus_live && (
          <p className="text-sm font-semibold text-caution">{w.busLive}</p>
        )}
        <Dial key={at.set_hz} hz={at.set_hz} onDial={(hz) => onDial(drive.id, hz)} />
      </section>
    );
  });
}

/** The speed to run at: sent when the hand lets go. */
function Dial({ hz, onDial }: { hz: number; onDial: (hz: string) => void }) {
  const [held, setHeld] = useState(hz);
  const send = () => {
    if (held !== hz) onDial(String(held));
  };
  return (
    <label className="block text-sm">
      {w.setHz} <b className="font-mono">{held}</b>
      <input
        type="range"
        min={0}
        max={120}
        step={1}
        value={held}
        className="block h-11 w-full accent-ink"
        onChange={(event) => setHeld(Number(event.target.value))}
        onPointerUp={send}
        onKeyUp={send}
        onBlur={send}
      />
    </label>
  );
}
