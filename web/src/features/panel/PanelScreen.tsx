import { Link, useSearchParams } from "react-router";
import { Coming } from "../../components/Edges";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { ProblemSlab, Stop } from "../../components/shapes";
import { useSession } from "../../state/session";
import { panelWords as w } from "../../words/panel";
import { Book } from "./Book";
import { Coils } from "./Coils";
import { Disconnect } from "./Disconnect";
import { Energize } from "./Energize";
import { Land } from "./Land";
import { Locks } from "./Locks";
import { Prove } from "./Prove";
import { Readings } from "./Readings";
import { Sign } from "./Sign";
import { Trips } from "./Trips";
import { Typed } from "./Typed";
import { type Made, type Panel, usePanel } from "./usePanel";

const GRAVE = ["still_live", "contested"];
const PARTS = ["lock", "disconnect", "land", "read", "energize", "trips", "sign"] as const;
type Part = (typeof PARTS)[number];

/** What comes next, as the panel stands: what is dangerous before what is late. */
function nextOf(panel: Panel): Part {
  const isOpen = (kind: string) => panel.open.some((one) => one.startsWith(`${kind}:`));
  const isEnergized = panel.stages.some((one) => one.is_open);
  if (isEnergized) return "energize";
  if (GRAVE.includes(panel.state)) return "lock";
  if (isOpen("trip")) return "trips";
  if (panel.is_fit || panel.signature !== "none") return "sign";
  if (["wire", "torque", "check"].some(isOpen)) return isIn(panel) ? "land" : "lock";
  if (["row", "item"].some(isOpen)) return isIn(panel) ? "read" : "lock";
  return isOpen("question") && !isOpen("stage") ? "sign" : "energize";
}

const isIn = (panel: Panel) => panel.hands.includes(panel.me);

/** May my hands go in, may power come, and what is next? */
export function PanelScreen() {
  const { place, state } = useRoom();
  const session = useSession();
  const who = session.data?.username ?? undefined;
  const { panel, problem, held, act, send, drop, online, sign, refusal, others, isOld } = usePanel(
    place,
    who,
  );
  const [asked, setAsked] = useSearchParams();
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  const onAct = (made: Made) => void act(made);
  const unsent = held.filter((one) => !one.refused).map((one) => one.act);
  const sent = (name: string) =>
    new Set(
      unsent
        .filter((one) => !["color_seen", "photo"].includes(one.kind))
        .map((one) => String(one.about?.[name] ?? ""))
        .filter(Boolean),
    );
  const stage = panel?.stages.find((one) => panel.state === `energized:${one.id}`);
  const named = stage ? w.energized(stage.said) : (w.states[panel?.state ?? ""] ?? "");
  const chosen = PARTS.find((one) => one === asked.get("do"));
  const part = chosen ?? (panel ? nextOf(panel) : "lock");
  return (
    <JobFrame
      place={place}
      step="panel"
      state={state}
      keys={PARTS.map((one, at) => ({
        press: `${at + 1}`,
        does: w.parts[one],
        run: () => setAsked({ do: one }, { replace: true }),
      }))}
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
      {refusal && <ProblemSlab problem={refusal} />}
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
          {isOld && <Stop strength="hold" title={w.asKnown} />}
          {others.length > 0 && <Stop strength="hold" title={w.othersWait(others.length)} />}
          {panel.told.map((text) => (
            <Stop key={text} strength="hold" title={text} />
          ))}
          <p className="text-lg" data-testid="hands">
            {panel.hands.length > 0 ? w.handsOf(panel.hands_said.join(", ")) : w.noHands}
          </p>
          <nav aria-label={w.partsHere} className="flex flex-wrap gap-1.5" data-testid="parts">
            {PARTS.map((one) => (
              <button
                key={one}
                type="button"
                className="control px-3"
                aria-current={one === part ? "step" : undefined}
                aria-pressed={one === part}
                onClick={() => setAsked({ do: one }, { replace: true })}
              >
                {w.parts[one]}
              </button>
            ))}
          </nav>
          {part === "lock" && (
            <>
              <Locks panel={panel} base={base} onAct={onAct} onOnline={online} />
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
            </>
          )}
          {part === "disconnect" && (
            <Disconnect panel={panel} held={held} base={base} onAct={onAct} />
          )}
          {["land", "read"].includes(part) && !isIn(panel) && (
            <p className="font-semibold text-live">{w.handsFirst}</p>
          )}
          {part === "land" && isIn(panel) && (
            <Land panel={panel} sent={sent("wire")} onAct={onAct} />
          )}
          {part === "read" && isIn(panel) && (
            <>
              <Readings panel={panel} sent={sent("row")} onAct={onAct} />
              <Coils panel={panel} onAct={onAct} />
            </>
          )}
          {part === "energize" && <Energize panel={panel} held={held} onAct={onAct} />}
          {part === "trips" && <Trips panel={panel} onAct={onAct} />}
          {part === "sign" && (
            <Sign place={place} panel={panel} onAct={onAct} onOnline={online} onSign={sign} />
          )}
        </div>
      )}
    </JobFrame>
  );
}
