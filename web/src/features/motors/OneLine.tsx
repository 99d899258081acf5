import { Link } from "react-router";
import { yardWords } from "../../words/yard";
import type { ListedMotor } from "./useMotors";

export interface OneLineProps {
  motors: readonly ListedMotor[];
  to: (motor: ListedMotor) => string;
}

/** A line of motors on their supply: which are settled, and which want something. */
export function OneLine({ motors, to }: OneLineProps) {
  const step = 118;
  const width = motors.length * step + 30;
  const supply = motors.find((motor) => motor.supply)?.supply ?? "";
  return (
    <div className="overflow-x-auto border-2 border-ink bg-sheet" data-testid="one-line">
      <svg
        viewBox={`0 0 ${width} 150`}
        className="h-[150px] w-auto min-w-[560px]"
        role="group"
        aria-label={yardWords.countedMotorsMotor(motors.length)}
      >
        <text x="14" y="20" className="fill-ink font-mono text-[13px] font-semibold">
          {supply}
        </text>
        <line x1="14" y1="32" x2={width - 14} y2="32" stroke="var(--ink)" strokeWidth="5" />
        {motors.map((motor, place) => {
          const x = 70 + place * step;
          const isOther = motor.supply !== supply;
          return (
            <Link key={motor.tag} to={to(motor)}>
              <line
                x1={x}
                y1="32"
                x2={x}
                y2="66"
                stroke="var(--ink)"
                strokeWidth="2"
                strokeDasharray={isOther ? "4 4" : undefined}
              />
              <circle
                cx={x}
                cy="86"
                r="20"
                fill={motor.wants ? "var(--sheet)" : "var(--proven)"}
                stroke={motor.wants ? "var(--ink)" : "var(--proven)"}
                strokeWidth="2"
                strokeDasharray={motor.wants ? "5 4" : undefined}
              />
              <text
                x={x}
                y="92"
                textAnchor="middle"
                className={`font-headline text-[18px] font-bold ${motor.wants ? "fill-ink" : "fill-sheet"}`}
              >
                M
              </text>
              <text
                x={x}
                y="126"
                textAnchor="middle"
                className="fill-ink font-headline text-[17px] font-bold"
              >
                {motor.tag}
              </text>
              <text x={x} y="143" textAnchor="middle" className="fill-soft text-[12px]">
                {motor.wants ? yardWords.needsAttention : yardWords.ready}
              </text>
            </Link>
          );
        })}
      </svg>
    </div>
  );
}
