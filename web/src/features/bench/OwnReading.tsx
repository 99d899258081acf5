import { useState } from "react";
import { Choice, Reading, Words } from "../../components/inputs";
import { said, type Taken } from "./readings";

type What = "touch" | "rest" | "running";

const words = (text: string) =>
  text
    .toLowerCase()
    .split(/[\s,]+/)
    .filter(Boolean);

/** Two sleeves written as "d-e", several with spaces. */
function pairs(text: string): [string, string][] {
  return words(text).map((word) => {
    const [one = "", other = ""] = word.split("-");
    return [one, other];
  });
}

export interface OwnReadingProps {
  sleeves: readonly string[];
  onAdd: (reading: Taken) => void;
}

/** A reading the electrician took unasked: a touch, volts at rest, or volts of the running motor. */
export function OwnReading({ sleeves, onAdd }: OwnReadingProps) {
  const [what, setWhat] = useState<What>("touch");
  const [feed, setFeed] = useState("");
  const [feedV, setFeedV] = useState<string | null>(null);
  const [joined, setJoined] = useState("");
  const [read, setRead] = useState("");
  const [shown, setShown] = useState<string | null>(null);
  const [isOpen, setOpen] = useState(false);
  const fed = words(feed);
  const [one = "", other = ""] = words(read.replace("-", " "));
  const wanted = what === "running" ? 3 : 2;
  const joins = pairs(joined);
  const missing = [
    ...(one && other && one !== other ? [] : ["two sleeves to read"]),
    ...[...fed, one, other, ...joins.flat()]
      .filter((name) => name && !sleeves.includes(name))
      .map((name) => `no sleeve ${name}`),
    ...(what !== "touch" && fed.length !== wanted
      ? [`${wanted} sleeves fed, ${fed.length} given`]
      : []),
    ...(joins.some((pair) => pair.includes("")) ? ["write a join as d-e"] : []),
    ...(what !== "touch" && !feedV ? ["volts of the feed"] : []),
    ...(what !== "touch" && !shown ? ["what the meter shows"] : []),
  ];
  const make = (): Taken =>
    what === "touch"
      ? { what: "touch", pair: [one, other], rings: !isOpen, ohms: isOpen ? null : shown }
      : {
          what: "volts",
          feed: fed,
          feed_v: feedV ?? "",
          joined: joins,
          read: [one, other],
          volts: shown ?? "",
        };
  return (
    <div className="space-y-3" data-testid="own-reading">
      <Choice
        options={[
          { value: "touch", label: "Ohms" },
          { value: "rest", label: "Volts, at rest" },
          { value: "running", label: "Volts, motor running" },
        ]}
        value={what}
        onValueChange={(next) => setWhat(next as What)}
      />
      {what === "running" && (
        <p className="border-l-4 border-caution pl-3 text-sm">
          Only uncoupled, on three fed leads of one group, at reduced volts, guarded; the open leads
          are live with it running: insulate each, read with a permit and gloves, or use the reading
          at rest instead.
        </p>
      )}
      <div className="flex flex-wrap items-end gap-3">
        {what !== "touch" && (
          <>
            <Words
              label={what === "running" ? "Fed by L1 L2 L3" : "Fed"}
              value={feed}
              onValueChange={setFeed}
              placeholder={what === "running" ? "a b c" : "a b"}
              className="w-28"
            />
            <Reading
              label="Feed"
              unit="V"
              value={feedV}
              onValueChange={setFeedV}
              className="w-20"
            />
            <Words
              label="Joined, if any"
              value={joined}
              onValueChange={setJoined}
              placeholder="d-e"
              className="w-28"
            />
          </>
        )}
        <Words
          label="Read between"
          value={read}
          onValueChange={setRead}
          placeholder="g h"
          className="w-24"
        />
        {!(what === "touch" && isOpen) && (
          <Reading
            label="Meter"
            unit={what === "touch" ? "Ω" : "V"}
            value={shown}
            onValueChange={setShown}
            className="w-20"
          />
        )}
        {what === "touch" && (
          <button
            type="button"
            className="control"
            aria-pressed={isOpen}
            onClick={() => setOpen(!isOpen)}
          >
            OL
          </button>
        )}
        <button
          type="button"
          className="control"
          aria-disabled={missing.length > 0}
          onClick={() => {
            if (missing.length > 0) return;
            onAdd(make());
            setRead("");
            setShown(null);
            setOpen(false);
          }}
        >
          Add this reading
        </button>
      </div>
      <p className="text-sm text-soft" role="status">
        {missing.length > 0 ? `Still missing: ${missing.join("; ")}.` : said(make())}
      </p>
    </div>
  );
}
