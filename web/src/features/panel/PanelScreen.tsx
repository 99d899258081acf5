import { Link } from "react-router";
import { Coming } from "../../components/Edges";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { ProblemSlab, Stop } from "../../components/shapes";
import { useSession } from "../../state/session";
import { panelWords as w } from "../../words/panel";
import { Book } from "./Book";
import { Land } from "./Land";
import { Locks } from "./Locks";
import { Prove } from "./Prove";
import { Readings } from "./Readings";
import { Typed } from "./Typed";
import { type Made, usePanel } from "./usePanel";

const GRAVE = ["still_live", "contested"];

/** May my hands go in, and what is landed and read? */
export function PanelScreen() {
  const { place, state } = useRoom();
  const session = useSession();
  const who = session.data?.username ?? undefined;
  const { panel, problem, held, act, send, drop } = usePanel(place, who);
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  const onAct = (made: Made) => void act(made);
  const unsent = held.filter((one) => !one.refused).map((one) => one.act);
  const sent = (name: string) =>
    new Set(unsent.map((one) => String(one.about?.[name] ?? "")).filter(Boolean));
  const named = panel?.state.startsWith("energized:")
    ? w.energized(panel.state.slice("energized:".length))
    : (w.states[panel?.state ?? ""] ?? "");
  const isIn = panel?.hands.includes(panel.me) ?? false;
  return (
    <JobFrame
      place={place}
      step="panel"
      state={state}
      keys={[]}
      headline={panel ? named : undefined}
      margin={
        panel && (
          <Book
            panel={panel}
            held={held}
            base={base}
            onSend={() => void send()}
            onDrop={(uid) => void drop(uid)}
          />
        )
      }
      // what to do next stands in the page itself: at the panel it is never another screen
      primary={null}
      others={
        <Link to={`${base}/check`} className="control md:w-auto!">
          {w.toCheck}
        </Link>
      }
    >
      {problem && <ProblemSlab problem={problem} />}
      {!panel && !problem && <Coming />}
      {panel && (
        <div className="space-y-6">
          {GRAVE.includes(panel.state) && <Stop strength="stop" title={named} />}
          {panel.notice && (
            <Stop strength="hold" title={panel.notice}>
              <Link className="ask" to={`${base}/check`}>
                {w.openCheck}
              </Link>
            </Stop>
          )}
          {panel.told.map((text) => (
            <Stop key={text} strength="hold" title={text} />
          ))}
          <p className="text-lg" data-testid="hands">
            {panel.hands.length > 0 ? w.handsOf(panel.hands_said.join(", ")) : w.noHands}
          </p>
          <Locks panel={panel} onAct={onAct} />
          <Typed
            label={w.sourceName}
            does={w.listIt}
            isNumber={false}
            onDone={(said) =>
              onAct({
                kind: "source_listed",
                about: { source: said },
                body: { source_kind: "back_feed", isolator: said, points: [], wait_s: "0" },
              })
            }
          />
          <Prove panel={panel} held={held} onAct={onAct} />
          {isIn && <Land panel={panel} sent={sent("wire")} onAct={onAct} />}
          {isIn && <Readings panel={panel} sent={sent("row")} onAct={onAct} />}
        </div>
      )}
    </JobFrame>
  );
}
