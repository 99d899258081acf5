import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, told } from "../../api/client";
import { Choice, Drawer, Reading } from "../../components/inputs";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { ProblemSlab, Stop } from "../../components/shapes";
import { useAnswer } from "../../components/useAnswer";
import type { Key } from "../../state/keys";
import type { Given } from "../../state/useJob";
import { benchWords } from "../../words/bench";
import { JointTable } from "../leads/Answer";
import { OwnReading } from "./OwnReading";
import { askWords, Probes } from "./Probes";
import { cellOf, type Guided, said, type Taken } from "./readings";

type Bench = Given["bench"];

const COUNTS = [6, 9, 12] as const;
const MYSTERIES = [
  "6",
  "9-wye",
  "9-delta",
  "12",
  "2-speed-vt",
  "2-speed-ct",
  "part-winding",
  "2-speed-2-winding",
] as const;
const LEADS_OF: Record<string, 6 | 9 | 12> = { "9-wye": 9, "9-delta": 9, "12": 12 };

function shoutOf(guided: Guided | undefined): string {
  if (!guided) return benchWords.leadTagsMissing;
  if (guided.stage === "done")
    return benchWords.numbered(guided.kind_names.join(benchWords.orWord));
  if (guided.stage === "contradiction") return benchWords.leastOneReading;
  if (guided.stage === "stuck") return benchWords.noFurtherReading;
  return guided.ask ? askWords(guided.ask) : "";
}

/** Tags gone: which lead is which, with the fewest readings. */
export function BenchScreen() {
  const { place, state } = useRoom();
  const { given } = state;
  const bench = given?.bench;
  const [typed, setTyped] = useState("");
  const set = (change: Partial<Bench>) => {
    if (bench) state.change("bench", { ...bench, ...change });
    setTyped("");
  };
  const readings: readonly Taken[] = bench?.readings ?? [];
  const count = bench?.leads ?? 0;
  const query = useQuery({
    queryKey: ["bench", place.works, count, bench?.groups, readings],
    enabled: count > 0 && Boolean(bench),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/bench", {
          params: { path: { works: place.works } },
          body: bench as Bench,
          signal,
        }),
      ),
  });
  const answered = useAnswer(query);
  const guided = count > 0 ? answered.data : undefined;
  const ask = guided?.ask ?? null;
  // what is asked stays to be read until the next answer comes; a reading is taken for it only once
  const isAsking = !answered.isOld;
  const doubtful: readonly number[] = isAsking && guided ? guided.doubtful : [];
  const isMystery = bench?.mystery !== null && bench?.mystery !== undefined;
  const feedV = bench?.feed_v ?? "10";
  const add = (reading: Taken) => set({ readings: [...readings, reading] });
  const answer = (text: string, isOpen: boolean) => {
    if (!ask || !isAsking) return;
    const value = text.trim().replace(",", ".");
    if (ask.what === "touch") {
      add({ what: "touch", pair: ask.pair, rings: !isOpen, ohms: isOpen || !value ? null : value });
    } else if (value) {
      add({
        what: "volts",
        feed: ask.feed,
        feed_v: feedV,
        joined: ask.joined,
        read: ask.pair,
        volts: value,
      });
    }
  };
  const askMotor = async () => {
    if (!ask || !bench || !isAsking) return;
    const shown = await told(
      api.POST("/api/w/{works}/bench/read", {
        params: { path: { works: place.works } },
        body: { bench, what: ask.what, pair: ask.pair, feed: ask.feed, joined: ask.joined },
      }),
    );
    if (ask.what === "touch") answer(shown.ohms, !shown.rings);
    else answer(shown.volts, false);
  };
  const undo = () => set({ readings: readings.slice(0, -1) });
  const isNumber = /^\d{1,6}([.,]\d{1,4})?$/.test(typed.trim());
  const keys: Key[] = [
    { press: "o", does: benchWords.openOl, run: () => answer("", true) },
    { press: "r", does: benchWords.continuityNoValue, run: () => answer("", false) },
    { press: "u", does: benchWords.undoLastReading, run: undo },
    { press: "b", does: benchWords.letPracticeMotor, run: () => void askMotor() },
  ];
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  return (
    <JobFrame
      place={place}
      step="bench"
      state={state}
      keys={keys}
      headline={<span className={ask ? "normal-case" : ""}>{shoutOf(guided)}</span>}
      isMakeBelieve={isMystery}
      margin={
        guided && bench ? (
          <div className="space-y-4">
            <Grid guided={guided} readings={readings} />
            <section aria-labelledby="taken" className="space-y-1">
              <h2 id="taken" className="stamp">
                {benchWords.readings(readings.length)}
              </h2>
              <ol
                className="max-h-72 space-y-0.5 overflow-y-auto font-mono text-sm"
                data-testid="taken"
              >
                {readings.map((reading, number) => (
                  <li
                    // biome-ignore lint/suspicious/noArrayIndexKey: the same reading may be taken twice
                    key={number}
                    data-doubtful={doubtful.includes(number)}
                    className="flex justify-between gap-2 data-[doubtful=true]:bg-caution-wash data-[doubtful=true]:font-semibold"
                  >
                    <span>
                      {number + 1}. {said(reading)}
                      {doubtful.includes(number) && benchWords.measureAgain}
                    </span>
                    <button
                      type="button"
                      className="ask text-sm"
                      aria-label={benchWords.removeReading(number + 1)}
                      onClick={() =>
                        set({ readings: readings.filter((_, place) => place !== number) })
                      }
                    >
                      {benchWords.removed}
                    </button>
                  </li>
                ))}
              </ol>
            </section>
          </div>
        ) : null
      }
      primary={
        <Link to={`${base}/leads`} className="control md:w-auto!" data-primary="true">
          {benchWords.backLeads}
        </Link>
      }
      others={
        <>
          <button type="button" className="control" onClick={undo}>
            {benchWords.undoLastReading}
          </button>
          <button type="button" className="control" onClick={() => window.print()}>
            {benchWords.printTags}
          </button>
        </>
      }
    >
      {bench && (
        <div className="space-y-4">
          <div className="flex flex-wrap gap-x-6 gap-y-2 print:hidden">
            <Choice
              label={benchWords.leadsWithoutTags}
              options={COUNTS.map((value) => ({ value, label: String(value) }))}
              value={(count || null) as 6 | 9 | 12 | null}
              onValueChange={(leads) =>
                set({ leads, readings: [], groups: [], mystery: null, mystery_kind: null })
              }
            />
            <span className="text-sm text-soft">{benchWords.leaveOutHeater}</span>
          </div>
          {count > 0 && answered.slab}
          {guided?.refusal && <ProblemSlab problem={guided.refusal} />}
          {guided && <Probes guided={guided} ask={ask} />}
          {guided?.stage === "contradiction" && isAsking && (
            <Stop strength="hold" title={guided.notes[0] ?? ""}>
              <p>
                {doubtful.length > 0
                  ? benchWords.readAgainRest(
                      doubtful
                        .map((at) => `${at + 1}. ${said(readings[at] as Taken)}`)
                        .join(benchWords.orBetween),
                    )
                  : benchWords.noSingleWrong}
              </p>
            </Stop>
          )}
          {guided && ask && (
            <section
              aria-labelledby="next"
              aria-busy={!isAsking}
              className="metal space-y-3 px-5 py-4 print:hidden"
            >
              <h2 id="next" className="stamp">
                {benchWords.nextReading}
                {isMystery && benchWords.practiceMotor}
              </h2>
              <p className="font-headline text-2xl font-bold" data-testid="ask">
                {askWords(ask)}
              </p>
              <div className="flex flex-wrap items-end gap-3">
                <label className="min-w-0">
                  <span className="block text-sm text-soft">
                    {benchWords.meter} {ask.what === "touch" ? "Ω" : "V"}
                  </span>
                  <input
                    className="field w-32 text-2xl font-semibold"
                    inputMode="decimal"
                    autoComplete="off"
                    value={typed}
                    onChange={(event) => setTyped(event.target.value)}
                    onKeyDown={(event) => {
                      if (event.key === "Enter" && isNumber) answer(typed, false);
                    }}
                  />
                </label>
                <button
                  type="button"
                  className="control min-h-14! min-w-24 text-lg"
                  aria-disabled={!isNumber || !isAsking}
                  onClick={() => isNumber && answer(typed, false)}
                >
                  {benchWords.enter}
                </button>
                {ask.what === "touch" && (
                  <>
                    <button
                      type="button"
                      className="control min-h-14! min-w-24 text-lg"
                      aria-disabled={!isAsking}
                      onClick={() => answer("", false)}
                    >
                      {benchWords.continuity}
                    </button>
                    <button
                      type="button"
                      className="control min-h-14! min-w-24 text-lg"
                      aria-disabled={!isAsking}
                      onClick={() => answer("", true)}
                    >
                      {benchWords.ol}
                    </button>
                  </>
                )}
                {isMystery && (
                  <button
                    type="button"
                    className="control min-h-14! text-lg"
                    aria-disabled={!isAsking}
                    onClick={() => void askMotor()}
                  >
                    {benchWords.letMotorAnswer}
                  </button>
                )}
              </div>
              {ask.what === "volts" && (
                <div className="flex flex-wrap items-end gap-4">
                  <Reading
                    label={benchWords.feedLowVoltage}
                    unit="V"
                    value={feedV}
                    onValueChange={(feed_v) => set({ feed_v })}
                  />
                  <p className="max-w-prose text-sm text-soft">{benchWords.feedCoilsRated}</p>
                </div>
              )}
              <p>
                <b>{benchWords.about(guided.about)}</b>{" "}
                {benchWords.aboutReadingsLeft(guided.taken + guided.about, guided.left)}{" "}
                {guided.groups.length ? "numberings" : "groupings"} {benchWords.stillFit}
                {guided.kind_names.length > 0 && ` · ${guided.kind_names.join(", ")}`}
              </p>
            </section>
          )}
          {guided?.stage === "done" && <Done guided={guided} />}
          {guided?.stage === "stuck" && <p>{guided.notes.join(" ")}</p>}
          {count === 0 && <p>{benchWords.howManyLeads}</p>}
          {guided && (
            <Drawer name={benchWords.yourOwnReading} hint={benchWords.ohmsVoltsRest}>
              <OwnReading sleeves={guided.sleeves} onAdd={add} />
            </Drawer>
          )}
          <Drawer name={benchWords.practiseMysteryMotor} hint={benchWords.answersInsteadReal}>
            <div className="flex flex-wrap gap-1.5">
              {MYSTERIES.map((kind) => (
                <button
                  key={kind}
                  type="button"
                  className="control"
                  aria-pressed={bench.mystery_kind === kind}
                  onClick={() =>
                    set({
                      leads: LEADS_OF[kind] ?? 6,
                      readings: [],
                      groups: [],
                      mystery: Math.floor(Math.random() * 1_000_000),
                      mystery_kind: kind,
                    })
                  }
                >
                  {kind === "12" || kind === "6" ? benchWords.leads(kind) : kind}
                </button>
              ))}
            </div>
            <p className="text-sm text-soft">{benchWords.seedMeterOff(bench.mystery ?? "none")}</p>
          </Drawer>
        </div>
      )}
    </JobFrame>
  );
}

/** Every two sleeves: what was read, and hatched what follows from it. */
function Grid({ guided, readings }: { guided: Guided; readings: readonly Taken[] }) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full border-collapse font-mono text-xs" data-testid="grid">
        <thead>
          <tr>
            <td />
            {guided.sleeves.map((name) => (
              <th key={name} scope="col" className="px-0.5">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {guided.sleeves.map((row, line) => (
            <tr key={row}>
              <th scope="row" className="pr-1">
                {row}
              </th>
              {guided.sleeves.map((column, place) => {
                if (place <= line) return <td key={column} className="bg-sunk" />;
                const cell = cellOf(row, column, readings, guided.settled);
                return (
                  <td
                    key={column}
                    className={`h-7 min-w-8 border border-hair text-center ${
                      cell.kind === "follows"
                        ? "bg-[repeating-linear-gradient(-45deg,transparent_0_4px,var(--hair)_4px_6px)] text-soft"
                        : "font-semibold"
                    }`}
                  >
                    {cell.text}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** The numbers, as a sheet of tags to print, and the joints by sleeve. */
function Done({ guided }: { guided: Guided }) {
  const marks = Object.fromEntries(guided.sleeves.map((name) => [name, name]));
  return (
    <section aria-labelledby="tags" className="space-y-3">
      <h2 id="tags" className="stamp">
        {benchWords.tags}
      </h2>
      <ul className="flex flex-wrap gap-3" data-testid="tags">
        {guided.sleeves.map((name) => (
          <li
            key={name}
            className="border-2 border-ink bg-sheet px-3 py-1 text-center [clip-path:polygon(0_0,calc(100%-9px)_0,100%_9px,100%_100%,0_100%)]"
          >
            <span className="block font-mono text-sm text-soft">{name}</span>
            <span className="block font-headline text-2xl font-bold">{guided.numbers[name]}</span>
          </li>
        ))}
      </ul>
      {guided.notes.map((note) => (
        <p key={note} className="text-sm text-soft">
          {note}
        </p>
      ))}
      {guided.joinings.map((item) => (
        <details key={item.said} className="border-t border-hair pt-1">
          <summary className="ask">{benchWords.leadLetter(item.said)}</summary>
          <JointTable joints={item.joints} marks={marks} free={[]} />
        </details>
      ))}
    </section>
  );
}
