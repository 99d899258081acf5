import type { Schemas } from "../../api/client";

type JointPlan = Schemas["JointsPlanOut"]["joints"][number];

/** What holds the conductors together, about its own middle, 20 wide. */
const HARDWARE: Record<string, string> = {
  ring_bolt: "M9 0L4.5 7.8H-4.5L-9 0L-4.5-7.8H4.5ZM4 0A4 4 0 1 1-4 0A4 4 0 1 1 4 0",
  split_bolt: "M-10-6H3V6H-10M-10-2H3M-10 2H3M3-9H9V9H3Z",
  set_screw_tap: "M-11-8H11V8H-11ZM-7-3H-1V3H-7ZM-7 3L-1-3M1-3H7V3H1ZM1 3L7-3",
  crimp: "M-11-6H11V6H-11ZM-6-6L-3 0L-6 6M0-6L3 0L0 6M6-6L9 0L6 6",
  twist_on: "M-10-5L10-9V9L-10 5ZM4-7.5V7.5M7-8V8M1-7V7",
};

const [TAPE_HALF, BAND] = [15, 26];

export interface JointSketchProps {
  joint: JointPlan;
  /** Its middle, the way across, and the room it has from top to bottom. */
  x: number;
  y: number;
  across: number;
  high: number;
  ink: string;
}

/** One joint: its conductors as many as there are, what holds them, and tape where it is taped. */
export function JointSketch({ joint, x, y, across, high, ink }: JointSketchProps) {
  const scale = Math.min(high / (2 * BAND), across / 90);
  const half = across / 2 / scale;
  // line and starter conductors come first, as the core lists them; a twist-on takes all from one side
  const own = joint.ends.filter((end) => /^(L\d|N$|to starter )/.test(end)).length;
  const left = joint.method === "twist_on" ? joint.sizes.length : Math.max(own, 1);
  const spread = (place: number, count: number) => (place - (count - 1) / 2) * 5;
  const stubs = joint.sizes.map((_, place) => {
    const isLeft = place < left;
    const at = isLeft ? spread(place, left) : spread(place - left, joint.sizes.length - left);
    return `M${isLeft ? -half : half} ${at}H${isLeft ? -8 : 8}`;
  });
  const layers = joint.rubber + joint.vinyl;
  return (
    <g transform={`translate(${x} ${y}) scale(${scale})`} fill="none" stroke={ink}>
      <path d={stubs.join("")} strokeWidth="3" />
      <path d={HARDWARE[joint.method]} strokeWidth="1.6" fill="var(--sheet)" stroke="var(--ink)" />
      {layers > 0 && (
        <rect
          x={-TAPE_HALF - 4}
          y={-TAPE_HALF + 2}
          width={2 * TAPE_HALF + 8}
          height={2 * TAPE_HALF - 4}
          rx="6"
          strokeWidth={layers * 0.9}
          opacity="0.65"
        />
      )}
    </g>
  );
}
