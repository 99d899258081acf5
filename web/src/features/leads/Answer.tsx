import type { Schemas } from "../../api/client";
import { ProblemSlab } from "../../components/shapes";
import { leadsWords } from "../../words/leads";
import { shown } from "./WindingPicture";

type Box = Schemas["BoxOut"];
type JointRow = Schemas["JointOut"];

const SAID: Record<string, string> = {
  run: "running",
  start: "starting",
  low: leadsWords.lowSpeed,
  high: leadsWords.highSpeed,
};

/** Joints as a table: line, leads, conductors. */
export function JointTable({
  joints,
  marks,
  free,
  testId,
}: {
  joints: readonly JointRow[];
  marks: Readonly<Record<string, string>>;
  free: readonly string[];
  testId?: string;
}) {
  return (
    <table className="w-full" data-testid={testId}>
      <thead>
        <tr className="text-left text-sm text-soft">
          <th scope="col">{leadsWords.line}</th>
          <th scope="col">{leadsWords.leads}</th>
          <th scope="col">{leadsWords.conductors}</th>
        </tr>
      </thead>
      <tbody>
        {joints.map((joint) => (
          <tr key={joint.id} className="border-t border-hair font-mono">
            <td>
              {joint.to_starter
                ? leadsWords.toStarter(marks[joint.to_starter] ?? joint.to_starter)
                : joint.line
                  ? shown(joint.line)
                  : leadsWords.none}
            </td>
            <td>{joint.leads.map((lead) => marks[lead] ?? lead).join(" ")}</td>
            <td>{joint.conductors}</td>
          </tr>
        ))}
        {free.length > 0 && (
          <tr className="border-t border-hair">
            <td colSpan={3} className="text-sm">
              {leadsWords.insulatedSeparately}{" "}
              <span className="font-mono">{free.map((lead) => marks[lead] ?? lead).join(" ")}</span>
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

/** The derived answer in every state of the motor, and how counting tells it. */
export function Answer({
  box,
  isTaken,
  onTake,
}: {
  box: Box;
  isTaken: boolean;
  onTake: () => void;
}) {
  if (box.derived_refusal) {
    return (
      <>
        {box.shared.length > 0 && (
          <section aria-labelledby="shared" className="metal space-y-2 px-5 py-4">
            <h2 id="shared" className="stamp">
              {leadsWords.sameJointsEither}
            </h2>
            <JointTable joints={box.shared} marks={box.marks} free={[]} testId="shared" />
            <p className="text-sm">{leadsWords.windingTypeStill}</p>
          </section>
        )}
        <ProblemSlab problem={box.derived_refusal} />
      </>
    );
  }
  const others = box.states.filter((state) => box.is_switched || state.state !== box.asked);
  return (
    <section aria-labelledby="answer" className="metal space-y-2 px-5 py-4">
      <h2 id="answer" className="stamp">
        {box.is_switched ? leadsWords.boxForStarter : leadsWords.connectionSupply}
        {box.states.length > 1 && !box.is_switched && `, ${SAID[box.asked] ?? box.asked}`}
      </h2>
      {box.is_switched ? (
        <p className="font-semibold">{leadsWords.starterSwitchesLeads}</p>
      ) : (
        <p className="font-headline text-xl font-bold uppercase">{box.derived_name}</p>
      )}
      <JointTable joints={box.derived} marks={box.marks} free={box.derived_free} testId="answer" />
      <p className="text-sm">{box.tell}</p>
      {box.notes.map((note) => (
        <p key={note} className="text-sm text-caution">
          {note}
        </p>
      ))}
      {isTaken ? (
        <p className="font-semibold text-proven">{leadsWords.boxConnectedLike}</p>
      ) : (
        <button type="button" className="control" aria-keyshortcuts="d" onClick={onTake}>
          {leadsWords.connectBoxLike}
        </button>
      )}
      {others.map((state) => (
        <details key={state.state} className="border-t border-hair pt-1">
          <summary className="ask">
            {SAID[state.state] ?? state.state}: {state.said}
          </summary>
          <JointTable joints={state.joints} marks={box.marks} free={state.free} />
        </details>
      ))}
    </section>
  );
}

/** Which two incoming conductors change places for the other direction; no motor lead moves. */
export function Rotation({ box, pair }: { box: Box; pair: string }) {
  if (box.phases !== 3 || box.derived.length === 0) return null;
  const [one = "", other = ""] = pair.split("-");
  const on = (line: string) => box.derived.find((joint) => joint.line === line);
  const [first, second] = [on(one), on(other)];
  if (!first || !second) return null;
  const leads = (joint: JointRow) =>
    joint.leads.map((lead) => shown(box.marks[lead] ?? lead)).join("-");
  const row = (name: string, left: JointRow, right: JointRow) => (
    <tr className="border-t border-hair font-mono">
      <th scope="row" className="text-left font-words font-normal text-soft">
        {name}
      </th>
      <td>{leadsWords.on(shown(one), leads(left))}</td>
      <td>{leadsWords.on2(other, leads(right))}</td>
    </tr>
  );
  return (
    <div className="space-y-2" data-testid="rotation">
      {box.turn && (
        <div className="flex items-center gap-3">
          <ShaftEnd sense={box.turn.sense} />
          <p>{box.turn.said}</p>
        </div>
      )}
      <p>{box.rotation_note}</p>
      <table className="w-full">
        <tbody>
          {row("now", first, second)}
          {row("after", second, first)}
        </tbody>
      </table>
    </div>
  );
}

const ARC = {
  clockwise: ["M-17 17A24 24 0 1 1 17 17", "17,17 26,7 12,4"],
  back: ["", "-17,17 -26,7 -12,4"],
};

/** The shaft seen from its end, with the way it is to turn; both ways while nobody knows. */
function ShaftEnd({ sense }: { sense: NonNullable<Box["turn"]>["sense"] }) {
  const isKnown = sense !== "unknown";
  return (
    <svg
      viewBox="-34 -34 68 86"
      className="h-20 w-16 shrink-0"
      role="img"
      aria-label={leadsWords.turns(sense)}
      data-sense={sense}
    >
      <circle r="13" fill="var(--sunk)" stroke="var(--ink)" strokeWidth="2" />
      <rect x="-3" y="-15" width="6" height="7" fill="var(--ink)" />
      <path
        d={ARC.clockwise[0]}
        fill="none"
        stroke={isKnown ? "var(--ink)" : "var(--caution)"}
        strokeWidth="3"
        strokeDasharray={isKnown ? undefined : "5 4"}
      />
      {sense !== "counter-clockwise" && (
        <polygon points={ARC.clockwise[1]} fill={isKnown ? "var(--ink)" : "var(--caution)"} />
      )}
      {sense !== "clockwise" && (
        <polygon points={ARC.back[1]} fill={isKnown ? "var(--ink)" : "var(--caution)"} />
      )}
      <text y="46" textAnchor="middle" className="fill-soft text-[13px]">
        {leadsWords.shaftEnd}
      </text>
    </svg>
  );
}
