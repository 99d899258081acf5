import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Words } from "../../components/inputs";
import { Stop, Tag } from "../../components/shapes";
import { starterWords } from "../../words/starter";

type Starter = Schemas["StarterInputs"];
type Hazard = Schemas["RestartOut"];

function Open({ hazard, onTake }: { hazard: Hazard; onTake: (why: string) => void }) {
  const [why, setWhy] = useState("");
  const [isAsked, setAsked] = useState(false);
  return (
    <Stop strength="hold" title={hazard.label}>
      <Words label={starterWords.whyAcceptableHere} value={why} onValueChange={setWhy} />
      {isAsked && why.trim().length < 3 && (
        <p role="status" className="text-caution">
          {starterWords.enterReasonFirst}
        </p>
      )}
      <button
        type="button"
        className="control"
        onClick={() => (why.trim().length < 3 ? setAsked(true) : onTake(why.trim()))}
      >
        {starterWords.accept}
      </button>
    </Stop>
  );
}

/** What this circuit does that nobody asks for: taken on by name and reason, or cured. */
export function Hazards({
  hazards,
  starter,
  maySign,
  onChange,
}: {
  hazards: readonly Hazard[];
  starter: Starter;
  maySign: boolean;
  onChange: (starter: Starter) => void;
}) {
  const taken = starter.accepted ?? [];
  const cure = () =>
    onChange({ ...starter, options: { ...(starter.options ?? {}), estop: "reset_relay" } });
  return (
    <div className="space-y-3" data-testid="hazards">
      {hazards.map((hazard) => {
        if (hazard.never) {
          return (
            <Stop key={hazard.code} title={hazard.label}>
              <p>{starterWords.cannotAcceptedSeparate}</p>
              <button type="button" className="control" onClick={cure}>
                {starterWords.drawReset}
              </button>
            </Stop>
          );
        }
        const known = taken.find((one) => one.hazard === hazard.code);
        if (hazard.accepted && known) {
          return (
            <p key={hazard.code} className="flex flex-wrap items-baseline gap-x-3">
              <b>{hazard.label}.</b>
              {known.by && (
                <Tag who={known.by} when={(known.at ?? "").slice(0, 16).replace("T", " ")} />
              )}
              <span>{known.why}</span>
              <button
                type="button"
                className="ask"
                onClick={() =>
                  onChange({
                    ...starter,
                    accepted: taken.filter((one) => one.hazard !== hazard.code),
                  })
                }
              >
                {starterWords.withdraw}
              </button>
            </p>
          );
        }
        if (!maySign) {
          return (
            <Stop key={hazard.code} strength="hold" title={hazard.label}>
              <p>{starterWords.acceptedBySigner}</p>
            </Stop>
          );
        }
        return (
          <Open
            key={hazard.code}
            hazard={hazard}
            onTake={(why) =>
              onChange({
                ...starter,
                accepted: [...taken, { hazard: hazard.code as "power_back", why, by: "", at: "" }],
              })
            }
          />
        );
      })}
    </div>
  );
}
