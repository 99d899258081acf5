import { useEffect, useMemo, useRef, useState } from "react";
import { Link, useLocation } from "react-router";
import { Coming } from "../../components/Edges";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { ProblemSlab, Stop } from "../../components/shapes";
import { numbersOf } from "../../diagram/numbers";
import { useCircuit } from "../../diagram/useCircuit";
import { useIsNarrow } from "../../state/device";
import type { Key } from "../../state/keys";
import { words } from "../../words/common";
import { rehearseWords } from "../../words/rehearse";
import { withEdits } from "../drawings/edits";
import { Drives } from "./Drives";
import { Events } from "./Events";
import { Faults } from "./Faults";
import { Held } from "./Held";
import { handsOf } from "./hands";
import { LiveSheets } from "./LiveSheets";
import { Marks } from "./Marks";
import { MustDo } from "./MustDo";
import { addressOf, type Moment, momentOf } from "./moment";
import { OnRecord } from "./OnRecord";
import { programAt } from "./programs";
import { Station } from "./Station";
import { sentenceAt } from "./sentence";
import { clock, TimeControls } from "./TimeControls";
import { TraceStrip } from "./TraceStrip";
import { between, frameAt } from "./timeline";
import { useLive } from "./useLive";
import { useRehearsal } from "./useRehearsal";
import { type WireFault, WireFaultsHeld } from "./WireFaults";

const MOMENT = "#moment=";

/** The moment that an address asks for: none, one, or one that cannot be read. */
const askedIn = (hash: string): Moment | "bad" | null =>
  hash.startsWith(MOMENT) ? (momentOf(hash.slice(MOMENT.length)) ?? "bad") : null;

/** What would happen? Real buttons on the drawn circuit; nothing is live. */
export function RehearseScreen() {
  const { place, state } = useRoom();
  const isNarrow = useIsNarrow();
  const { hash } = useLocation();
  // the address changes when a moment is shared: the one it was opened with counts
  const [opened] = useState(() => askedIn(hash));
  const asked = useRef(opened === "bad" ? null : opened);
  const [wrong, setWrong] = useState<readonly WireFault[]>(asked.current?.wrong ?? []);
  // the job stays as it is: wrong wires are laid over a copy of it
  const played = useMemo(
    () =>
      state.given && wrong.length > 0
        ? {
            ...state.given,
            starter: withEdits(
              state.given.starter,
              wrong.map((fault) => fault.edit),
            ),
          }
        : state.given,
    [state.given, wrong],
  );
  const { data: circuit, slab } = useCircuit(place.works, played);
  const rehearsal = useRehearsal(place.works, played);
  const [marks, setMarks] = useState<readonly { at: number; said: string }[]>([]);
  const [sharing, setSharing] = useState("");
  const [isBreaking, setBreaking] = useState(false);
  const { line, now, full, held } = rehearsal;
  const latest = frameAt(line, now);
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  const hands = handsOf(circuit?.devices ?? []);
  const numbers = useMemo(() => numbersOf(circuit), [circuit]);
  const live = useLive(rehearsal);
  const motors = circuit?.devices.filter((device) => device.type.startsWith("motor")) ?? [];
  const hasOne = Boolean(circuit?.entry);
  const motorLine = motors
    .map((motor) => {
      const at = latest?.motors[motor.id];
      if (!at) return "";
      const speed = between(line, now, (frame) => frame.motors[motor.id]?.n);
      const name = motors.length > 1 ? `${motor.tag} ` : "";
      const isFed = !["off", "coast"].includes(at.word);
      const state = `${name}${rehearseWords.motorStates[at.word] ?? at.word}`;
      if (at.rpm === null) {
        const amps = isFed ? ` ${at.a.toFixed(0)} A` : "";
        return `${state} ${Math.abs(speed).toFixed(0)} %${amps}`;
      }
      const rpm = between(line, now, (frame) => frame.motors[motor.id]?.rpm ?? undefined);
      const amps = isFed ? ` · ${(at.lead ?? 0).toFixed(at.lead && at.lead < 10 ? 1 : 0)} A` : "";
      const hot = between(line, now, (frame) => frame.motors[motor.id]?.hot ?? undefined);
      return `${state} ${Math.abs(rpm).toFixed(0)} rpm${amps} · ${hot.toFixed(0)} °C`;
    })
    .filter(Boolean)
    .join(" · ");
  const headline = !hasOne
    ? undefined
    : held[0]
      ? rehearseWords.at(held[0].name, clock(held[0].t))
      : line.neverSettles
        ? rehearseWords.neverSettles
        : motorLine || rehearseWords.nothingLive;
  const happens = circuit ? sentenceAt(line.events, now, circuit) : "";
  const mark = () =>
    setMarks((known) =>
      known.some((one) => one.at === now)
        ? known
        : [...known, { at: now, said: happens }].sort((one, other) => one.at - other.at),
    );
  const share = () => {
    const address = `${MOMENT}${addressOf({ at: now, acts: rehearsal.acts, wrong })}`;
    window.history.replaceState(window.history.state, "", address);
    // without a secure context there is no clipboard at all
    const copied = navigator.clipboard?.writeText(window.location.href) ?? Promise.reject();
    copied.then(
      () => setSharing(rehearseWords.shared),
      () => setSharing(rehearseWords.notCopied),
    );
  };
  const { replay } = rehearsal;
  const isDrawn = hasOne && line.until > 0;
  useEffect(() => {
    const moment = asked.current;
    if (!isDrawn || !moment) return;
    asked.current = null;
    setMarks([{ at: moment.at, said: rehearseWords.fromLink }]);
    void replay(moment.acts, moment.at);
  }, [isDrawn, replay]);
  const keys: Key[] = [
    {
      press: "k",
      does: rehearseWords.pauseContinue,
      run: () => (rehearsal.isRunning ? rehearsal.freeze() : rehearsal.goOn()),
    },
    { press: "x", does: rehearseWords.insertFault, run: () => setBreaking(true) },
    { press: ",", does: rehearseWords.slower, run: () => rehearsal.faster(-1) },
    { press: ".", does: rehearseWords.faster, run: () => rehearsal.faster(1) },
    { press: "ArrowLeft", does: rehearseWords.rewindS, run: () => rehearsal.seek(now - 2e6) },
    { press: "ArrowRight", does: rehearseWords.nextEvent, run: () => rehearsal.step(1) },
    { press: "m", does: rehearseWords.mark, run: mark },
    { press: "z", does: rehearseWords.fromStart, run: () => rehearsal.restart() },
    ...hands.map((hand) => ({
      press: hand.key.toUpperCase() === hand.key ? "" : `hold ${hand.key}`,
      does: hand.label,
      run: () => undefined,
    })),
  ];
  return (
    <JobFrame
      place={place}
      step="rehearse"
      state={state}
      keys={keys}
      headline={headline}
      isMakeBelieve
      isWide
      margin={
        circuit &&
        hasOne && (
          <div className="grid gap-x-6 gap-y-4 lg:grid-cols-3">
            <MustDo events={line.events.filter((event) => event.t <= now)} hands={hands} />
            <Marks
              marks={marks}
              said={sharing}
              onSeek={rehearsal.seek}
              onRemove={(at) => setMarks((known) => known.filter((one) => one.at !== at))}
              onShare={share}
            />
            <div className="space-y-2">
              <OnRecord place={place} acts={rehearsal.acts} until={now} isCopy={wrong.length > 0} />
              <Events events={line.events} now={now} />
              <p className="text-sm text-soft">
                {line.said} {rehearseWords.faultsInCopy}
              </p>
            </div>
          </div>
        )
      }
      primary={
        hasOne ? (
          <button
            type="button"
            className="control md:w-auto!"
            data-primary="true"
            aria-keyshortcuts="x"
            onClick={() => setBreaking(true)}
          >
            {rehearseWords.insertFault}
          </button>
        ) : (
          <Link to={`${base}/starter`} className="control md:w-auto!" data-primary="true">
            {rehearseWords.chooseStarter}
          </Link>
        )
      }
      others={
        <>
          <Link to={`${base}/run-up`} className="control">
            {words.steps["run-up"]}
          </Link>
          <Link to={`${base}/drawings`} className="control">
            {rehearseWords.drawings}
          </Link>
          <Link to={`${base}/trouble`} className="control">
            {words.steps.trouble}
          </Link>
        </>
      }
    >
      {slab}
      {!circuit && <Coming />}
      {rehearsal.refusal && <ProblemSlab problem={rehearsal.refusal.problem} />}
      {circuit?.refusal && <ProblemSlab problem={circuit.refusal} />}
      {opened === "bad" && <p role="alert">{rehearseWords.badMoment}</p>}
      {circuit && hasOne && (
        <div className="space-y-3">
          <WireFaultsHeld faults={wrong} onMend={() => setWrong([])} />
          <Held
            hazards={held}
            base={base}
            onRewind={() => rehearsal.seek(now - 2e6)}
            onContinue={rehearsal.goOn}
          />
          {line.neverSettles && (
            <Stop strength="hold" title={rehearseWords.contactsNeverSettle}>
              <p>{rehearseWords.rehearsalWasStopped}</p>
            </Stop>
          )}
          <p className="flex flex-wrap items-baseline gap-x-4" data-testid="happens">
            <b className="bg-ink px-2 font-headline text-ground uppercase">
              {rehearseWords.rehearsalSimulationOnly}
            </b>
            <span>{happens || rehearseWords.nothingYet}</span>
            {line.mark && (
              <Link to={`${base}/run-up`} className="ask text-caution">
                {line.mark}
              </Link>
            )}
          </p>
          <div className="grid grid-cols-[minmax(0,1fr)] gap-3 lg:grid-cols-[minmax(0,1fr)_270px]">
            <LiveSheets
              circuit={circuit}
              numbers={numbers}
              live={live}
              isNarrow={isNarrow}
              shownBy={(relay) => programAt(line, now, relay)}
            />
            <div className="min-w-0 space-y-3 max-lg:order-first">
              <Drives
                circuit={circuit}
                frame={latest}
                words={full?.words ?? null}
                onDial={(drive, hz) => rehearsal.act("dial", drive, hz)}
              />
              <Station
                circuit={circuit}
                hands={hands}
                words={full?.words ?? null}
                rehearsal={rehearsal}
              />
            </div>
          </div>
          <TimeControls rehearsal={rehearsal} />
          <div className="border-2 border-ink bg-sheet p-3">
            <TraceStrip line={line} now={now} circuit={circuit} />
          </div>
          <p className="sr-only" role="status">
            {held[0] ? held[0].sentence : motorLine}
          </p>
        </div>
      )}
      {circuit && (
        <Faults
          devices={circuit.devices}
          terminals={[
            ...new Set(
              circuit.wires
                .filter((wire) => wire.way === "control")
                .flatMap((wire) => [wire.start, wire.end]),
            ),
          ].sort()}
          joints={[...new Set(circuit.wires.flatMap((wire) => [wire.start, wire.end]))].sort()}
          wires={circuit.wires}
          onWireFault={(fault) => setWrong((known) => [...known, fault])}
          rehearsal={rehearsal}
          isOwnMotor={line.isOwnMotor}
          isOpen={isBreaking}
          onOpenChange={setBreaking}
        />
      )}
    </JobFrame>
  );
}
