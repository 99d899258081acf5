import type { Schemas } from "../../api/client";
import { ProblemSlab } from "../../components/shapes";
import { leadsWords } from "../../words/leads";
import type { Joint } from "./joints";
import { shown } from "./WindingPicture";

type Box = Schemas["BoxOut"];

const [PITCH, TOP, LEFT] = [120, 60, 90];

export interface BoardPictureProps {
  box: Box;
  joints: readonly Joint[];
  armed: string | null;
  onTap: (end: string) => void;
}

/** The stud board from the front: studs, bars between neighbours, jumpers, incoming lines. */
export function BoardPicture({ box, joints, armed, onTap }: BoardPictureProps) {
  if (box.board_refusal) return <ProblemSlab problem={box.board_refusal} />;
  const board = box.board;
  if (!board) return null;
  const at: Record<string, { x: number; y: number }> = {};
  board.rows.forEach((row, line) => {
    row.forEach((lead, column) => {
      at[lead] = { x: LEFT + column * PITCH, y: TOP + line * 100 };
    });
  });
  const columns = Math.max(...board.rows.map((row) => row.length));
  const lineOf = (lead: string) => joints.find((joint) => joint.leads?.[0] === lead)?.line;
  const [width, height] = [
    LEFT * 2 + (columns - 1) * PITCH,
    TOP * 2 + board.rows.length * 100 - 60,
  ];
  return (
    <figure className="m-0 border-2 border-ink bg-sheet" data-testid="board">
      <svg
        viewBox={`0 0 ${width} ${height}`}
        className="mx-auto block max-h-[44vh] w-full"
        role="group"
        aria-label={leadsWords.studBoard}
      >
        {board.bars.map((bar) => {
          const [from, to] = [at[bar.start], at[bar.end]];
          if (!from || !to) return null;
          const lift = bar.level * 7;
          return bar.is_jumper ? (
            <path
              key={`${bar.start} ${bar.end}`}
              d={`M${from.x} ${from.y}Q${(from.x + to.x) / 2 + 50} ${(from.y + to.y) / 2 - 30} ${to.x} ${to.y}`}
              fill="none"
              stroke="var(--plum)"
              strokeWidth="5"
              strokeDasharray="9 6"
            />
          ) : (
            <line
              key={`${bar.start} ${bar.end}`}
              x1={from.x + lift}
              y1={from.y + lift}
              x2={to.x + lift}
              y2={to.y + lift}
              stroke="var(--plum)"
              strokeWidth="18"
              strokeLinecap="round"
              opacity={0.85 - bar.level * 0.25}
            />
          );
        })}
        {Object.entries(at).map(([lead, { x, y }]) => {
          const line = lineOf(lead);
          return (
            <g
              key={lead}
              role="button"
              tabIndex={0}
              aria-pressed={armed === lead}
              aria-label={leadsWords.stud(
                shown(box.marks[lead] ?? lead),
                line ? leadsWords.landsHere(shown(line)) : "",
              )}
              className="cursor-pointer"
              onClick={() => onTap(lead)}
              onKeyDown={(event) => {
                if (event.key === "Enter" || event.key === " ") {
                  event.preventDefault();
                  onTap(lead);
                }
              }}
            >
              <circle
                cx={x}
                cy={y}
                r="21"
                fill={armed === lead ? "var(--plum)" : "var(--sheet)"}
                stroke="var(--ink)"
                strokeWidth="2.5"
              />
              <polygon
                points={[0, 1, 2, 3, 4, 5]
                  .map((side) => {
                    const turn = (Math.PI / 3) * side;
                    return `${x + 14 * Math.cos(turn)},${y + 14 * Math.sin(turn)}`;
                  })
                  .join(" ")}
                fill="none"
                stroke={armed === lead ? "var(--on-plum)" : "var(--edge)"}
                strokeWidth="1.5"
              />
              <text
                x={x}
                y={y + 5}
                textAnchor="middle"
                fill={armed === lead ? "var(--on-plum)" : "var(--ink)"}
                className="font-mono text-[15px] font-semibold"
              >
                {shown(box.marks[lead] ?? lead)}
              </text>
              {line && (
                <text
                  x={x}
                  y={y + 42}
                  textAnchor="middle"
                  className="fill-ink font-mono text-[15px] font-semibold"
                >
                  ↑ {shown(line)}
                </text>
              )}
            </g>
          );
        })}
      </svg>
      <figcaption className="space-y-1 border-t border-hair px-4 py-2 text-sm">
        <ul className="flex flex-wrap gap-x-5">
          {board.parts.map((part) => (
            <li key={part.name} className={part.left < 0 ? "font-semibold text-caution" : ""}>
              {leadsWords.used(part.name, part.used, part.had)}{" "}
              {part.left < 0 ? leadsWords.missing(-part.left) : leadsWords.leftOver(part.left)}
            </li>
          ))}
        </ul>
        <details>
          <summary className="ask">{leadsWords.hardwareEachStud}</summary>
          <ul className="grid gap-x-6 sm:grid-cols-2" data-testid="stacks">
            {board.stacks.map((stack) => (
              <li key={stack.lead} className="flex items-end gap-3 py-1">
                <StudStack layers={stack.layers} />
                <span>
                  <b className="font-mono">{shown(box.marks[stack.lead] ?? stack.lead)}</b>:{" "}
                  {stack.layers.map((layer) => layer.text).join(" · ")}
                </span>
              </li>
            ))}
          </ul>
        </details>
        <details>
          <summary className="ask">{leadsWords.barsByConnection}</summary>
          <ul data-testid="bars-by-connection">
            {board.by_connection.map((laid) => (
              <li key={laid.name}>
                <b>{laid.name}</b>{" "}
                {laid.bars.length > 0 ? leadsWords.barsOn(laid.bars.join(", ")) : leadsWords.noBar}
                {laid.jumpers.length > 0 && ` ${leadsWords.jumpersOn(laid.jumpers.join(", "))}`}
                {laid.stacked.length > 0 && ` ${leadsWords.stackedOn(laid.stacked.join(", "))}`}
              </li>
            ))}
          </ul>
        </details>
        <p className="text-soft">{leadsWords.thinNutOnly}</p>
      </figcaption>
    </figure>
  );
}

/** How wide each part lies on a stud; nuts are six-sided, lugs and bars reach out. */
const WIDE: Record<string, number> = { insulator: 46, nut: 30, washer: 34 };

/** A stud from the side, its parts in the order they lie, from the board up. */
function StudStack({ layers }: { layers: readonly Schemas["LayerOut"][] }) {
  const high = layers.length * 9 + 14;
  return (
    <svg viewBox={`0 0 70 ${high}`} className="h-16 w-16 shrink-0" aria-hidden="true">
      <line x1="35" y1="2" x2="35" y2={high - 3} stroke="var(--edge)" strokeWidth="6" />
      <line x1="2" y1={high - 2} x2="68" y2={high - 2} stroke="var(--ink)" strokeWidth="3" />
      {layers.map((layer, place) => {
        const wide = WIDE[layer.text.split(",")[0] ?? ""] ?? 58;
        return (
          <rect
            // biome-ignore lint/suspicious/noArrayIndexKey: the same part may lie twice
            key={place}
            x={35 - wide / 2}
            y={high - 4 - (place + 1) * 9}
            width={wide}
            height="8"
            rx={layer.text.startsWith("nut") ? 2 : 1}
            fill={layer.carries ? "var(--plum)" : "var(--sheet)"}
            stroke="var(--ink)"
            strokeWidth="1.5"
          />
        );
      })}
    </svg>
  );
}
