import { useEffect, useState } from "react";
import { type Room as RoomLeft, roomOnDevice } from "../../state/onDevice";
import type { Held } from "../../state/outbox";
import { panelWords as w } from "../../words/panel";
import { ReadingsIn } from "./ReadingsIn";
import type { Panel } from "./usePanel";

const MOST_OPEN = 8;

/** What is on this device only, what was refused, what is not done, and everything that was done. */
export function Book({
  panel,
  held,
  base,
  onSend,
  onDrop,
}: {
  panel: Panel;
  /** Address of the job. */
  base: string;
  held: readonly Held[];
  onSend: () => void;
  onDrop: (uid: string) => void;
}) {
  const waiting = held.filter((one) => !one.refused);
  return (
    <div className="space-y-4">
      {waiting.length > 0 && (
        <p className="font-semibold text-caution" data-testid="outbox">
          {w.onDevice(waiting.length, waiting[0]?.act.observed_at?.slice(0, 16).replace("T", " "))}{" "}
          <button type="button" className="ask" onClick={onSend}>
            {w.sendNow}
          </button>
        </p>
      )}
      {held
        .filter((one) => one.refused)
        .map((one) => (
          <p key={one.act.uid} className="font-semibold text-live">
            {one.refused}{" "}
            <button type="button" className="ask" onClick={() => onDrop(one.act.uid)}>
              {w.drop}
            </button>
          </p>
        ))}
      <section aria-labelledby="open" data-testid="open">
        <h2 id="open" className="stamp">
          {w.openTitle} · {panel.open_said.length}
        </h2>
        <ul className="list-disc pl-5">
          {panel.open_said.slice(0, MOST_OPEN).map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
        {panel.open_said.length > MOST_OPEN && (
          <details>
            <summary className="ask">{w.moreOpen(panel.open_said.length - MOST_OPEN)}</summary>
            <ul className="list-disc pl-5">
              {panel.open_said.slice(MOST_OPEN).map((text) => (
                <li key={text}>{text}</li>
              ))}
            </ul>
          </details>
        )}
        {panel.open_said.length === 0 && <p className="text-proven">{w.nothingOpen}</p>}
      </section>
      <details>
        <summary className="ask">{w.bookTitle}</summary>
        <ol className="space-y-1 text-sm" data-testid="book">
          {[...panel.entries].reverse().map((one) => (
            <li key={one.id} className="border-t border-hair py-1">
              <b>{one.name}</b> {one.received_at.slice(0, 16).replace("T", " ")} ·{" "}
              <span className="font-mono">{one.kind.replace("_", " ")}</span> ·{" "}
              {Object.values({ ...one.about, ...one.body })
                .flat()
                .join(" ")}
              {!["kept", "duplicate"].includes(one.answer) && (
                <span className="block text-caution">{one.said}</span>
              )}
            </li>
          ))}
        </ol>
      </details>
      <Room />
      <a className="ask" href={`/api${base}/panel/readings.csv`}>
        {w.readingsFile}
      </a>
      <ReadingsIn onTaken={onSend} />
      <details>
        <summary className="ask">{w.labels}</summary>
        <ul className="space-y-1 pt-1">
          {Object.entries(w.labelNames).map(([which, name]) => (
            <li key={which}>
              <a className="ask" href={`/api${base}/panel/tags.pdf?which=${which}`}>
                {name}
              </a>
            </li>
          ))}
          <li>
            <a className="ask" href={`/api${base}/panel/ferrules.csv`}>
              {w.ferrulesFile}
            </a>
          </li>
        </ul>
      </details>
    </div>
  );
}

/** How much room this device has left; said in time, before an entry is refused. */
function Room() {
  const [room, setRoom] = useState<RoomLeft | null>(null);
  useEffect(() => {
    void roomOnDevice().then(setRoom);
  }, []);
  if (!room) return null;
  return (
    <p className={`text-sm ${room.isTight ? "font-semibold text-caution" : "text-soft"}`}>
      {w.room(room.usedMb.toFixed(1), (room.ofMb / 1000).toFixed(1))}
      {room.isTight && ` ${w.roomTight}`}
    </p>
  );
}
