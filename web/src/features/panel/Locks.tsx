import { useState } from "react";
import { Tick, Words } from "../../components/inputs";
import { useIsOnline } from "../../state/useIsOnline";
import { panelWords as w } from "../../words/panel";
import { PhotoKey } from "./PhotoKey";
import { Typed } from "./Typed";
import type { Made, Online, Panel } from "./usePanel";

type Lock = Panel["locks"][number];

/** Every source with its isolator: what stays live, whose locks are on, mine on and off. */
export function Locks({
  panel,
  base,
  onAct,
  onOnline,
}: {
  panel: Panel;
  base: string;
  onAct: (made: Made) => void;
  onOnline: (made: Online) => Promise<void>;
}) {
  const boxes = [...new Set(panel.locks.map((one) => one.key_in || one.box).filter(Boolean))];
  return (
    <section aria-labelledby="locks" className="space-y-3" data-testid="locks">
      <h2 id="locks" className="stamp">
        {w.lockTitle}
      </h2>
      <ul className="space-y-3">
        {panel.sources.map((source) => {
          const here = panel.locks.filter(
            (lock) => lock.isolator === source.isolator && lock.state !== "off",
          );
          const mine = here.find((lock) => lock.by === panel.me && lock.state === "on");
          return (
            <li key={source.id} className="border-2 border-ink bg-sheet p-3 space-y-2">
              <p className="font-headline text-xl font-bold">
                {source.said}. {w.isolator(source.isolator_said)}
              </p>
              {source.stays_live.length > 0 && (
                <p className="font-semibold text-live">
                  {w.staysLive} <span className="font-mono">{source.stays_live.join(", ")}</span>
                </p>
              )}
              {source.can_pull_in.length > 0 && (
                <p className="font-semibold text-live">
                  {w.pullsIn} <span className="font-mono">{source.can_pull_in.join(", ")}</span>
                </p>
              )}
              {source.wait_s > 0 && (
                <p className="text-caution">{w.waits(Math.ceil(source.wait_s / 60))}</p>
              )}
              {here.map((lock) => (
                <LockLine key={lock.id} panel={panel} lock={lock} onOnline={onOnline} />
              ))}
              {mine ? (
                <div className="flex flex-wrap items-center gap-4">
                  <button
                    type="button"
                    className="control"
                    onClick={() => onAct({ kind: "lock_off", about: { locks: [mine.id] } })}
                  >
                    {mine.place === "not_connected" ? w.nowConnected : w.unlockIt}
                  </button>
                  <PhotoKey about={{ lock: mine.id }} panel={panel} onAct={onAct} />
                </div>
              ) : (
                <LockIt isolator={source.isolator} onAct={onAct} />
              )}
            </li>
          );
        })}
      </ul>
      {boxes.map((box) => (
        <Box key={box} box={box} panel={panel} onAct={onAct} onOnline={onOnline} />
      ))}
      <a className="ask" href={`/api${base}/panel/tags.pdf?which=lock`}>
        {w.lockTag}
      </a>
    </section>
  );
}

/** My lock on an isolator, its key with me or in a box; or: this panel is not connected here yet. */
function LockIt({ isolator, onAct }: { isolator: string; onAct: (made: Made) => void }) {
  const [box, setBox] = useState("");
  return (
    <div className="space-y-2">
      <Typed
        label={w.lockNo}
        does={w.lockIt}
        isNumber={false}
        onDone={(lock_no) =>
          onAct({
            kind: "lock_on",
            about: { isolator },
            body: { place: "isolator", lock_no, ...(box.trim() ? { key_in: box.trim() } : {}) },
          })
        }
      />
      <details>
        <summary className="ask">{w.moreLocks}</summary>
        <div className="space-y-2 pt-2">
          <Words label={w.keyInBox} value={box} onValueChange={setBox} className="w-64" />
          <p className="text-sm text-soft">{w.boxSays}</p>
          <button
            type="button"
            className="control"
            onClick={() =>
              onAct({
                kind: "lock_on",
                about: { isolator },
                body: { place: "not_connected", lock_no: "" },
              })
            }
          >
            {w.notConnected}
          </button>
          <p className="text-sm text-soft">{w.notConnectedSays}</p>
        </div>
      </details>
    </div>
  );
}

/** A group box that holds keys: whoever wants his hands covered hangs an own lock on it. */
function Box({
  box,
  panel,
  onAct,
  onOnline,
}: {
  box: string;
  panel: Panel;
  onAct: (made: Made) => void;
  onOnline: (made: Online) => Promise<void>;
}) {
  const on = panel.locks.filter((one) => one.box === box && one.state !== "off");
  const mine = on.find((one) => one.by === panel.me && one.state === "on");
  return (
    <div className="border-2 border-ink bg-sheet p-3 space-y-2" data-testid="box">
      <p className="font-headline text-xl font-bold">{w.boxOf(box)}</p>
      {on.map((lock) => (
        <LockLine key={lock.id} panel={panel} lock={lock} onOnline={onOnline} />
      ))}
      {mine ? (
        <button
          type="button"
          className="control"
          onClick={() => onAct({ kind: "lock_off", about: { locks: [mine.id] } })}
        >
          {w.unlockIt}
        </button>
      ) : (
        <Typed
          label={w.lockNo}
          does={w.lockIt}
          isNumber={false}
          onDone={(lock_no) => onAct({ kind: "lock_on", body: { place: "box", box, lock_no } })}
        />
      )}
    </div>
  );
}

/** One lock, and for a reviewer the procedure by which another person's lock leaves. */
function LockLine({
  panel,
  lock,
  onOnline,
}: {
  panel: Panel;
  lock: Lock;
  onOnline: (made: Online) => Promise<void>;
}) {
  const isOnline = useIsOnline();
  const isForeign = lock.by !== panel.me && panel.role === "reviewer";
  return (
    <div>
      <p>
        <b>
          {lock.place === "not_connected"
            ? w.notConnectedBy(lock.name)
            : w.lockOf(lock.name, lock.lock_no)}
        </b>
        : {w.lockStates[lock.state]}
        {lock.key_in && ` · ${w.keyIn(lock.key_in)}`}
      </p>
      {isForeign && (
        <details>
          <summary className="ask">{w.foreign}</summary>
          {isOnline ? (
            <Procedure lock={lock} onOnline={onOnline} />
          ) : (
            <p className="text-caution">{w.foreignOnline}</p>
          )}
        </details>
      )}
    </div>
  );
}

function Procedure({ lock, onOnline }: { lock: Lock; onOnline: (made: Online) => Promise<void> }) {
  const [told, setTold] = useState({ reason: "", tried: "", witness: "" });
  const [isChecked, setChecked] = useState(false);
  const fields = ["reason", "tried", "witness"] as const;
  return (
    <form
      className="space-y-2 pt-2"
      onSubmit={(event) => {
        event.preventDefault();
        void onOnline({
          kind: "foreign_lock_removed",
          about: { lock: lock.id },
          body: { ...told, area_checked: isChecked },
        });
      }}
    >
      <p className="font-semibold text-live">{w.foreignSays(lock.name)}</p>
      {fields.map((field) => (
        <Words
          key={field}
          label={w.foreignFields[field] ?? field}
          value={told[field]}
          onValueChange={(value) => setTold((known) => ({ ...known, [field]: value }))}
          className="w-80 max-w-full"
        />
      ))}
      <Tick isOn={isChecked} onChange={setChecked}>
        {w.areaChecked}
      </Tick>
      <button type="submit" className="control">
        {w.foreignDone}
      </button>
    </form>
  );
}
