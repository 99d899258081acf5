import { useMemo, useState } from "react";
import { Link } from "react-router";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { ProblemSlab, Stop } from "../../components/shapes";
import { Diagram, type Live } from "../../diagram/Diagram";
import { numbersOf } from "../../diagram/numbers";
import { useCircuit } from "../../diagram/useCircuit";
import { useIsNarrow } from "../../state/device";
import type { Key } from "../../state/keys";
import { rehearseWords } from "../../words/rehearse";
import { withEdits } from "../drawings/edits";
import { Events } from "./Events";
import { Faults } from "./Faults";
import { Hands } from "./Hands";
import { Held } from "./Held";
import { handsOf } from "./hands";
import { MustDo } from "./MustDo";
import { clock, TimeControls } from "./TimeControls";
import { TraceStrip } from "./TraceStrip";
import { between, frameAt } from "./timeline";
import { useRehearsal } from "./useRehearsal";
import { type WireFault, WireFaultsHeld } from "./WireFaults";

/** What would happen? Real buttons on the drawn circuit; nothing is live. */
export function RehearseScreen() {
  const { place, state } = useRoom();
  const isNarrow = useIsNarrow();
  const [wrong, setWrong] = useState<readonly WireFault[]>([]);
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
  const [view, setView] = useState<"ladder" | "power">("ladder");
  const [isBreaking, setBreaking] = useState(false);
  const { line, now, full, held } = rehearsal;
  const latest = frameAt(line, now);
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  const hands = handsOf(circuit?.devices ?? []);
  const culprit = held[0]?.device;
  // drawn anew only when something changed, not sixty times a second
  const numbers = useMemo(() => numbersOf(circuit), [circuit]);
  const live = useMemo<Live | undefined>(
    () =>
      full?.nets
        ? {
            nets: full.nets,
            hot: new Set(full.live ?? []),
            closed: new Set(full.closed ?? []),
            words: full.words ?? {},
            culprit,
          }
        : undefined,
    [full, culprit],
  );
  const motors = circuit?.devices.filter((device) => device.type.startsWith("motor")) ?? [];
  const hasOne = Boolean(circuit?.entry);
  const motorLine = motors
    .map((motor) => {
      const at = latest?.motors[motor.id];
      if (!at) return "";
      const speed = between(line, now, (frame) => frame.motors[motor.id]?.n);
      const name = motors.length > 1 ? `${motor.tag} ` : "";
      const amps = ["off", "coast"].includes(at.word) ? "" : ` ${at.a.toFixed(0)} A`;
      return `${name}${rehearseWords.motorStates[at.word] ?? at.word} ${Math.abs(speed).toFixed(0)} %${amps}`;
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
      margin={
        circuit &&
        hasOne && (
          <div className="space-y-4">
            <p className="bg-ink px-3 py-2 text-center font-headline text-lg font-bold text-ground uppercase">
              {rehearseWords.rehearsalSimulationOnly}
            </p>
            <div className="border-2 border-ink bg-sheet p-3">
              <TraceStrip line={line} now={now} circuit={circuit} />
            </div>
            <MustDo events={line.events.filter((event) => event.t <= now)} hands={hands} />
            <Events events={line.events} now={now} />
            <p className="text-sm text-soft">{rehearseWords.constantSetCatalogue}</p>
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
        <Link to={`${base}/drawings`} className="control">
          {rehearseWords.drawings}
        </Link>
      }
    >
      {slab}
      {rehearsal.refusal && <ProblemSlab problem={rehearsal.refusal.problem} />}
      {circuit?.refusal && <ProblemSlab problem={circuit.refusal} />}
      {circuit && hasOne && (
        <div className="space-y-4">
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
          <Hands hands={hands} words={full?.words ?? null} rehearsal={rehearsal} />
          <div className="border-2 border-ink bg-sheet p-3">
            <div className="mb-2 flex gap-2" role="group" aria-label={rehearseWords.views}>
              <button
                type="button"
                className="control"
                aria-pressed={view === "ladder"}
                onClick={() => setView("ladder")}
              >
                {rehearseWords.ladder}
              </button>
              <button
                type="button"
                className="control"
                aria-pressed={view === "power"}
                onClick={() => setView("power")}
              >
                {rehearseWords.power}
              </button>
            </div>
            <Diagram
              picture={
                view === "ladder" && circuit.ladder.shapes.length ? circuit.ladder : circuit.power
              }
              label={view === "ladder" ? rehearseWords.liveLadder : rehearseWords.livePowerDiagram}
              numbers={numbers}
              live={live}
              leastWidth={isNarrow ? 820 : 420}
            />
          </div>
          <TimeControls rehearsal={rehearsal} />
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
          isOpen={isBreaking}
          onOpenChange={setBreaking}
        />
      )}
    </JobFrame>
  );
}
