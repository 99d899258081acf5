import { useMemo, useRef, useState } from "react";
import { useParams } from "react-router";
import { CircuitSelect } from "../../components/CircuitSelect";
import { Coming } from "../../components/Edges";
import { Choice } from "../../components/inputs";
import { PlantPage } from "../../components/PlantPage";
import { ProblemSlab, Stop } from "../../components/shapes";
import { numbersOf } from "../../diagram/numbers";
import { useCircuit } from "../../diagram/useCircuit";
import { usePicture } from "../../diagram/usePicture";
import { Viewer } from "../../diagram/Viewer";
import type { View } from "../../diagram/view";
import { wiringWords as w } from "../../words/wiring";
import { namesOf, tapped } from "../drawings/useTouch";
import { handsOf } from "../rehearse/hands";
import { Station } from "../rehearse/Station";
import { TimeControls } from "../rehearse/TimeControls";
import { useLive } from "../rehearse/useLive";
import { useRehearsal } from "../rehearse/useRehearsal";
import { ByName } from "./ByName";
import { MotorState } from "./MotorState";
import { type Begin, type Reading, usePanel } from "./usePanel";

type Mode = "wire" | Reading;
const MODES: readonly Mode[] = ["wire", "volts", "ohms", "amps"];

/** A circuit wired by hand, powered in simulation, read with a meter; silent until asked. */
export function WiringScreen() {
  const { works = "" } = useParams();
  const panel = usePanel(works);
  const { given, begun, asked, mine } = panel;
  const { data: drawn } = useCircuit(works, given);
  const rehearsal = useRehearsal(works, given);
  const [mode, setMode] = useState<Mode>("wire");
  const [from, setFrom] = useState("");
  const places = useRef(new Map<string, View>());
  const picture = usePicture(works, panel.circuit, "nema");
  const { full, now, acts, held } = rehearsal;
  const live = useLive(rehearsal);
  const nameOf = useMemo(() => namesOf({ devices: drawn?.devices ?? [] }), [drawn]);
  const numbers = useMemo(() => numbersOf(drawn), [drawn]);
  const hands = handsOf(drawn?.devices ?? []);
  const use = (start: string, end: string) => {
    setFrom("");
    if (mode === "wire") panel.land(start, end);
    else {
      const where = mode === "amps" ? nameOf(start) : `${nameOf(start)} – ${nameOf(end)}`;
      void panel.meter(mode, start, end, acts, now, where);
    }
  };
  const touch = (terminal: string) => {
    if (mode === "amps") return use(terminal, "");
    const next = tapped({ kind: "wire", from }, terminal);
    setFrom(next.touch?.from ?? "");
    if (next.edit) use(from, terminal);
  };
  const headline = asked
    ? asked.is_right
      ? w.right
      : w.notYet(asked.missing.length, asked.extra.length)
    : begun && w.landed(begun.circuit, begun.title, mine.length, begun.off);
  return (
    <PlantPage works={works} title={w.title} headline={headline}>
      {panel.problem && <ProblemSlab problem={panel.problem} />}
      <div className="flex flex-wrap items-end gap-4">
        <CircuitSelect
          works={works}
          label={w.circuit}
          value={panel.circuit}
          onValueChange={panel.setCircuit}
        />
        <Choice
          label={w.begin}
          value={panel.start}
          options={(["power", "bare"] as const).map((one) => ({
            value: one,
            label: w.begins[one] ?? one,
          }))}
          onValueChange={(one: Begin) => panel.setStart(one)}
        />
        <button type="button" className="control" onClick={panel.startOver}>
          {w.over}
        </button>
      </div>
      {!drawn && <Coming />}
      {drawn && (
        <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_340px]">
          <div className="min-w-0 space-y-4">
            <details>
              <summary className="ask">{w.drawing}</summary>
              {picture.data && (
                <div className="grid gap-2 lg:grid-cols-2">
                  <Viewer
                    picture={picture.data.ladder}
                    label={w.ladder}
                    name="wanted ladder"
                    places={places.current}
                    className="h-96"
                  />
                  <Viewer
                    picture={picture.data.power}
                    label={w.power}
                    name="wanted power"
                    places={places.current}
                    className="h-96"
                  />
                </div>
              )}
            </details>
            <Choice
              label={w.mode}
              value={mode}
              options={MODES.map((one) => ({ value: one, label: w.modes[one] }))}
              onValueChange={(one) => {
                setMode(one);
                setFrom("");
              }}
            />
            <p role="status">{from ? w.from(nameOf(from)) : w.first}</p>
            <div className="border-2 border-ink bg-sheet p-1">
              <Viewer
                picture={drawn.board}
                label={w.board}
                name="board"
                places={places.current}
                numbers={numbers}
                live={live}
                terminal={from}
                onTerminal={touch}
                terminalName={nameOf}
                onJoin={(start, end) => start !== end && use(start, end)}
                className="h-[max(26rem,calc(100dvh-20rem))]"
              />
            </div>
            <ByName
              terminals={drawn.board.touches.map((one) => one.terminal)}
              nameOf={nameOf}
              isSingle={mode === "amps"}
              does={mode === "wire" ? w.land : w.read}
              onDone={use}
            />
          </div>
          <div className="min-w-0 space-y-4">
            <p className="text-soft">{w.silent}</p>
            <section className="space-y-2" aria-label={w.energize}>
              <h2 className="stamp">{w.energize}</h2>
              {held[0] && (
                <Stop title={held[0].name}>
                  {held.map((one) => (
                    <p key={`${one.code} ${one.device}`}>{one.sentence}</p>
                  ))}
                  <button type="button" className="control" onClick={rehearsal.goOn}>
                    {w.goOn}
                  </button>
                </Stop>
              )}
              <MotorState circuit={drawn} rehearsal={rehearsal} />
              <Station
                circuit={drawn}
                hands={hands}
                words={full?.words ?? null}
                rehearsal={rehearsal}
              />
              <TimeControls rehearsal={rehearsal} />
            </section>
            <section className="space-y-1" aria-label={w.wires}>
              <h2 className="stamp">{w.wires}</h2>
              {mine.length === 0 && <p className="text-soft">{w.none}</p>}
              <ol className="max-h-60 overflow-y-auto" data-testid="mine">
                {mine.map((one) => (
                  <li key={one.id} className="flex items-center justify-between gap-2">
                    <span className="font-mono">
                      {nameOf(one.start)} – {nameOf(one.end)}
                    </span>
                    <button type="button" className="ask" onClick={() => panel.takeOff(one.id)}>
                      {w.off}
                    </button>
                  </li>
                ))}
              </ol>
            </section>
            {panel.read.length > 0 && (
              <section aria-label={w.readings} aria-live="polite">
                <h2 className="stamp">{w.readings}</h2>
                <ol data-testid="read">
                  {panel.read.map((one) => (
                    <li key={one.id}>
                      <span className="font-mono">{one.where}</span>{" "}
                      <b className="font-mono">{one.shown}</b>
                    </li>
                  ))}
                </ol>
              </section>
            )}
            <button
              type="button"
              className="control"
              data-primary="true"
              disabled={panel.isBusy}
              onClick={() => void panel.ask()}
            >
              {w.ask}
            </button>
            {asked && (
              <section className="space-y-2" data-testid="asked" aria-live="polite">
                <p className="font-headline text-xl font-bold">
                  {asked.is_right ? w.right : w.notYet(asked.missing.length, asked.extra.length)}
                </p>
                {(
                  [
                    [w.extra, asked.extra],
                    [w.missing, asked.missing],
                  ] as const
                ).map(
                  ([name, list]) =>
                    list.length > 0 && (
                      <div key={name}>
                        <h3 className="stamp">{name}</h3>
                        <ul className="list-disc pl-5">
                          {list.map((text) => (
                            <li key={text}>{text}</li>
                          ))}
                        </ul>
                      </div>
                    ),
                )}
                {asked.problems.length > 0 && (
                  <details open={asked.is_right}>
                    <summary className="ask">{w.found}</summary>
                    <ul className="space-y-1">
                      {asked.problems.map((one) => (
                        <li key={one.text}>
                          <b className="stamp">{one.level_label}</b> {one.text}{" "}
                          <span className="text-soft">{one.change}</span>
                        </li>
                      ))}
                    </ul>
                  </details>
                )}
              </section>
            )}
          </div>
        </div>
      )}
    </PlantPage>
  );
}
