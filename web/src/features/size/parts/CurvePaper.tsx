import { useId, useState } from "react";
import { sizePartsWords } from "../../../words/sizeParts";
import type { Curves } from "./useCurves";

type Curve = Curves["curves"][number];

const NAMES: Record<string, string> = {
  motor: sizePartsWords.motorStart,
  overload_cold: sizePartsWords.overloadCold,
  overload_hot: sizePartsWords.overloadHot,
  device_fast: sizePartsWords.fuseBreakerMinimum,
  device_slow: sizePartsWords.fuseBreakerTotal,
  damage: sizePartsWords.conductorDamage,
};

const LOOKS: Record<string, { stroke: string; dash?: string; width: number }> = {
  motor: { stroke: "var(--ink)", width: 3.5 },
  overload_cold: { stroke: "var(--plum)", width: 3 },
  overload_hot: { stroke: "var(--plum)", dash: "7 5", width: 2 },
  device_fast: { stroke: "var(--caution)", dash: "3 4", width: 2 },
  device_slow: { stroke: "var(--caution)", width: 2.5 },
  damage: { stroke: "var(--live)", dash: "14 5", width: 2.5 },
};

const WIDTH = 760;

const HEIGHT = 470;

const LEFT = 62;

const BOTTOM = 42;

function decades(low: number, high: number): number[] {
  const found = [];
  for (let at = Math.floor(Math.log10(low)); at <= Math.ceil(Math.log10(high)); at += 1) {
    found.push(10 ** at);
  }
  return found;
}

/** The time of a line at a current, straight between its points on log paper. */
function timeAt(curve: Curve, amps: number): number | null {
  const points = curve.points;
  for (let at = 1; at < points.length; at += 1) {
    const a = points[at - 1];
    const b = points[at];
    if (!a || !b || amps < Math.min(a.amps, b.amps) || amps > Math.max(a.amps, b.amps)) continue;
    if (a.amps === b.amps) return Math.max(a.seconds, b.seconds);
    const part = Math.log(amps / a.amps) / Math.log(b.amps / a.amps);
    return Math.exp(Math.log(a.seconds) + part * (Math.log(b.seconds) - Math.log(a.seconds)));
  }
  return null;
}

const seconds = (value: number | null) =>
  value === null ? "—" : value >= 100 ? value.toFixed(0) : value.toPrecision(2);

export function Paper({ curves }: { curves: Curve[] }) {
  const sliderId = useId();
  const all = curves.flatMap((curve) => curve.points);
  const lowA = Math.min(...all.map((point) => point.amps)) * 0.8;
  const highA = Math.max(...all.map((point) => point.amps)) * 1.1;
  const [at, setAt] = useState(0.55);
  const amps = Math.exp(Math.log(lowA) + at * (Math.log(highA) - Math.log(lowA)));
  const x = (value: number) =>
    LEFT + (Math.log(value / lowA) / Math.log(highA / lowA)) * (WIDTH - LEFT - 14);
  const y = (value: number) =>
    12 + (1 - Math.log(value / 0.01) / Math.log(1000 / 0.01)) * (HEIGHT - BOTTOM - 12);
  const path = (curve: Curve) =>
    curve.points
      .map((point, place) => {
        const up = y(Math.min(1000, Math.max(0.01, point.seconds)));
        return `${place === 0 ? "M" : "L"}${x(point.amps).toFixed(1)} ${up.toFixed(1)}`;
      })
      .join("");
  return (
    <figure className="m-0 border-2 border-ink bg-sheet px-3 py-3">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="block w-full"
        role="img"
        aria-label={sizePartsWords.timeCurrentCurve}
        data-testid="time-current"
      >
        {decades(0.01, 1000).map((value) => (
          <g key={value}>
            <path d={`M${LEFT} ${y(value)}H${WIDTH - 14}`} stroke="var(--hair)" strokeWidth="1" />
            <text x={LEFT - 8} y={y(value) + 5} textAnchor="end" fontSize="15" fill="var(--ink)">
              {value >= 1 ? value : value.toString()} s
            </text>
          </g>
        ))}
        {decades(lowA, highA)
          .flatMap((ten) => [1, 2, 5].map((times) => ten * times))
          .filter((value) => value > lowA && value < highA)
          .map((value) => (
            <g key={value}>
              <path d={`M${x(value)} 12V${HEIGHT - BOTTOM}`} stroke="var(--hair)" strokeWidth="1" />
              <text
                x={x(value)}
                y={HEIGHT - BOTTOM + 19}
                textAnchor="middle"
                fontSize="15"
                fill="var(--ink)"
              >
                {value} A
              </text>
            </g>
          ))}
        {curves.map((curve) => {
          const look = LOOKS[curve.id];
          return (
            <path
              key={curve.id}
              d={path(curve)}
              fill="none"
              stroke={look?.stroke ?? "var(--ink)"}
              strokeWidth={look?.width ?? 2}
              strokeDasharray={look?.dash}
            />
          );
        })}
        <path
          d={`M${x(amps)} 12V${HEIGHT - BOTTOM}`}
          stroke="var(--ink)"
          strokeWidth="1.5"
          strokeDasharray="2 3"
        />
      </svg>
      <label htmlFor={sliderId} className="stamp block">
        {sizePartsWords.read}{" "}
        <span className="font-mono normal-case">{amps.toFixed(amps < 100 ? 1 : 0)} A</span>
      </label>
      <input
        id={sliderId}
        type="range"
        min={0}
        max={1}
        step={0.005}
        value={at}
        className="h-11 w-full accent-plum"
        onChange={(event) => setAt(Number(event.target.value))}
      />
      <table className="w-full text-left">
        <caption className="sr-only">{sizePartsWords.timeEveryCurve}</caption>
        <thead>
          <tr className="text-sm text-soft">
            <th scope="col">{sizePartsWords.curve}</th>
            <th scope="col" className="text-right">
              {sizePartsWords.seconds(amps.toFixed(amps < 100 ? 1 : 0))}
            </th>
            {[50, 100, 200, 500].map((value) => (
              <th key={value} scope="col" className="hidden text-right sm:table-cell">
                {value} A
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="font-mono">
          {curves.map((curve) => {
            const look = LOOKS[curve.id];
            return (
              <tr key={curve.id} className="border-t border-hair">
                <th scope="row" className="py-1 font-sans font-normal">
                  <svg viewBox="0 0 40 10" className="mr-2 inline h-2.5 w-10" aria-hidden="true">
                    <path
                      d="M0 5H40"
                      stroke={look?.stroke ?? "var(--ink)"}
                      strokeWidth={look?.width ?? 2}
                      strokeDasharray={look?.dash}
                    />
                  </svg>
                  {NAMES[curve.id] ?? curve.id}
                  {curve.is_typical && (
                    <span className="text-sm text-soft"> {sizePartsWords.typical}</span>
                  )}
                </th>
                <td className="text-right font-semibold">{seconds(timeAt(curve, amps))}</td>
                {[50, 100, 200, 500].map((value) => (
                  <td key={value} className="hidden text-right sm:table-cell">
                    {seconds(timeAt(curve, value))}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
      <figcaption className="mt-2 text-sm text-soft">
        {sizePartsWords.curvesMarkedTypical}
      </figcaption>
    </figure>
  );
}
