import type { Schemas } from "../../api/client";
import { leadsWords } from "../../words/leads";
import { inPlantNames } from "../../words/names";
import { type Joint, jointOf } from "./joints";
import { CENTRE, coilPath, type Point } from "./layout";

type Coil = Schemas["CoilOut"];

export interface WindingPictureProps {
  box: Schemas["BoxOut"];
  joints: readonly Joint[];
  /** The end that was tapped first, waiting for the second. */
  armed: string | null;
  onTap: (end: string) => void;
}

const TICKS: Record<string, number> = { L1: 1, L2: 2, L3: 3 };

/** At standstill, and at full speed where that differs. */
function voltsOf(coil: Coil): string {
  const [still, full] = [coil.volts_v.toFixed(0), coil.running_v.toFixed(0)];
  return still === full ? still : `${still}–${full}`;
}

const COIL = {
  right: { stroke: "var(--proven)", width: 3.5, dash: undefined, word: "" },
  over: { stroke: "var(--live)", width: 6, dash: undefined, word: leadsWords.tooMuch },
  turned: { stroke: "var(--live)", width: 4, dash: "8 4", word: "turned" },
  low: { stroke: "var(--caution)", width: 3, dash: "12 4", word: leadsWords.tooLittle },
  idle: { stroke: "var(--edge)", width: 2.5, dash: "3 4", word: "idle" },
  resting: { stroke: "var(--edge)", width: 2, dash: undefined, word: "resting" },
};

/** A T number without its letter, as it stands on a lead letter; any other mark whole. */
export const shown = (mark: string) => (/^T\d+$/.test(mark) ? mark.slice(1) : inPlantNames(mark));

/** An end that is tapped: a lead's lead letter or a line. */
function End({
  name,
  point,
  mark,
  isArmed,
  joint,
  onTap,
}: {
  name: string;
  /** What stands on the lead. */
  mark: string;
  point: Point;
  isArmed: boolean;
  joint: Joint | undefined;
  onTap: (end: string) => void;
}) {
  const isLine = name.startsWith("L");
  const others = joint
    ? [...(joint.line ? [joint.line] : []), ...(joint.leads ?? [])].filter((end) => end !== name)
    : [];
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={isArmed}
      aria-label={`${isLine ? mark : leadsWords.lead(mark)}, ${others.length ? leadsWords.joined(others.map(inPlantNames).join(leadsWords.and)) : leadsWords.free}`}
      data-end={name}
      className="cursor-pointer [outline-offset:4px]"
      onClick={() => onTap(name)}
      onKeyDown={(event) => {
        if (event.key === "Enter" || event.key === " ") {
          event.preventDefault();
          onTap(name);
        }
      }}
    >
      <circle cx={point.x} cy={point.y} r="25" fill="transparent" />
      <rect
        x={point.x - 17}
        y={point.y - 13}
        width="34"
        height="26"
        rx={isLine ? 2 : 9}
        fill={isArmed ? "var(--plum)" : isLine ? "var(--ink)" : "var(--sheet)"}
        stroke={isArmed ? "var(--plum)" : "var(--ink)"}
        strokeWidth="2"
      />
      <text
        x={point.x}
        y={point.y + 6}
        textAnchor="middle"
        fill={isArmed ? "var(--on-plum)" : isLine ? "var(--ground)" : "var(--ink)"}
        className="font-mono text-[17px] font-semibold"
      >
        {mark}
      </text>
      {isLine &&
        Array.from({ length: TICKS[name] ?? 0 }, (_, tick) => (
          <line
            // biome-ignore lint/suspicious/noArrayIndexKey: ticks have no other name
            key={tick}
            x1={point.x - 14 + tick * 6}
            y1={point.y - 22}
            x2={point.x - 11 + tick * 6}
            y2={point.y - 15}
            stroke="var(--ink)"
            strokeWidth="2.5"
          />
        ))}
    </g>
  );
}

/** Winding and box in one picture: coils with their volts, leads, joints, lines. */
export function WindingPicture({ box, joints, armed, onTap }: WindingPictureProps) {
  const points: Record<string, Point> = box.points;
  const names = [...box.lines, ...box.leads];
  // two separate stars have no common middle: labels stand outside each
  const middleOf = (end: string): Point => points[end] ?? CENTRE;
  return (
    <div className="border-2 border-ink bg-sheet" data-testid="winding">
      <svg
        viewBox="20 -16 620 446"
        className="mx-auto block max-h-[54vh] w-full"
        role="group"
        aria-label={leadsWords.windingBox}
      >
        {joints.map((joint) => {
          const ends = [...(joint.line ? [joint.line] : []), ...(joint.leads ?? [])];
          const [from, ...rest] = ends
            .map((end) => points[end])
            .filter((point) => point !== undefined);
          return (
            <g
              key={joint.id}
              fill="none"
              stroke="var(--plum)"
              strokeWidth="6"
              strokeLinecap="round"
              opacity="0.85"
            >
              {from &&
                rest.map((to) => (
                  <path
                    key={`${to.x} ${to.y}`}
                    d={`M${from.x} ${from.y}Q${(from.x + to.x) / 2 + (to.y - from.y) * 0.16} ${(from.y + to.y) / 2 - (to.x - from.x) * 0.16} ${to.x} ${to.y}`}
                  />
                ))}
            </g>
          );
        })}
        {box.coils.map((coil) => {
          const [from, to] = [points[coil.start], points[coil.end]];
          if (!from || !to) return null;
          const look = COIL[coil.state];
          const middle =
            box.inner.includes(coil.end) && coil.end !== "S" ? middleOf(coil.end) : CENTRE;
          const { path, label } = coilPath(from, to, middle);
          return (
            <g key={coil.name} data-coil={coil.name} data-state={coil.state}>
              <path
                d={path}
                fill="none"
                stroke={look.stroke}
                strokeWidth={look.width}
                strokeDasharray={look.dash}
              />
              <text
                x={label.x}
                y={label.y}
                textAnchor="middle"
                className="fill-ink stroke-sheet font-mono text-[17px] font-semibold [paint-order:stroke] [stroke-width:6px]"
              >
                {voltsOf(coil)} V
              </text>
              <text
                x={label.x}
                y={label.y + 16}
                textAnchor="middle"
                className="fill-soft stroke-sheet text-[12.5px] [paint-order:stroke] [stroke-width:5px]"
              >
                {look.word || leadsWords.ofWord(coil.rated_v.toFixed(0))}
              </text>
            </g>
          );
        })}
        {box.inner.map((name) => (
          <circle key={name} cx={points[name]?.x} cy={points[name]?.y} r="6" fill="var(--ink)" />
        ))}
        {names.map((name) => {
          const point = points[name];
          return point ? (
            <End
              key={name}
              name={name}
              mark={shown(box.marks[name] ?? name)}
              point={point}
              isArmed={armed === name}
              joint={jointOf(joints, name)}
              onTap={onTap}
            />
          ) : null;
        })}
      </svg>
    </div>
  );
}
