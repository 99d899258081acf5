import { useState } from "react";
import { Link } from "react-router";
import { Choice, Words } from "../../components/inputs";
import type { Held } from "../../state/outbox";
import { panelWords as w } from "../../words/panel";
import { PhotoKey } from "./PhotoKey";
import { ENDS, TURNS } from "./turns";
import type { Made, Panel } from "./usePanel";

type Body = Record<string, unknown>;

/** Everything of one kind that was recorded, kept or on this device only, oldest first. */
function recorded(panel: Panel, held: readonly Held[], kind: string): Body[] {
  return [
    ...panel.entries.filter((one) => one.kind === kind && one.answer.startsWith("kept")),
    ...held.filter((one) => !one.refused && one.act.kind === kind).map((one) => one.act),
  ].map((one) => ({ ...one.about, ...one.body }));
}

/** How it ran before it was touched: turn seen from where, and amps of three lines. */
export function ranBefore(panel: Panel, held: readonly Held[]): Body | undefined {
  return recorded(panel, held, "note")
    .filter((one) => one.ran_before)
    .at(-1);
}

/** Before a motor comes off: how it ran, then every conductor with tag, terminal and color. */
export function Disconnect({
  panel,
  held,
  base,
  onAct,
}: {
  panel: Panel;
  held: readonly Held[];
  base: string;
  onAct: (made: Made) => void;
}) {
  const isIn = panel.hands.includes(panel.me);
  const conductors = recorded(panel, held, "conductor_recorded");
  const before = ranBefore(panel, held);
  return (
    <section aria-labelledby="disconnect" className="space-y-4" data-testid="disconnect">
      <h2 id="disconnect" className="stamp">
        {w.disconnectTitle}
      </h2>
      <p className="text-soft">{w.disconnectSays}</p>
      {before ? (
        <p className="font-semibold" data-testid="before">
          {w.ranSo(
            String(before.turn ?? ""),
            String(before.viewpoint ?? ""),
            [before.L1, before.L2, before.L3].filter(Boolean).join(" / "),
          )}
        </p>
      ) : (
        <Before onAct={onAct} />
      )}
      {isIn ? (
        <Conductor onAct={onAct} />
      ) : (
        <p className="font-semibold text-live">{w.recordNeedsHands}</p>
      )}
      {conductors.length > 0 && (
        <table className="w-full text-left" data-testid="conductors">
          <thead>
            <tr>
              <th scope="col">{w.tag}</th>
              <th scope="col">{w.terminal}</th>
              <th scope="col">{w.color}</th>
              <th scope="col">{w.remark}</th>
            </tr>
          </thead>
          <tbody>
            {conductors.map((one) => (
              <tr key={JSON.stringify(one)} className="border-t border-hair">
                <td className="font-mono font-bold">{String(one.tag ?? "")}</td>
                <td className="font-mono">{String(one.terminal ?? "")}</td>
                <td>{String(one.color ?? "")}</td>
                <td>{String(one.remark ?? "")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <PhotoKey about={{ item: "terminal box" }} panel={panel} onAct={onAct} />
      <p>
        <Link className="ask" to={`${base}/replace`}>
          {w.comparePlates}
        </Link>{" "}
        <a className="ask" href={`/api${base}/panel/tags.pdf?which=leads`}>
          {w.leadTags}
        </a>
      </p>
    </section>
  );
}

function Before({ onAct }: { onAct: (made: Made) => void }) {
  const [turn, setTurn] = useState<string | null>(null);
  const [viewpoint, setViewpoint] = useState<string | null>(null);
  const [amps, setAmps] = useState<Record<string, string>>({});
  return (
    <form
      className="space-y-2 border-2 border-ink bg-sheet p-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (!turn || !viewpoint) return;
        onAct({ kind: "note", body: { ran_before: true, turn, viewpoint, ...amps } });
      }}
    >
      <p className="font-headline text-xl font-bold">{w.beforeTitle}</p>
      <p className="text-caution">{w.beforeCaution}</p>
      <Choice label={w.seenFrom} options={ENDS} value={viewpoint} onValueChange={setViewpoint} />
      <Choice label={w.turned} options={TURNS} value={turn} onValueChange={setTurn} />
      <div className="flex flex-wrap items-end gap-2">
        {["L1", "L2", "L3"].map((line) => (
          <Words
            key={line}
            label={w.ampsOf(line)}
            value={amps[line] ?? ""}
            unit="A"
            isNumber
            onValueChange={(value) => setAmps((known) => ({ ...known, [line]: value }))}
            className="w-28"
          />
        ))}
        <button type="submit" className="control" disabled={!turn || !viewpoint}>
          {w.noteIt}
        </button>
      </div>
    </form>
  );
}

function Conductor({ onAct }: { onAct: (made: Made) => void }) {
  const [told, setTold] = useState({ tag: "", terminal: "", color: "", remark: "" });
  const fields = ["tag", "terminal", "color", "remark"] as const;
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!told.tag.trim() || !told.terminal.trim()) return;
        const { tag, ...body } = told;
        onAct({ kind: "conductor_recorded", about: { tag: tag.trim() }, body });
        setTold({ tag: "", terminal: "", color: "", remark: "" });
      }}
    >
      {fields.map((field) => (
        <Words
          key={field}
          label={w[field]}
          value={told[field]}
          onValueChange={(value) => setTold((known) => ({ ...known, [field]: value }))}
          className="w-36"
        />
      ))}
      <button type="submit" className="control">
        {w.recordIt}
      </button>
    </form>
  );
}
