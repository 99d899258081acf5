import { useEffect, useState } from "react";
import { useParams } from "react-router";
import { api, type Schemas, told } from "../../api/client";
import { Choice, Words } from "../../components/inputs";
import { PlantPage } from "../../components/PlantPage";
import { ProblemSlab } from "../../components/shapes";
import { useAsked } from "../../state/useAsked";
import { sensorsWords as w } from "../../words/sensors";

/** A figure as typed, with comma or point; nothing where nothing was typed. */
const typed = (text: string) => (text.trim() ? Number(text.replace(",", ".")) : null);

/** What watches this motor, and what does a pair of leads read? Bench answers, kept nowhere. */
export function SensorsScreen() {
  const { works = "" } = useParams();
  return (
    <PlantPage works={works} title={w.title} className="space-y-6">
      <div className="grid gap-6 lg:grid-cols-3">
        <What />
        <Element />
        <Shaft />
      </div>
    </PlantPage>
  );
}

function What() {
  const [given, setGiven] = useState({ ohms: "", ambient: "20", volts: "", watts: "" });
  const set = (name: keyof typeof given) => (value: string) =>
    setGiven((known) => ({ ...known, [name]: value }));
  const { shown, problem, ask } = useAsked<Schemas["WhatOut"]>();
  return (
    <section className="border-2 border-ink bg-sheet p-4 space-y-3" data-testid="what">
      <h2 className="font-headline text-xl font-bold">{w.what}</h2>
      <p className="text-caution">{w.whatSays}</p>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          void ask(() =>
            told(
              api.POST("/api/sensors/what", {
                body: {
                  ohms: given.ohms,
                  ambient_c: typed(given.ambient) ?? 20,
                  heater_v: typed(given.volts),
                  heater_w: typed(given.watts),
                },
              }),
            ),
          );
        }}
      >
        <Words label={w.ohms} unit={w.ohm} value={given.ohms} onValueChange={set("ohms")} />
        <Words
          label={w.ambient}
          unit={w.celsius}
          isNumber
          value={given.ambient}
          onValueChange={set("ambient")}
        />
        <Words
          label={w.heaterV}
          unit="V"
          isNumber
          value={given.volts}
          onValueChange={set("volts")}
        />
        <Words
          label={w.heaterW}
          unit="W"
          isNumber
          value={given.watts}
          onValueChange={set("watts")}
        />
        <button type="submit" className="control" data-primary="true">
          {w.tell}
        </button>
      </form>
      {problem && <ProblemSlab problem={problem} />}
      <div aria-live="polite">
        {shown && (
          <>
            <p className="font-semibold">
              {shown.fits.length > 0 ? w.fits(shown.fits.length) : w.none}
            </p>
            <ul className="list-disc pl-5">
              {shown.fits.map((one) => (
                <li key={one.kind}>
                  <b>{one.kind}</b>{" "}
                  <span className="text-soft">
                    {w.between(
                      one.least_ohm.toPrecision(4),
                      one.most_ohm === null ? "OL" : `${one.most_ohm.toPrecision(4)} ${w.ohm}`,
                    )}
                  </span>
                </li>
              ))}
            </ul>
            {shown.next.map((text) => (
              <p key={text} className="text-soft">
                {text}
              </p>
            ))}
          </>
        )}
      </div>
    </section>
  );
}

const PAIRS = {
  "2": ["ac", "loop"],
  "3": ["ac", "bc", "ab"],
  "4": ["ac", "bc", "ad", "bd", "ab", "cd"],
};
type Wires = keyof typeof PAIRS;

function Element() {
  const [kind, setKind] = useState("Pt100");
  const [wires, setWires] = useState<Wires>("3");
  const [read, setRead] = useState<Record<string, string>>({});
  const { shown, problem, ask } = useAsked<Schemas["ElementOut"]>();
  return (
    <section className="border-2 border-ink bg-sheet p-4 space-y-3" data-testid="element">
      <h2 className="font-headline text-xl font-bold">{w.element}</h2>
      <p className="text-soft">{w.leads}</p>
      <Choice
        label={w.kind}
        options={["Pt100", "Pt1000", "Ni120", "Cu10"].map((one) => ({ value: one, label: one }))}
        value={kind}
        onValueChange={setKind}
      />
      <Choice
        label={w.wires}
        options={(["2", "3", "4"] as const).map((one) => ({ value: one, label: one }))}
        value={wires}
        onValueChange={setWires}
      />
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          const figures = Object.fromEntries(
            PAIRS[wires].map((name) => [name, typed(read[name] ?? "")]),
          );
          void ask(() =>
            told(
              api.POST("/api/sensors/element", {
                body: {
                  element: kind,
                  wires: Number(wires) as 2 | 3 | 4,
                  ...figures,
                  ac: figures.ac ?? 0,
                },
              }),
            ),
          );
        }}
      >
        {PAIRS[wires].map((name) => (
          <Words
            key={name}
            label={name === "loop" ? w.loop : w.pair(name)}
            unit={w.ohm}
            isNumber
            value={read[name] ?? ""}
            onValueChange={(value) => setRead((known) => ({ ...known, [name]: value }))}
          />
        ))}
        <button type="submit" className="control">
          {w.reads}
        </button>
      </form>
      {problem && <ProblemSlab problem={problem} />}
      <div aria-live="polite">
        {shown && (
          <>
            <p className="font-headline text-2xl font-bold">
              {shown.celsius.toFixed(1)} {w.celsius}
            </p>
            <p className="font-mono text-sm">
              {shown.arithmetic} = {shown.ohms.toPrecision(5)} {w.ohm}
            </p>
            <p className="text-soft">
              {w.element20(shown.at_20_ohm.toPrecision(5))} {shown.is_doubted && w.book}
            </p>
          </>
        )}
      </div>
    </section>
  );
}

type End = Schemas["EndIn"];

function Shaft() {
  const [ends, setEnds] = useState<Record<"drive" | "other", Partial<End>>>({
    drive: {},
    other: {},
  });
  const { shown, ask } = useAsked<Schemas["LoopOut"]>();
  useEffect(() => {
    const whole = (end: Partial<End>): end is End => Boolean(end.bearing && end.probe);
    const { drive, other } = ends;
    // nothing is told of ends that nobody named
    if (!whole(drive) || !whole(other)) return;
    void ask(() =>
      told(api.POST("/api/sensors/loop", { body: { drive_end: drive, other_end: other } })),
    );
  }, [ends, ask]);
  const options = (words: Record<string, string>) =>
    Object.entries(words).map(([value, label]) => ({ value, label }));
  return (
    <section className="border-2 border-ink bg-sheet p-4 space-y-3" data-testid="shaft">
      <h2 className="font-headline text-xl font-bold">{w.shaft}</h2>
      <p className="text-caution">{w.shaftSays}</p>
      {(["drive", "other"] as const).map((side) => (
        <div key={side} className="space-y-2">
          <p className="font-semibold">{side === "drive" ? w.driveEnd : w.otherEnd}</p>
          <Choice
            label={w.bearing}
            options={options(w.bearings)}
            value={ends[side].bearing ?? null}
            onValueChange={(bearing) =>
              setEnds((known) => ({
                ...known,
                [side]: { ...known[side], bearing: bearing as End["bearing"] },
              }))
            }
          />
          <Choice
            label={w.probe}
            options={options(w.probes)}
            value={ends[side].probe ?? null}
            onValueChange={(probe) =>
              setEnds((known) => ({
                ...known,
                [side]: { ...known[side], probe: probe as End["probe"] },
              }))
            }
          />
        </div>
      ))}
      <svg viewBox="0 0 240 60" aria-hidden="true">
        <rect
          x="30"
          y="10"
          width="180"
          height="16"
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
        />
        <rect x="10" y="40" width="220" height="8" fill="currentColor" />
        {[40, 190].map((x) => (
          <rect
            key={x}
            x={x}
            y="26"
            width="14"
            height="14"
            fill="none"
            stroke="currentColor"
            strokeWidth="2"
          />
        ))}
        {shown?.flows && (
          <path
            d="M47 44V18H197V44"
            fill="none"
            stroke="var(--color-live)"
            strokeWidth="3"
            strokeDasharray="6 4"
          />
        )}
      </svg>
      <p
        aria-live="polite"
        className={`font-semibold ${shown?.flows ? "text-live" : "text-proven"}`}
      >
        {shown && (shown.flows ? w.flows : w.open)}
      </p>
    </section>
  );
}
