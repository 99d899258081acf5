import { useEffect, useRef } from "react";
import type { Circuit } from "../../diagram/useCircuit";
import { rehearseWords } from "../../words/rehearse";
import { changesOf } from "./programs";
import type { Frame, Timeline } from "./timeline";

export interface TraceStripProps {
  line: Timeline;
  now: number;
  circuit: Circuit;
}

const SPAN_US = 8_000_000;
const LANE = 15;

interface Lane {
  name: string;
  read: (frame: Frame) => number | undefined;
  most: number;
}

/** A row of on and off: changes in time, each with whether it is on, and wrong. */
interface Step {
  name: string;
  changes: (line: Timeline) => readonly { t: number; isOn: boolean; isWrong: boolean }[];
}

const ON = new Set(["1", "star", "delta", "on", "dim", "over", "run"]);
const WRONG = new Set(["welded", "buzz", "chatter", "fault"]);

/** The word of a device in every full picture. */
const wordsOf =
  (id: string): Step["changes"] =>
  (line) =>
    line.frames
      .filter((frame) => frame.words !== null)
      .map((frame) => {
        const word = frame.words?.[id] ?? "0";
        return { t: frame.t, isOn: ON.has(word), isWrong: WRONG.has(word) };
      });

/** Points of a programmable relay that are wired, under its supply. */
function pointsOf(circuit: Circuit): Step[] {
  return circuit.relays.flatMap((relay) => [
    { name: rehearseWords.supplyOf(relay.tag), changes: wordsOf(relay.id) },
    ...relay.io
      .filter((one) => /^[IQ]\d/.test(one.point))
      .map((one) => ({
        name: rehearseWords.point(one.point, one.name || one.point),
        changes: (line: Timeline) =>
          changesOf(line, relay.id, one.name || one.point).map(({ t, value }) => ({
            t,
            isOn: value === "1",
            isWrong: false,
          })),
      })),
  ]);
}

/** What is drawn: speed, current and heat as curves, contactors, lamps and points as steps. */
function lanesOf(circuit: Circuit): { curves: Lane[]; steps: Step[] } {
  const motors = circuit.devices.filter((item) => item.type.startsWith("motor"));
  const curves: Lane[] = [];
  for (const motor of motors.slice(0, 3)) {
    curves.push({
      name: rehearseWords.speed(motor.tag),
      read: (frame) => frame.motors[motor.id]?.n,
      most: 100,
    });
    curves.push({
      name: rehearseWords.amps(motor.tag),
      read: (frame) => frame.motors[motor.id]?.a,
      most: 0,
    });
  }
  for (const item of circuit.devices.filter((one) => one.type === "drive")) {
    curves.push({
      name: rehearseWords.hertz(item.tag),
      read: (frame) => frame.drives[item.id]?.hz,
      most: 60,
    });
  }
  for (const item of circuit.devices.filter((one) => one.type === "olr").slice(0, 2)) {
    curves.push({
      name: rehearseWords.heat(item.tag),
      read: (frame) => frame.heats[item.id],
      most: 100,
    });
  }
  const kinds = ["contactor", "relay", "latch", "timer", "sdtimer"];
  // with a program its lamps, outputs, feedback and supply stand on one axis
  if (circuit.relays.length > 0) kinds.push("lamp");
  const steps = circuit.devices
    .filter((item) => kinds.includes(item.type))
    .map((item) => ({ name: item.tag, changes: wordsOf(item.id) }));
  return { curves, steps: [...steps, ...pointsOf(circuit)] };
}

/** The last eight seconds and what lies ahead, on one time axis. A table beside it says the same. */
export function TraceStrip({ line, now, circuit }: TraceStripProps) {
  const ref = useRef<HTMLCanvasElement>(null);
  const { curves, steps } = lanesOf(circuit);
  const height = curves.length * 46 + steps.length * LANE + 26;
  useEffect(() => {
    const canvas = ref.current;
    const pen = canvas?.getContext("2d");
    if (!canvas || !pen) return;
    const ratio = window.devicePixelRatio || 1;
    const width = canvas.clientWidth;
    canvas.width = width * ratio;
    canvas.height = height * ratio;
    pen.setTransform(ratio, 0, 0, ratio, 0, 0);
    const style = getComputedStyle(canvas);
    const color = (name: string) => style.getPropertyValue(`--${name}`).trim();
    const left = 86;
    const from = Math.max(0, now - SPAN_US * 0.75);
    const x = (t: number) => left + ((t - from) / SPAN_US) * (width - left - 8);
    pen.clearRect(0, 0, width, height);
    pen.font = rehearseWords.pxAtkinsonHyperlegible;
    pen.textBaseline = "middle";
    const seen = line.frames.filter(
      (frame) => frame.t >= from - SPAN_US && frame.t <= from + SPAN_US,
    );
    let y = 0;
    for (const lane of curves) {
      const values = seen.map((frame) => lane.read(frame) ?? 0);
      const most = Math.max(lane.most, ...values.map(Math.abs), 1);
      const least = values.some((value) => value < 0) ? -most : 0;
      const place = (value: number) => y + 40 - ((value - least) / (most - least)) * 34;
      pen.strokeStyle = color("hair");
      pen.lineWidth = 1;
      pen.beginPath();
      pen.moveTo(left, place(0));
      pen.lineTo(width - 8, place(0));
      pen.stroke();
      pen.strokeStyle = color("ink");
      pen.lineWidth = 2;
      pen.beginPath();
      for (const frame of seen) {
        const value = lane.read(frame);
        if (value === undefined) continue;
        const at = Math.max(left, x(frame.t));
        if (frame === seen[0]) pen.moveTo(at, place(value));
        else pen.lineTo(at, place(value));
      }
      pen.stroke();
      pen.fillStyle = color("ink");
      pen.fillText(lane.name, 0, y + 22);
      y += 46;
    }
    for (const step of steps) {
      pen.fillStyle = color("ink");
      pen.fillText(step.name, 0, y + LANE / 2);
      const changes = step.changes(line);
      changes.forEach(({ t, isOn, isWrong }, place) => {
        const end = changes[place + 1]?.t ?? Math.min(line.until, from + SPAN_US);
        const [x1, x2] = [Math.max(left, x(t)), Math.min(width - 8, x(end))];
        if (x2 <= x1) return;
        pen.fillStyle = isWrong ? color("live") : color("ink");
        if (isOn || isWrong) pen.fillRect(x1, y + 2, x2 - x1, LANE - 5);
        else pen.fillRect(x1, y + LANE - 4, x2 - x1, 1);
      });
      y += LANE;
    }
    pen.fillStyle = color("soft");
    for (let second = Math.ceil(from / 1e6); second * 1e6 <= from + SPAN_US; second += 1) {
      pen.fillRect(x(second * 1e6), height - 24, 1, 6);
      pen.fillText(String(second), x(second * 1e6) + 2, height - 9);
    }
    for (const hazard of line.hazards) {
      if (hazard.t < from || hazard.t > from + SPAN_US) continue;
      pen.fillStyle = color("live");
      pen.fillRect(x(hazard.t) - 1.5, 0, 3, height - 24);
    }
    pen.fillStyle = color("plum");
    pen.fillRect(x(now) - 1, 0, 2.5, height - 20);
  });
  return (
    <canvas
      ref={ref}
      className="block w-full"
      style={{ height }}
      role="img"
      aria-label={rehearseWords.speedCurrentHeat}
    />
  );
}
