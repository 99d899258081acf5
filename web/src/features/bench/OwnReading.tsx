import { useState } from "react";
import { Choice, Reading, Words } from "../../components/inputs";
import { benchWords } from "../../words/bench";
import { said, type Taken } from "./readings";

type What = "touch" | "rest" | "running" | "kick";
type Needle = Extract<Taken, { what: "kick" }>["needle"];

const words = (text: string) =>
  text
    .toLowerCase()
    .split(/[\s,]+/)
    .filter(Boolean);

/** Two lead letters written as "d-e", several with spaces. */
function pairs(text: string): [string, string][] {
  return words(text).map((word) => {
    const [one = "", other = ""] = word.split("-");
    return [one, other];
  });
}

export interface OwnReadingProps {
  leadLetters: readonly string[];
  onAdd: (reading: Taken) => void;
}

/** A reading the electrician took unasked: a touch, volts at rest, or volts of the running motor. */
export function OwnReading({ leadLetters, onAdd }: OwnReadingProps) {
  const [what, setWhat] = useState<What>("touch");
  const [feed, setFeed] = useState("");
  const [feedV, setFeedV] = useState<string | null>(null);
  const [joined, setJoined] = useState("");
  const [read, setRead] = useState("");
  const [shown, setShown] = useState<string | null>(null);
  const [isOpen, setOpen] = useState(false);
  const [needle, setNeedle] = useState<Needle | null>(null);
  const fed = words(feed);
  const [one = "", other = ""] = words(read.replace("-", " "));
  const wanted = what === "running" ? 3 : 2;
  const isVolts = what === "rest" || what === "running";
  const joins = pairs(joined);
  const missing = [
    ...(one && other && one !== other ? [] : [benchWords.twoLeadsRead]),
    ...[...fed, one, other, ...joins.flat()]
      .filter((name) => name && !leadLetters.includes(name))
      .map((name) => benchWords.noLead(name)),
    ...(what !== "touch" && fed.length !== wanted
      ? [benchWords.countedWantedLead(wanted, fed.length)]
      : []),
    ...(joins.some((pair) => pair.includes("")) ? [benchWords.writeJoinD] : []),
    ...(isVolts && !feedV ? [benchWords.voltageFeed] : []),
    ...(isVolts && !shown ? [benchWords.meterReading] : []),
    ...(what === "kick" && !needle ? [benchWords.wayOfNeedle] : []),
  ];
  const make = (): Taken => {
    if (what === "touch") {
      return { what: "touch", pair: [one, other], rings: !isOpen, ohms: isOpen ? null : shown };
    }
    if (what === "kick") {
      const [plus = "", minus = ""] = fed;
      return { what: "kick", feed: [plus, minus], read: [one, other], needle: needle ?? "still" };
    }
    return {
      what: "volts",
      feed: fed,
      feed_v: feedV ?? "",
      joined: joins,
      read: [one, other],
      volts: shown ?? "",
    };
  };
  return (
    <div className="space-y-3" data-testid="own-reading">
      <Choice
        options={[
          { value: "touch", label: benchWords.ohms },
          { value: "rest", label: benchWords.voltsRest },
          { value: "running", label: benchWords.voltsMotorRunning },
          { value: "kick", label: benchWords.batteryKick },
        ]}
        value={what}
        onValueChange={(next) => setWhat(next as What)}
      />
      {what === "running" && (
        <p className="border-l-4 border-caution pl-3 text-sm">{benchWords.onlyMotorUncoupled}</p>
      )}
      {what === "kick" && <p className="text-sm">{benchWords.howToKick}</p>}
      <div className="flex flex-wrap items-end gap-3">
        {what === "kick" && (
          <Words
            label={benchWords.batteryOn}
            value={feed}
            onValueChange={setFeed}
            placeholder="a b"
            className="w-28"
          />
        )}
        {isVolts && (
          <>
            <Words
              label={what === "running" ? benchWords.fedLL : benchWords.fed}
              value={feed}
              onValueChange={setFeed}
              placeholder={what === "running" ? "a b c" : "a b"}
              className="w-28"
            />
            <Reading
              label={benchWords.feed}
              unit="V"
              value={feedV}
              onValueChange={setFeedV}
              className="w-20"
            />
            <Words
              label={benchWords.joinedIfAny}
              value={joined}
              onValueChange={setJoined}
              placeholder="d-e"
              className="w-28"
            />
          </>
        )}
        <Words
          label={what === "kick" ? benchWords.meterOn : benchWords.readBetween}
          value={read}
          onValueChange={setRead}
          placeholder="g h"
          className="w-24"
        />
        {what === "kick" && (
          <Choice
            label={benchWords.onConnecting}
            options={[
              { value: "up", label: benchWords.needle.up },
              { value: "down", label: benchWords.needle.down },
              { value: "still", label: benchWords.needle.still },
            ]}
            value={needle}
            onValueChange={(next) => setNeedle(next as Needle)}
          />
        )}
        {what !== "kick" && !(what === "touch" && isOpen) && (
          <Reading
            label={benchWords.meter2}
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
            {benchWords.ol}
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
            setNeedle(null);
          }}
        >
          {benchWords.addReading}
        </button>
      </div>
      <p className="text-sm text-soft" role="status">
        {missing.length > 0 ? benchWords.stillMissing(missing.join("; ")) : said(make())}
      </p>
    </div>
  );
}
