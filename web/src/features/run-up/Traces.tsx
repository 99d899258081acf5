import { useId, useState } from "react";
import { runUpWords as w } from "../../words/runUp";
import { marksOf, pathOf, readAt } from "./plot";
import type { Way } from "./useRunUp";
import { Wide } from "./Wide";

type Trace = Way["trace"];

const [WIDTH, EACH, LEFT, RIGHT, BOTTOM] = [560, 76, 54, 12, 26];
const ROWS_IN_TABLE = 24;

interface Line {
  id: keyof typeof w.traces;
  values: readonly number[];
  places: number;
  limit?: number;
}

function linesOf(trace: Trace, limitC: number): Line[] {
  const found: Line[] = [
    { id: "speed", values: trace.speed_rpm, places: 0 },
    { id: "line", values: trace.line_a, places: 0 },
    { id: "relay", values: trace.relay.map((part) => part * 100), places: 0, limit: 100 },
    { id: "hot", values: trace.hottest_c, places: 0, limit: limitC },
  ];
  if (trace.supply_percent.length > 0) {
    found.push({ id: "supply", values: trace.supply_percent, places: 1 });
  }
  return found;
}

/** Speed, current, heat and supply on one time axis, read at any time. */
export function Traces({ way, limitC }: { way: Way; limitC: number }) {
  const slider = useId();
  const { trace } = way;
  const end = trace.time_s.at(-1) || 1;
  const [part, setPart] = useState(0);
  const at = part * end;
  const lines = linesOf(trace, limitC);
  const x = (time: number) => LEFT + (time / end) * (WIDTH - LEFT - RIGHT);
  const height = lines.length * EACH + BOTTOM;
  return (
    <figure className="m-0 min-w-0 border-2 border-ink bg-sheet p-2" data-testid="traces">
      <figcaption className="stamp px-1">{w.tracePlot}</figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        className="block w-full"
        role="img"
        aria-label={`${w.tracePlot}. ${way.verdict}`}
      >
        {marksOf(0, end, 6).map((time) => (
          <g key={time}>
            <path d={`M${x(time)} 4V${height - BOTTOM}`} stroke="var(--hair)" />
            <text x={x(time)} y={height - 8} textAnchor="middle" fontSize="14" fill="var(--ink)">
              {time} s
            </text>
          </g>
        ))}
        {lines.map((line, place) => {
          const high = Math.max(...line.values, line.id === "supply" ? 100 : 1) * 1.05;
          const low = line.id === "supply" ? Math.min(...line.values, 90) - 1 : 0;
          const y = (value: number) =>
            place * EACH + 22 + (1 - (value - low) / (high - low)) * (EACH - 28);
          return (
            <g key={line.id}>
              <text x={LEFT + 4} y={place * EACH + 15} fontSize="13" fill="var(--soft)">
                {w.traces[line.id]}
              </text>
              {marksOf(low, high, 2).map((value) => (
                <g key={value}>
                  <path d={`M${LEFT} ${y(value)}H${WIDTH - RIGHT}`} stroke="var(--hair)" />
                  <text
                    x={LEFT - 7}
                    y={y(value) + 5}
                    textAnchor="end"
                    fontSize="13"
                    fill="var(--ink)"
                  >
                    {value}
                  </text>
                </g>
              ))}
              {line.limit !== undefined && line.limit <= high && (
                <path
                  d={`M${LEFT} ${y(line.limit)}H${WIDTH - RIGHT}`}
                  stroke="var(--live)"
                  strokeDasharray="9 5"
                />
              )}
              <path
                d={pathOf(trace.time_s, line.values, x, y)}
                fill="none"
                stroke="var(--ink)"
                strokeWidth="2.5"
              />
            </g>
          );
        })}
        <path d={`M${x(at)} 4V${height - BOTTOM}`} stroke="var(--ink)" strokeDasharray="2 3" />
      </svg>
      <label htmlFor={slider} className="block px-1 text-sm text-soft">
        {w.at(at.toFixed(1))}
      </label>
      <input
        id={slider}
        type="range"
        min={0}
        max={1}
        step={1 / 100}
        value={part}
        className="h-11 w-full accent-plum"
        onChange={(event) => setPart(Number(event.target.value))}
      />
      <ul className="flex flex-wrap gap-x-5 px-1" data-testid="trace-read">
        {lines.map((line) => (
          <li key={line.id}>
            <span className="text-soft">{w.traces[line.id]}</span>{" "}
            <b className="font-mono">
              {readAt(trace.time_s, line.values, at).toFixed(line.places)}
            </b>
          </li>
        ))}
      </ul>
      {trace.supply_percent.length === 0 && <p className="px-1 text-sm text-soft">{w.noSag}</p>}
      <details className="px-1">
        <summary className="ask">{w.asTable}</summary>
        <Wide name={w.tracePlot}>
          <table className="w-full text-right font-mono text-sm">
            <thead>
              <tr className="text-soft">
                <th scope="col">{w.time}</th>
                {lines.map((line) => (
                  <th scope="col" key={line.id}>
                    {w.traces[line.id]}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {Array.from({ length: ROWS_IN_TABLE + 1 }, (_, row) => {
                const time = (end * row) / ROWS_IN_TABLE;
                return (
                  <tr key={time} className="border-t border-hair">
                    <th scope="row">{time.toFixed(2)}</th>
                    {lines.map((line) => (
                      <td key={line.id}>
                        {readAt(trace.time_s, line.values, time).toFixed(line.places)}
                      </td>
                    ))}
                  </tr>
                );
              })}
            </tbody>
          </table>
        </Wide>
      </details>
    </figure>
  );
}
