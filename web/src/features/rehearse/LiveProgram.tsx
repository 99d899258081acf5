import { useState } from "react";
import { programWords } from "../../words/program";
import { rehearseWords as w } from "../../words/rehearse";
import { Contact, contactOf, End, Part, Wire } from "../program/RungPicture";
import type { Rung, When } from "../program/rungTree";
import type { Relay } from "../program/useProgram";
import type { Shown } from "./programs";

/** How a contact is drawn: without power from its left it is outlined, with power it is filled. */
const LOOKS: Record<string, string> = {
  "0": "text-soft",
  "1": "outline-2 outline-ink -outline-offset-2",
  "2": "bg-ink text-sheet",
};

/** The places of a tree's contacts, in the order in which they are drawn. */
function placesOf(when: When): readonly When[] {
  const parts = (when.series ?? when.parallel) as When[] | undefined;
  return parts ? parts.flatMap(placesOf) : [when];
}

/** A program while it runs: rungs with the contacts that carry power, or text with its values. */
export function LiveProgram({ relay, shown, word }: { relay: Relay; shown: Shown; word: string }) {
  const [isText, setText] = useState(false);
  const state = w.programStates[word];
  return (
    <section aria-label={`${programWords.view} ${relay.tag}`} data-testid="live-program">
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <b className="font-mono">{relay.tag}</b>
        {state && <span className="font-semibold text-caution">{state}</span>}
        {([false, true] as const).map((is) => (
          <button
            key={String(is)}
            type="button"
            className="control"
            aria-pressed={isText === is}
            onClick={() => setText(is)}
          >
            {is ? programWords.text : programWords.rungs}
          </button>
        ))}
        <span className="text-sm text-soft">{isText ? w.valuesAfterScan : w.filledCarries}</span>
      </div>
      <ol className="space-y-1">
        {relay.networks.map((one, place) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a network is its place, two may be alike
          <li key={place} className="overflow-x-auto border-2 border-hair bg-sheet p-2">
            {isText || "text" in one.rung ? (
              <TextNetwork text={one.text} names={one.names} values={shown.values} />
            ) : (
              <LiveRung rung={one.rung} flow={shown.flows[place] ?? ""} values={shown.values} />
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

function LiveRung({ rung, flow, values }: { rung: Rung; flow: string; values: Shown["values"] }) {
  const [marks = "", power = ""] = flow.split(":");
  const places = placesOf(rung.when as When);
  const target = String(rung.coil ?? rung.negated ?? rung.set ?? rung.reset ?? "");
  const worth = (name: string) => values[name];
  return (
    <div className="flex items-end">
      <span aria-hidden="true" className="self-stretch border-l-4 border-ink" />
      <Part
        when={rung.when as When}
        contact={(when) => {
          const mark = marks[places.indexOf(when)] ?? "";
          const { said } = contactOf(when);
          const name = String(when.no ?? when.nc ?? "");
          return (
            <span
              role="img"
              className="flex min-h-9 items-end"
              aria-label={`${said}: ${w.contactStates[mark] ?? w.notRunning}`}
            >
              <Contact when={when} worth={worth(name)} className={LOOKS[mark] ?? "text-soft"} />
            </span>
          );
        }}
      />
      <Wire />
      <span
        role="img"
        aria-label={`${String(rung.call ?? target)}: ${power === "1" ? w.hasPower : w.noPower}`}
      >
        <End
          rung={rung}
          worth={target ? worth : undefined}
          className={power === "1" ? "bg-ink text-sheet" : ""}
        />
        {"call" in rung && <BlockValues block={String(rung.call)} values={values} />}
      </span>
    </div>
  );
}

/** What a block shows, beside it. */
function BlockValues({ block, values }: { block: string; values: Shown["values"] }) {
  const own = Object.entries(values).filter(([name]) => name.startsWith(`${block}.`));
  return (
    <span className="ml-2 font-mono text-sm">
      {own.map(([name, value]) => (
        <span key={name} className="mr-2">
          {name.slice(block.length + 1)} <b>{value}</b>
        </span>
      ))}
    </span>
  );
}

function TextNetwork({
  text,
  names,
  values,
}: {
  text: string;
  names: readonly string[];
  values: Shown["values"];
}) {
  return (
    <div className="font-mono text-sm">
      <pre className="whitespace-pre-wrap">{text}</pre>
      <p className="flex flex-wrap gap-x-3 text-soft">
        {names.map((name) => (
          <span key={name}>
            {name} <b className="text-ink">{values[name] ?? "–"}</b>
          </span>
        ))}
      </p>
    </div>
  );
}
