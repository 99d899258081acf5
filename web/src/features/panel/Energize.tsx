import { useState } from "react";
import { Choice, Words } from "../../components/inputs";
import type { Held } from "../../state/outbox";
import { useIsOnline } from "../../state/useIsOnline";
import { panelWords as w } from "../../words/panel";
import { bounds } from "./bounds";
import { ranBefore } from "./Disconnect";
import { Practice } from "./Practice";
import { Typed } from "./Typed";
import { ENDS, TURNS } from "./turns";
import type { Made, Panel } from "./usePanel";

type Stage = Panel["stages"][number];
type Result = Stage["results"][number];

/** What a practice instrument can show. */
const PRACTICED = new Set(["phase_sequence", "volts", "amps", "start_amps"]);

/** After this long without an answer there is no server to wait for. */
const NOT_ANSWERED_MS = 10_000;

/** The opening of a stage that is on this device only and not closed here. */
function openedHere(held: readonly Held[], stage: string): string {
  const acts = held.filter((one) => !one.refused).map((one) => one.act);
  const closed = new Set(
    acts.filter((one) => one.kind === "stage_closed").map((one) => one.about?.opened),
  );
  const found = acts.filter(
    (one) => one.kind === "stage_opened" && one.about?.stage === stage && !closed.has(one.uid),
  );
  return found.at(-1)?.uid ?? "";
}

/** Power in stages: one at a time, each with its boundary, its results and its end. */
export function Energize({
  panel,
  held,
  onAct,
}: {
  panel: Panel;
  held: readonly Held[];
  onAct: (made: Made) => void;
}) {
  const standing = panel.stages.find((one) => one.is_open || openedHere(held, one.id));
  const following = panel.stages.find((one) => one.state !== "ok");
  const [picked, setPicked] = useState("");
  const stage = standing ?? panel.stages.find((one) => one.id === picked) ?? following;
  return (
    <section aria-labelledby="energize" className="space-y-3" data-testid="energize">
      <h2 id="energize" className="stamp">
        {w.energizeTitle}
      </h2>
      <ol className="flex flex-wrap gap-2">
        {panel.stages.map((one, place) => (
          <li key={one.id}>
            <button
              type="button"
              className="control"
              aria-pressed={one.id === stage?.id}
              onClick={() => setPicked(one.id)}
            >
              {place + 1} {one.said}: {w.stageStates[one.state] ?? one.state}
            </button>
          </li>
        ))}
      </ol>
      {stage && !standing && stage.state !== "ok" && (
        <Before panel={panel} stage={stage} held={held} onAct={onAct} />
      )}
      {stage && <Card panel={panel} stage={stage} held={held} onAct={onAct} />}
      {stage?.remedy === "swap" && panel.swap && !standing && (
        <Swap panel={panel} title={w.wrongWay} move={panel.swap} done={w.swapDone} onAct={onAct} />
      )}
      {stage?.remedy === "roll" && panel.roll && !standing && (
        <Swap
          panel={panel}
          title={w.rollTitle}
          move={panel.roll}
          done={w.rollDone}
          body={{ roll: true }}
          onAct={onAct}
        />
      )}
      {!following && !standing && <p className="font-semibold text-proven">{w.allStages}</p>}
    </section>
  );
}

/** What has to be closed up before power, and what stands against it as the server told last. */
function Before({
  panel,
  stage,
  held,
  onAct,
}: {
  panel: Panel;
  stage: Stage;
  held: readonly Held[];
  onAct: (made: Made) => void;
}) {
  const mine = panel.locks.filter((one) => one.by === panel.me && one.state === "on");
  const others = panel.locks.filter((one) => one.by !== panel.me && one.state !== "off");
  const isOnline = useIsOnline();
  const oldest = held.find((one) => !one.refused)?.act.observed_at;
  // what is being sent right now is judged in a moment: only without a server is it not waited for
  const isWaiting =
    oldest !== undefined && (!isOnline || Date.now() - Date.parse(oldest) > NOT_ANSWERED_MS);
  const mayOpenAny = ["electrician", "reviewer"].includes(panel.role);
  const mayOpen = panel.may_open === stage.id;
  return (
    <div className="space-y-3">
      <p className="text-soft">{w.beforeSays}</p>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="control"
          onClick={() => onAct({ kind: "covers_on", body: { guards: true } })}
        >
          {w.coversOn}
        </button>
        {mine.length > 0 && (
          <button
            type="button"
            className="control"
            onClick={() => onAct({ kind: "lock_off", about: { locks: mine.map((one) => one.id) } })}
          >
            {w.myLocksOff(mine.length)}
          </button>
        )}
        <button
          type="button"
          className="control"
          onClick={() => onAct({ kind: "people_clear", body: { locks_left: "0" } })}
        >
          {w.peopleClear}
        </button>
      </div>
      {others.length > 0 && (
        <p className="font-semibold">
          {w.othersLocks(others.map((one) => `${one.name} ${one.lock_no}`).join(", "))}
        </p>
      )}
      {panel.blocked.length > 0 && (
        <div>
          <p className="font-semibold">{w.stands}</p>
          <ul className="list-disc pl-5">
            {panel.blocked.map((text) => (
              <li key={text}>{text}</li>
            ))}
          </ul>
        </div>
      )}
      {!mayOpenAny && <p className="text-soft">{w.electricianOpens}</p>}
      {mayOpenAny && (mayOpen || isWaiting) && (
        <button
          type="button"
          className="control"
          data-primary="true"
          onClick={() =>
            onAct({
              kind: "stage_opened",
              about: { stage: stage.id },
              body: { boundary: stage.feeds.join(" ").slice(0, 190) },
            })
          }
        >
          {w.openStage(stage.said)}
        </button>
      )}
      {isWaiting && !mayOpen && <p className="text-caution">{w.openUnseen}</p>}
    </div>
  );
}

function Card({
  panel,
  stage,
  held,
  onAct,
}: {
  panel: Panel;
  stage: Stage;
  held: readonly Held[];
  onAct: (made: Made) => void;
}) {
  const opened = stage.is_open ? stage.opened : openedHere(held, stage.id);
  const left = stage.results.filter((one) => one.is_needed && !readOf(one, held, opened));
  const joints = stage.results.filter((one) => one.kind === "joint_check");
  const row = (result: Result) => (
    <li key={result.id} className="border-t border-hair pt-2">
      <ResultRow
        panel={panel}
        stage={stage}
        result={result}
        value={readOf(result, held, opened)}
        opened={opened}
        onAct={onAct}
      />
    </li>
  );
  const end = (result: string) =>
    onAct({ kind: "stage_closed", about: { opened }, body: { result } });
  return (
    <div className="border-2 border-ink bg-sheet p-4 space-y-3" data-testid="stage">
      <p className="font-headline text-2xl font-bold">{stage.said}</p>
      {stage.feeds.map((text) => (
        <p key={text} className="font-semibold">
          {text}
        </p>
      ))}
      {stage.says.map((text) => (
        <p key={text} className="text-caution">
          {text}
        </p>
      ))}
      <ul className="space-y-3">
        {stage.results.filter((one) => one.kind !== "joint_check").map(row)}
      </ul>
      {joints.length > 0 && (
        <details data-testid="joints">
          <summary className="ask">{w.jointsTitle}</summary>
          <p className="text-soft">{w.jointsSay}</p>
          <ul className="grid gap-3 sm:grid-cols-2">{joints.map(row)}</ul>
        </details>
      )}
      {stage.told.map((text) => (
        <p key={text} className="font-semibold">
          {text}
        </p>
      ))}
      {opened && (
        <div className="flex flex-wrap gap-2 border-t-2 border-ink pt-3">
          <button
            type="button"
            className="control"
            data-primary={left.length === 0}
            disabled={left.length > 0}
            onClick={() => end("ok")}
          >
            {w.closeOk}
          </button>
          <button type="button" className="control" onClick={() => end("wrong")}>
            {w.closeWrong}
          </button>
          <button type="button" className="control" onClick={() => end("stopped")}>
            {w.closeStopped}
          </button>
          {left.length > 0 && <p className="w-full text-soft">{w.stillToRead(left.length)}</p>}
        </div>
      )}
    </div>
  );
}

/** What was read last: as the server has it, or on this device only. */
function readOf(result: Result, held: readonly Held[], opened: string): string {
  const here = held.filter(
    (one) =>
      !one.refused &&
      one.act.kind === result.kind &&
      one.act.about?.opened === opened &&
      (one.act.about?.at ?? "") === result.at,
  );
  const last = here.at(-1)?.act.body;
  if (last)
    return String(
      last.value ?? last.mm_s ?? last.order ?? last.turn ?? (last.ok ? w.asItMust : w.notAs),
    );
  return result.value;
}

function ResultRow({
  panel,
  stage,
  result,
  value,
  opened,
  onAct,
}: {
  panel: Panel;
  stage: Stage;
  result: Result;
  value: string;
  opened: string;
  onAct: (made: Made) => void;
}) {
  const about = { opened, ...(result.at ? { at: result.at } : {}) };
  const made = (body: Made["body"]) => onAct({ kind: result.kind, about, body });
  const asked =
    result.min !== null || result.max !== null
      ? bounds(result.min, result.max, result.unit)
      : result.unit
        ? w.notKnown
        : "";
  const color =
    result.verdict === "wrong" ? "text-live" : result.verdict === "good" ? "text-proven" : "";
  return (
    <div className="flex flex-wrap items-end justify-between gap-2" data-testid={result.id}>
      <div>
        <p className="font-semibold">{result.said}</p>
        {asked && <p className="text-sm text-soft">{asked}</p>}
        {result.likely && (
          <p className="text-sm text-soft">{w.likely(result.likely, result.unit)}</p>
        )}
        {value && (
          <p className={`font-mono font-bold ${color}`}>
            {value} {result.unit} {result.verdict === "wrong" ? `· ${w.wrong}` : ""}
          </p>
        )}
      </div>
      {opened && stage.state !== "ok" && (
        <div className="space-y-1">
          <Entry panel={panel} result={result} onMade={made} />
          {PRACTICED.has(result.kind) && (
            <Practice asked={{ kind: result.kind, stage: stage.id }} />
          )}
        </div>
      )}
    </div>
  );
}

function Entry({
  panel,
  result,
  onMade,
}: {
  panel: Panel;
  result: Result;
  onMade: (body: Made["body"]) => void;
}) {
  if (result.kind === "control_result")
    return (
      <div className="flex gap-2">
        <button type="button" className="control" onClick={() => onMade({ ok: true })}>
          {w.asItMust}
        </button>
        <button type="button" className="control" onClick={() => onMade({ ok: false })}>
          {w.notAs}
        </button>
      </div>
    );
  if (result.kind === "phase_sequence")
    return (
      <Choice
        label={w.sequence}
        options={["L1-L2-L3", "L3-L2-L1"].map((order) => ({ value: order, label: order }))}
        value={null}
        onValueChange={(order) => onMade({ order })}
      />
    );
  if (result.kind === "bump_result") return <Bump panel={panel} onMade={onMade} />;
  if (result.kind === "vibration")
    return (
      <div className="flex flex-wrap items-end gap-2">
        <button
          type="button"
          className="control"
          onClick={() => onMade({ ok: true, how: "by hand on the fixed frame" })}
        >
          {w.byHandFine}
        </button>
        <button
          type="button"
          className="control"
          onClick={() => onMade({ ok: false, how: "by hand on the fixed frame" })}
        >
          {w.byHandNot}
        </button>
        <Typed
          label={w.byInstrument}
          unit={result.unit}
          does={w.read}
          onDone={(mm_s) => onMade({ ok: true, mm_s, how: "instrument" })}
        />
      </div>
    );
  return (
    <Typed
      label={result.said}
      unit={result.unit}
      does={w.read}
      onDone={(value) => onMade({ value, unit: result.unit })}
    />
  );
}

/** Which way it turned, which way it must, whether it was coupled: three taps, none assumed. */
function Bump({ panel, onMade }: { panel: Panel; onMade: (body: Made["body"]) => void }) {
  const before = ranBefore(panel, []);
  const [wanted, setWanted] = useState<string | null>(null);
  const [coupled, setCoupled] = useState<boolean | null>(null);
  const [end, setEnd] = useState<string | null>(null);
  const [why, setWhy] = useState("");
  const isReady = wanted !== null && coupled !== null && end !== null;
  return (
    <div className="w-full space-y-2">
      {before && (
        <p className="font-semibold" data-testid="ran-before">
          {w.ranSo(String(before.turn ?? ""), String(before.viewpoint ?? ""), "")}
        </p>
      )}
      <Choice label={w.seenFrom} options={ENDS} value={end} onValueChange={setEnd} />
      <Choice label={w.wanted} options={TURNS} value={wanted} onValueChange={setWanted} />
      <Choice
        label={w.coupledAsk}
        options={[
          { value: false, label: w.uncoupled },
          { value: true, label: w.coupled },
        ]}
        value={coupled}
        onValueChange={setCoupled}
      />
      {before && isReady && (
        <Words label={w.otherWhy} value={why} onValueChange={setWhy} className="max-w-xl" />
      )}
      {isReady && (
        <div className="grid gap-2 sm:grid-cols-2">
          {TURNS.map((way) => (
            <button
              key={way.value}
              type="button"
              className="control min-h-18 text-xl"
              onClick={() =>
                onMade({
                  turn: way.value,
                  wanted,
                  coupled,
                  viewpoint: end,
                  ...(why.trim() ? { why: why.trim() } : {}),
                })
              }
            >
              {w.itTurned(way.label)}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}

/** Conductors that change places: lock again, move them, the drawing follows. */
function Swap({
  panel,
  title,
  move,
  done,
  body,
  onAct,
}: {
  panel: Panel;
  title: string;
  move: NonNullable<Panel["swap"]>;
  done: string;
  body?: Made["body"];
  onAct: (made: Made) => void;
}) {
  const isIn = panel.hands.includes(panel.me);
  return (
    <div className="border-2 border-live bg-sheet p-4 space-y-2" data-testid="swap">
      <p className="font-headline text-xl font-bold">{title}</p>
      <p>{move.said}</p>
      {isIn ? (
        <button
          type="button"
          className="control"
          onClick={() =>
            onAct({ kind: "swap_done", about: { wires: move.wires }, ...(body ? { body } : {}) })
          }
        >
          {done}
        </button>
      ) : (
        <p className="font-semibold text-live">{w.lockAgain}</p>
      )}
    </div>
  );
}
