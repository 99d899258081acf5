import { useState } from "react";
import { Tick, Words } from "../../components/inputs";
import { panelWords as w } from "../../words/panel";
import { bounds } from "./bounds";
import { Practice } from "./Practice";
import { Typed } from "./Typed";
import type { Made, Panel } from "./usePanel";

type Item = Panel["items"][number];
type Expected = Panel["expected"][number] | undefined;

const isDone = (state: string) => ["as_expected", "accepted"].includes(state);

/** What is read once for each motor: the ground of its frame, the insulation of its windings. */
export function Items({ panel, onAct }: { panel: Panel; onAct: (made: Made) => void }) {
  return (
    <>
      {panel.items.map((item) => {
        const expected = panel.expected.find((one) => one.id === item.id);
        return (
          <div
            key={item.id}
            className="border-2 border-ink bg-sheet p-4 space-y-2"
            data-testid="item"
          >
            <p className="font-headline text-xl font-bold">{item.said}</p>
            <p>
              {expected && !expected.bands?.length
                ? `${bounds(expected.min, expected.max, w.ohms)} · `
                : ""}
              <span className={isDone(item.state) ? "text-proven" : ""}>
                {w.rowStates[item.state]}
              </span>
            </p>
            {item.asks && <p className="text-soft">{item.asks}</p>}
            {item.told.map((text) => (
              <p key={text} className="text-soft">
                {text}
              </p>
            ))}
            {item.kind === "ground_continuity" && !isDone(item.state) && (
              <Typed
                label={w.ohms}
                unit={w.ohms}
                does={w.read}
                onDone={(value) =>
                  onAct({
                    kind: item.kind,
                    about: { item: item.id },
                    body: { value, unit: item.unit },
                  })
                }
              />
            )}
            {item.kind === "ground_continuity" && !isDone(item.state) && (
              <Practice asked={{ kind: item.kind, read_at: item.id }} />
            )}
            {item.kind === "insulation_reading" && (
              <Insulation item={item} expected={expected} onAct={onAct} />
            )}
          </div>
        );
      })}
    </>
  );
}

/** What has to be off comes first; then the winding's temperature, one minute, and ten. */
function Insulation({
  item,
  expected,
  onAct,
}: {
  item: Item;
  expected: Expected;
  onAct: (made: Made) => void;
}) {
  const [off, setOff] = useState<ReadonlySet<string>>(new Set());
  const [temperature, setTemperature] = useState("");
  const [one, setOne] = useState("");
  const [ten, setTen] = useState("");
  const degrees = temperature.trim() ? Number(temperature.replace(",", ".")) : Number.NaN;
  const bands = expected?.bands ?? [];
  const band = bands.find((known) => known.from_c <= degrees && degrees < known.to_c);
  const connected = item.off.filter((name) => !off.has(name));
  const take = (value: string) => {
    if (!value) return;
    const more = ten.trim() ? { ten: ten.trim() } : {};
    onAct({
      kind: item.kind,
      about: { group: item.id },
      body: {
        value,
        unit: item.unit,
        temp_c: temperature.trim(),
        test_v: item.tester_v,
        connected,
        ...more,
      },
    });
    setOne("");
    setTen("");
  };
  return (
    <details className="space-y-2" open={!isDone(item.state)}>
      <summary className="ask">{w.readIt}</summary>
      <fieldset className="space-y-1">
        <legend className="font-semibold">{w.offFirst}</legend>
        {item.off.map((name) => (
          <Tick
            key={name}
            className="py-2"
            isOn={off.has(name)}
            onChange={(isOn) => {
              const next = new Set(off);
              if (isOn) next.add(name);
              else next.delete(name);
              setOff(next);
            }}
          >
            {name}
          </Tick>
        ))}
      </fieldset>
      {connected.length === 0 && (
        <div className="space-y-2">
          <p className="text-caution">{w.tester(item.tester_v)}</p>
          <Words
            label={w.windingTemperature}
            value={temperature}
            unit={w.celsius}
            isNumber
            onValueChange={setTemperature}
            className="max-w-72"
          />
          {!Number.isNaN(degrees) && (
            <>
              <p className="font-semibold">
                {band
                  ? w.asksAt(band.least, degrees)
                  : w.asksNothing(degrees, bands[0]?.from_c, bands.at(-1)?.to_c)}
              </p>
              <form
                className="flex flex-wrap items-end gap-3"
                onSubmit={(event) => {
                  event.preventDefault();
                  take(one.trim());
                }}
              >
                <Words
                  label={w.oneMinute}
                  value={one}
                  unit={w.megohms}
                  isNumber
                  onValueChange={setOne}
                  className="w-40"
                />
                <Words
                  label={w.tenMinutes}
                  value={ten}
                  unit={w.megohms}
                  isNumber
                  onValueChange={setTen}
                  className="w-40"
                />
                <button type="submit" className="control">
                  {w.read}
                </button>
                <button type="button" className="control" onClick={() => take("OL")}>
                  {w.openKey}
                </button>
              </form>
              <Practice asked={{ kind: item.kind, read_at: item.id, temp_c: degrees }} />
            </>
          )}
        </div>
      )}
    </details>
  );
}
