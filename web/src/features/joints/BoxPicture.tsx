import type { Schemas } from "../../api/client";
import { jointsWords } from "../../words/joints";
import { inPlantNames } from "../../words/names";
import { JointSketch } from "./JointSketch";

type Plan = Schemas["JointsPlanOut"];
type JointPlan = Plan["joints"][number];

export interface BoxPictureProps {
  plan: Plan;
  /** What was measured, in cubic inches; the box is drawn as a cube of that volume. */
  volumeIn3: number | null;
  here: string;
  onPick: (id: string) => void;
}

const TO_STARTER = /^to starter /;

/** Leads by their number; an arrow where a conductor leads on to the starter. */
const nameOf = (joint: JointPlan) => {
  const leads = joint.ends.filter((end) => !TO_STARTER.test(end));
  const name = leads.map((end) => inPlantNames(end).replace(/^T(?=\d)/, "")).join("-");
  return leads.length < joint.ends.length ? `${name} →` : name;
};

const [WIDTH, HEIGHT, PAD] = [560, 250, 14];

/**
 * The housing from the front, joints to the same scale: by volume, since nobody
 * measured their shape. A joint that does not fit sticks out below the cover line.
 */
export function BoxPicture({ plan, volumeIn3, here, onPick }: BoxPictureProps) {
  const volume = volumeIn3 ?? plan.bulk_in3 / 0.6;
  const area = (WIDTH - 2 * PAD) * (HEIGHT - 2 * PAD);
  // a joint's share of the picture is its share of the volume
  const per = area / volume;
  const columns = Math.ceil(Math.sqrt(plan.joints.length * (WIDTH / HEIGHT)));
  const cell = (WIDTH - 2 * PAD) / columns;
  const deepest = (plan.bulk_in3 / volume) * (HEIGHT - 2 * PAD);
  const rows = Math.ceil(plan.joints.length / columns);
  const high = Math.max(deepest / rows, 10);
  return (
    <figure className="m-0 border-2 border-ink bg-sheet" data-testid="housing">
      <svg
        viewBox={`0 0 ${WIDTH} ${Math.max(HEIGHT, deepest + 2 * PAD) + 34}`}
        className="mx-auto block max-h-[40vh] w-full"
        role="group"
        aria-label={jointsWords.terminalHousingJoints}
      >
        <rect
          x="4"
          y="4"
          width={WIDTH - 8}
          height={HEIGHT - 8}
          fill="var(--sunk)"
          stroke="var(--ink)"
          strokeWidth="4"
          strokeDasharray={volumeIn3 === null ? "10 7" : undefined}
        />
        <circle
          cx={WIDTH - 26}
          cy={HEIGHT - 26}
          r="8"
          fill="none"
          stroke="var(--ink)"
          strokeWidth="2"
        />
        <path
          d={`M${WIDTH - 34} ${HEIGHT - 26}h16M${WIDTH - 31} ${HEIGHT - 22}h10M${WIDTH - 28} ${HEIGHT - 18}h4`}
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
        {plan.joints.map((joint, place) => {
          const [column, row] = [place % columns, Math.floor(place / columns)];
          const share = (joint.bulk_in3 * per) / high;
          const wide = Math.min(share, cell - 4);
          const x = PAD + column * cell;
          const y = PAD + row * (high + 4);
          return (
            <g
              key={joint.id}
              role="button"
              tabIndex={0}
              aria-pressed={here === joint.id}
              aria-label={jointsWords.joint(
                nameOf(joint),
                joint.is_recorded ? jointsWords.recorded2 : jointsWords.notRecorded,
              )}
              className="cursor-pointer"
              onClick={() => onPick(joint.id)}
              onKeyDown={(event) => {
                if (event.key === "Enter" || event.key === " ") {
                  event.preventDefault();
                  onPick(joint.id);
                }
              }}
            >
              <rect
                x={x}
                y={y}
                width={wide}
                height={high}
                rx="8"
                fill={here === joint.id ? "var(--plum)" : "var(--sheet)"}
                stroke={joint.is_recorded ? "var(--proven)" : "var(--ink)"}
                strokeWidth={joint.is_recorded ? 4 : 2}
              />
              <JointSketch
                joint={joint}
                x={x + wide / 2}
                y={y + (high - 18) / 2}
                across={wide - 6}
                high={high - 22}
                ink={here === joint.id ? "var(--on-plum)" : "var(--edge)"}
              />
              <text
                x={x + wide / 2}
                y={y + high - 7}
                textAnchor="middle"
                fill={here === joint.id ? "var(--on-plum)" : "var(--ink)"}
                className="font-mono text-[16px] font-semibold"
              >
                {nameOf(joint)}
              </text>
            </g>
          );
        })}
        <text x="8" y={Math.max(HEIGHT, deepest + 2 * PAD) + 22} className="fill-soft text-[14px]">
          {volumeIn3 === null
            ? "not measured: drawn as if the joints filled 60 %"
            : jointsWords.measuredJointsEstimate(volumeIn3, plan.bulk_in3)}
        </text>
      </svg>
    </figure>
  );
}

/** What goes on a joint, in order, with the tape as layers to count. */
export function Stack({ joint }: { joint: JointPlan }) {
  const layers = [
    ...Array.from({ length: joint.rubber }, () => "rubber"),
    ...Array.from({ length: joint.vinyl }, () => "vinyl"),
  ];
  return (
    <div className="flex flex-wrap items-start gap-4" data-testid="stack">
      <ol className="min-w-0 flex-1 list-decimal space-y-0.5 pl-5">
        {joint.parts.map((part) => (
          <li key={part}>{part}</li>
        ))}
      </ol>
      {layers.length > 0 && (
        <svg
          viewBox="0 0 150 120"
          className="w-36 shrink-0"
          role="img"
          aria-label={jointsWords.tapeRubberThen(joint.rubber, joint.vinyl)}
        >
          <rect x="20" y="48" width="110" height="24" fill="var(--edge)" />
          {layers.map((layer, place) => (
            <rect
              // biome-ignore lint/suspicious/noArrayIndexKey: layers have no other name
              key={place}
              x={20 - place * 2}
              y={42 - place * 8}
              width={110 + place * 4}
              height={36 + place * 16}
              rx={6 + place * 2}
              fill="none"
              stroke={layer === "rubber" ? "var(--ink)" : "var(--plum)"}
              strokeWidth={layer === "rubber" ? 5 : 2.5}
            />
          ))}
        </svg>
      )}
    </div>
  );
}
