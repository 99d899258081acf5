import { useState } from "react";
import { Words } from "../../components/inputs";
import { panelWords as w } from "../../words/panel";
import { Typed } from "./Typed";
import type { Made, Panel } from "./usePanel";

type Device = Panel["devices"][number];

/** Trips with load, ambient and wait; heaters and settings as seen; how many starts are stood. */
export function Trips({ panel, onAct }: { panel: Panel; onAct: (made: Made) => void }) {
  return (
    <section aria-labelledby="trips" className="space-y-3" data-testid="trips">
      <h2 id="trips" className="stamp">
        {w.tripsTitle}
      </h2>
      {panel.starts.map((text) => (
        <p key={text}>{text}</p>
      ))}
      <ul className="space-y-3">
        {panel.devices.map((device) => (
          <li key={device.id} className="border-t border-hair pt-2 space-y-2">
            <p className="font-semibold">
              {device.said}
              {device.trips > 0 && ` · ${w.tripsOf(device.trips)}`}
              {device.is_tripped && <span className="text-live"> · {w.tripped}</span>}
              {device.seen && ` · ${w.seenSet(device.seen)}`}
            </p>
            {device.resets_itself && <p className="font-semibold text-live">{w.resetsItself}</p>}
            <Trip
              device={device}
              trip={
                panel.entries
                  .filter((one) => one.kind === "trip" && one.about.device === device.id)
                  .at(-1)?.id ?? ""
              }
              onAct={onAct}
            />
            {device.has_setting && (
              <Typed
                label={w.settingSeen}
                does={w.noteIt}
                isNumber={false}
                onDone={(value) =>
                  onAct({ kind: "setting_seen", about: { device: device.id }, body: { value } })
                }
              />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Trip({
  device,
  trip,
  onAct,
}: {
  device: Device;
  /** The last one, as the server has it. */
  trip: string;
  onAct: (made: Made) => void;
}) {
  const [load, setLoad] = useState("");
  const [ambient, setAmbient] = useState("");
  const [waited, setWaited] = useState("");
  const read = (kind: "volts" | "amps", unit: string) => (value: string) =>
    onAct({ kind, about: { trip }, body: { value, unit } });
  if (device.is_tripped)
    return (
      <>
        {device.trips > 1 && trip && (
          <div className="space-y-2">
            <p className="text-caution">{w.secondTrip}</p>
            <div className="flex flex-wrap gap-4">
              <Typed
                label={w.lowestVolts}
                unit={w.volts}
                does={w.read}
                onDone={read("volts", "V")}
              />
              <Typed label={w.highestAmps} unit="A" does={w.read} onDone={read("amps", "A")} />
            </div>
          </div>
        )}
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (!waited.trim()) return;
            onAct({
              kind: "reset",
              about: { device: device.id },
              body: { waited_s: String(60 * Number(waited.replace(",", ".")) || 0) },
            });
            setWaited("");
          }}
        >
          <Words
            label={w.waitedMinutes}
            value={waited}
            isNumber
            onValueChange={setWaited}
            className="w-36"
          />
          <button type="submit" className="control">
            {w.reset}
          </button>
        </form>
      </>
    );
  if (!device.can_trip) return null;
  return (
    <details>
      <summary className="ask">{w.itTripped}</summary>
      <form
        className="flex flex-wrap items-end gap-2 pt-2"
        onSubmit={(event) => {
          event.preventDefault();
          onAct({
            kind: "trip",
            about: { device: device.id },
            body: { load: load.trim(), ambient: ambient.trim() },
          });
          setLoad("");
          setAmbient("");
        }}
      >
        <Words label={w.loadThen} value={load} onValueChange={setLoad} className="w-64" />
        <Words
          label={w.ambient}
          value={ambient}
          unit={w.celsius}
          isNumber
          onValueChange={setAmbient}
          className="w-36"
        />
        <button type="submit" className="control">
          {w.itTripped}
        </button>
      </form>
    </details>
  );
}
