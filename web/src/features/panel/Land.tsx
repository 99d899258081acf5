import { useEffect, useRef, useState } from "react";
import { Choice, Tick, Words } from "../../components/inputs";
import { useKeys } from "../../state/keys";
import { panelWords as w } from "../../words/panel";
import { PhotoKey } from "./PhotoKey";
import { Typed } from "./Typed";
import type { Made, Panel } from "./usePanel";

type Wire = Panel["wires"][number];

/** What is left to do with a wire, by this person: to land, to look at, to torque, or nothing. */
function leftOf(wire: Wire, me: string): "land" | "check" | "torque" | "other" | "none" {
  if (wire.state === "unchecked") return wire.landed_by.includes(me) ? "other" : "check";
  if (wire.state !== "done") return "land";
  return wire.needs_torque && !wire.is_torqued ? "torque" : "none";
}

/** One wire at a time in the order of the hand: both ends large, what it does, one key to go on. */
export function Land({
  panel,
  sent,
  onAct,
}: {
  panel: Panel;
  /** Wires with an entry that is on this device only. */
  sent: ReadonlySet<string>;
  onAct: (made: Made) => void;
}) {
  const [picked, setPicked] = useState("");
  const [isSilent, setSilent] = useState(false);
  const [said, setSaid] = useState("");
  const [tool, setTool] = useState("");
  const [unit, setUnit] = useState("in-lb");
  const todo = panel.wires.filter(
    (wire) => !["none", "other"].includes(leftOf(wire, panel.me)) && !sent.has(wire.id),
  );
  const wire = panel.wires.find((one) => one.id === picked) ?? todo[0];
  const left = wire ? leftOf(wire, panel.me) : "none";
  const about = (one: Wire) => ({ wire: one.id, ends: [one.start, one.end] });
  const landed = panel.wires.filter((one) => one.state === "done" || sent.has(one.id)).length;
  const land = (one: Wire, ok: boolean) => {
    setPicked("");
    const others = panel.wires.filter(
      (other) =>
        other.net === one.net &&
        other.id !== one.id &&
        other.state !== "done" &&
        !sent.has(other.id),
    );
    setSaid(
      ok
        ? others.length === 0
          ? w.completes(one.number, one.does)
          : w.netLeft(one.number, others.length)
        : w.stillOpen(one.number, one.does),
    );
    onAct({
      kind: "landed",
      about: about(one),
      body: { ok, tugged: ok, ...(leftOf(one, panel.me) === "check" ? { check: true } : {}) },
    });
  };
  const here = useRef<HTMLButtonElement>(null);
  const now = wire?.id;
  useEffect(() => {
    // only the list moves, never the page under the thumb
    const row = here.current;
    const list = row?.closest("ul");
    if (now && row && list) list.scrollTop = row.offsetTop - list.offsetTop - 60;
  }, [now]);
  const next = () => {
    if (!wire || left === "torque") return;
    land(wire, true);
  };
  useKeys([
    // a page-turner has two keys: on lands and goes on, back looks at the one before
    { press: "PageDown", does: w.keyLand, run: next },
    { press: "ArrowRight", does: w.keyLand, run: next },
    {
      press: "PageUp",
      does: w.keyBack,
      run: () => {
        const place = panel.wires.findIndex((one) => one.id === wire?.id);
        setPicked(panel.wires[Math.max(0, place - 1)]?.id ?? "");
      },
    },
  ]);
  return (
    <section aria-labelledby="land" className="space-y-3" data-testid="land">
      <h2 id="land" className="stamp">
        {w.landTitle}
      </h2>
      <p className="text-soft">
        {w.landSays} {w.progress(landed, panel.wires.length)}
      </p>
      {panel.line_side.length > 0 && (
        <p className="font-semibold text-live">
          {w.lineSide} <span className="font-mono">{panel.line_side.join(", ")}</span>
        </p>
      )}
      <div className="gap-4 lg:grid lg:grid-cols-[minmax(0,1fr)_minmax(0,18rem)]">
        {wire ? (
          <div className="border-2 border-ink bg-sheet p-4 space-y-3" data-testid="wire">
            <p className="font-headline text-xl">
              {w.wire} {wire.number} · {wire.color} {wire.size} · {w.wireStates[wire.state]}
            </p>
            <p className="grid gap-2 font-mono text-3xl font-bold sm:grid-cols-2">
              <span>{wire.start_said}</span>
              <span>{wire.end_said}</span>
            </p>
            {wire.does && !isSilent && <p className="text-soft">{wire.does}</p>}
            {left === "check" && (
              <p className="font-semibold">
                {w.checkOf(wire.landed_by.map((one) => panel.people[one] ?? one).join(", "))}
              </p>
            )}
            {left === "other" && <p className="font-semibold text-caution">{w.otherChecks}</p>}
            {left === "torque" ? (
              <form
                className="flex flex-wrap items-end gap-2"
                onSubmit={(event) => {
                  event.preventDefault();
                  const form = new FormData(event.currentTarget);
                  const value = String(form.get("value") ?? "").trim();
                  const target = String(form.get("target") ?? "").trim();
                  if (!value || !tool.trim()) return;
                  setPicked("");
                  onAct({
                    kind: "torqued",
                    about: { wire: wire.id },
                    body: { value, unit, tool: tool.trim(), ...(target ? { target } : {}) },
                  });
                }}
              >
                <label className="block">
                  <span className="block text-sm text-soft">{w.torqueValue}</span>
                  <input name="value" className="field w-28!" inputMode="decimal" />
                </label>
                <label className="block">
                  <span className="block text-sm text-soft">{w.torqueTarget}</span>
                  <input name="target" className="field w-28!" inputMode="decimal" />
                </label>
                <Words label={w.torqueUnit} value={unit} onValueChange={setUnit} className="w-24" />
                <Words label={w.torqueTool} value={tool} onValueChange={setTool} className="w-32" />
                <button type="submit" className="control">
                  {w.torqued}
                </button>
              </form>
            ) : (
              <div className="flex flex-wrap gap-2">
                <button
                  type="button"
                  className="control min-h-18 text-xl"
                  data-primary="true"
                  onClick={() => land(wire, true)}
                >
                  {left === "check" ? w.seenLanded : w.landed}
                </button>
                <button type="button" className="control" onClick={() => land(wire, false)}>
                  {w.notLanded}
                </button>
              </div>
            )}
            <Typed
              key={`${wire.id} color`}
              label={w.colorFound(wire.color)}
              does={w.noteIt}
              isNumber={false}
              onDone={(color) => onAct({ kind: "color_seen", about: about(wire), body: { color } })}
            />
            <Elsewhere
              key={`${wire.id} elsewhere`}
              panel={panel}
              wire={wire}
              onFound={(body) => {
                setPicked("");
                onAct({ kind: "different_here", about: about(wire), body });
              }}
            />
            <PhotoKey about={{ wire: wire.id }} panel={panel} onAct={onAct} />
          </div>
        ) : (
          <p className="font-semibold text-proven">{w.allLanded}</p>
        )}
        <div className="space-y-2">
          <Tick isOn={isSilent} onChange={setSilent}>
            {w.silent}
          </Tick>
          {said && !isSilent && (
            <p role="status" data-testid="completes">
              {said}
            </p>
          )}
          <ul className="max-h-[26rem] overflow-y-auto">
            {panel.wires.map((one) => (
              <li key={one.id} className="border-t border-hair">
                <button
                  ref={one.id === wire?.id ? here : undefined}
                  type="button"
                  className={`flex w-full justify-between gap-3 py-1 text-left ${one.id === wire?.id ? "font-bold underline" : ""}`}
                  aria-pressed={one.id === wire?.id}
                  onClick={() => setPicked(one.id)}
                >
                  <span className="font-mono">
                    {one.number} {one.start_said} – {one.end_said}
                  </span>
                  <span className={one.state === "done" ? "text-proven" : "text-soft"}>
                    {sent.has(one.id)
                      ? "…"
                      : leftOf(one, panel.me) === "torque"
                        ? w.toTorque
                        : w.wireStates[one.state]}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </div>
      </div>
    </section>
  );
}

/** The wire goes elsewhere: which end, and to which terminal; the drawing follows by itself. */
function Elsewhere({
  panel,
  wire,
  onFound,
}: {
  panel: Panel;
  wire: Wire;
  onFound: (body: Made["body"]) => void;
}) {
  const [end, setEnd] = useState<string | null>(null);
  const [to, setTo] = useState("");
  const terminals = new Map(
    panel.wires.flatMap((one) => [
      [one.start, one.start_said] as const,
      [one.end, one.end_said] as const,
    ]),
  );
  terminals.delete(wire.start);
  terminals.delete(wire.end);
  const ready = end !== null && to !== "";
  return (
    <details data-testid="elsewhere">
      <summary className="ask">{w.different}</summary>
      <div className="space-y-2 pt-2">
        <Choice
          label={w.whichEnd}
          options={[
            { value: wire.start, label: wire.start_said },
            { value: wire.end, label: wire.end_said },
          ]}
          value={end}
          onValueChange={setEnd}
        />
        <label className="block">
          <span className="block text-sm text-soft">{w.itGoesTo}</span>
          <select
            className="field w-64!"
            value={to}
            onChange={(event) => setTo(event.target.value)}
          >
            <option value="" />
            {[...terminals]
              .sort(([, one], [, other]) => one.localeCompare(other))
              .map(([id, said]) => (
                <option key={id} value={id}>
                  {said}
                </option>
              ))}
          </select>
        </label>
        <button
          type="button"
          className="control"
          disabled={!ready}
          onClick={() =>
            ready && onFound({ found: terminals.get(to) ?? to, from_end: end, to_end: to })
          }
        >
          {w.drawIt}
        </button>
        <p className="text-sm text-soft">{w.elsewhere}</p>
        <Typed
          label={w.found}
          does={w.noteIt}
          isNumber={false}
          onDone={(found) => onFound({ found })}
        />
      </div>
    </details>
  );
}
