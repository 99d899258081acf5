import { useId, useState } from "react";
import { runUpWords as w } from "../../words/runUp";
import { marksOf, pathOf, readAt } from "./plot";
import type { RunUp, Way } from "./useRunUp";

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP, RIGHT] = [560, 330, 54, 34, 14, 12];

/** Torque of each step over that of the load: where it accelerates, the room between is tinted. */
export function TorquePlot({ way, load }: { way: Way; load: NonNullable<RunUp["load"]> }) {
  const slider = useId();
  const top = load.speed_rpm.at(-1) ?? 1800;
  const highest = Math.max(
    ...way.curves.flatMap((curve) => curve.torque_lb_ft),
    ...load.torque_lb_ft,
    1,
  );
  const lowest = Math.min(0, ...load.torque_lb_ft);
  const [speed, setSpeed] = useState(0);
  const x = (rpm: number) => LEFT + (rpm / top) * (WIDTH - LEFT - RIGHT);
  const y = (torque: number) =>
    TOP + (1 - (torque - lowest) / (highest * 1.08 - lowest)) * (HEIGHT - TOP - BOTTOM);
  const last = way.curves.at(-1);
  const first = way.curves[0];
  const tint = first
    ? `${pathOf(first.speed_rpm, first.torque_lb_ft, x, y)}${[...load.speed_rpm]
        .reverse()
        .map((rpm, place) => {
          const torque = load.torque_lb_ft[load.torque_lb_ft.length - 1 - place] ?? 0;
          const own = readAt(first.speed_rpm, first.torque_lb_ft, rpm);
          return `L${x(rpm).toFixed(1)} ${y(Math.min(torque, own)).toFixed(1)}`;
        })
        .join("")}Z`
    : "";
  return (
    <figure className="m-0 min-w-0 border-2 border-ink bg-sheet p-2" data-testid="torque-plot">
      <figcaption className="stamp px-1">
        {w.torquePlot}, {w.torqueUnit}
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="block w-full"
        role="img"
        aria-label={`${w.torquePlot}. ${way.verdict}`}
      >
        {marksOf(lowest, highest * 1.05).map((torque) => (
          <g key={torque}>
            <path d={`M${LEFT} ${y(torque)}H${WIDTH - RIGHT}`} stroke="var(--hair)" />
            <text x={LEFT - 7} y={y(torque) + 5} textAnchor="end" fontSize="14" fill="var(--ink)">
              {torque}
            </text>
          </g>
        ))}
        {marksOf(0, top).map((rpm) => (
          <g key={rpm}>
            <path d={`M${x(rpm)} ${TOP}V${HEIGHT - BOTTOM}`} stroke="var(--hair)" />
            <text
              x={x(rpm)}
              y={HEIGHT - BOTTOM + 18}
              textAnchor="middle"
              fontSize="14"
              fill="var(--ink)"
            >
              {rpm}
            </text>
          </g>
        ))}
        <path d={tint} fill="var(--proven)" opacity="0.14" />
        {way.curves.map((curve) => (
          <path
            key={curve.name}
            d={pathOf(curve.speed_rpm, curve.torque_lb_ft, x, y)}
            fill="none"
            stroke={curve === last ? "var(--ink)" : "var(--plum)"}
            strokeWidth="3"
          />
        ))}
        <path
          d={pathOf(load.speed_rpm, load.torque_lb_ft, x, y)}
          fill="none"
          stroke="var(--caution)"
          strokeWidth="2.5"
          strokeDasharray="9 5"
        />
        <path
          d={`M${x(speed)} ${TOP}V${HEIGHT - BOTTOM}`}
          stroke="var(--ink)"
          strokeDasharray="2 3"
        />
      </svg>
      <label htmlFor={slider} className="block px-1 text-sm text-soft">
        {w.atSpeed(speed.toFixed(0))}
      </label>
      <input
        id={slider}
        type="range"
        min={0}
        max={top}
        step={top / 60}
        value={speed}
        className="h-11 w-full accent-plum"
        onChange={(event) => setSpeed(Number(event.target.value))}
      />
      <ul className="flex flex-wrap gap-x-5 px-1" data-testid="torque-read">
        {way.curves.map((curve) => (
          <li key={curve.name}>
            <span aria-hidden="true" className={curve === last ? "text-ink" : "text-plum"}>
              ▬
            </span>{" "}
            {w.curves[curve.name] ?? curve.name}{" "}
            <b className="font-mono">
              {readAt(curve.speed_rpm, curve.torque_lb_ft, speed).toFixed(0)} {w.torqueUnit}
            </b>
            {" · "}
            <span className="font-mono">
              {readAt(curve.speed_rpm, curve.line_a, speed).toFixed(0)} A
            </span>
          </li>
        ))}
        <li>
          <span aria-hidden="true" className="text-caution">
            ┅
          </span>{" "}
          {w.loadCurve}{" "}
          <b className="font-mono">
            {readAt(load.speed_rpm, load.torque_lb_ft, speed).toFixed(0)} {w.torqueUnit}
          </b>
        </li>
      </ul>
    </figure>
  );
}
