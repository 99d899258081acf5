import { panelWords as w } from "../../words/panel";
import { Typed } from "./Typed";
import type { Made, Panel } from "./usePanel";

/** Every source with its isolator: what stays live, whose locks are on, mine on and off. */
export function Locks({ panel, onAct }: { panel: Panel; onAct: (made: Made) => void }) {
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
                <p key={lock.id}>
                  <b>{w.lockOf(lock.name, lock.lock_no)}</b>: {w.lockStates[lock.state]}
                </p>
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
                  onDone={(lock_no) =>
                    onAct({
                      kind: "lock_on",
                      about: { isolator: source.isolator },
                      body: { place: "isolator", lock_no },
                    })
                  }
                />
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
