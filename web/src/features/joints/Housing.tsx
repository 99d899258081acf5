import { useState } from "react";
import type { Schemas, Worked } from "../../api/client";
import { Choice, Drawer, Reading, Words } from "../../components/inputs";
import { Plate, ProblemSlab } from "../../components/shapes";
import type { useWorks } from "../../state/session";
import type { Given } from "../../state/useJob";
import { jointsWords } from "../../words/joints";
import { Checks } from "../plate/Checks";
import { Slip } from "../size/Slip";
import { WhySheet } from "../size/WhySheet";
import { Colors } from "./Colors";
import { TwistOn } from "./TwistOn";

type Joints = Given["joints"];

const RULES: Record<string, string> = {
  never: jointsWords.plantDoesNot,
  building: jointsWords.plantUsesThem,
  anywhere: jointsWords.plantUsesThemWherever,
};

/** Does everything fit into the terminal housing, and with what measured? */
export function Housing({
  plan,
  worked,
  joints,
  works,
  onJointsChange: set,
  onRest,
}: {
  plan: Schemas["JointsPlanOut"];
  worked: Worked | null;
  joints: Joints;
  works: ReturnType<typeof useWorks>;
  onJointsChange: (change: Partial<Joints>) => void;
  onRest: () => void;
}) {
  const [isWhy, setWhy] = useState(false);
  const volume = joints.usable_volume_in3;
  const ruled = plan.rule;
  return (
    <div className="space-y-4">
      <section aria-labelledby="fit" className="space-y-3">
        <h2 id="fit" className="stamp">
          {jointsWords.housing}
        </h2>
        {plan.rule_refusal && <ProblemSlab problem={plan.rule_refusal} />}
        {ruled && <Slip step={ruled} isOpen={isWhy} onWhy={() => setWhy(!isWhy)} />}
        {ruled && isWhy && worked && (
          <WhySheet worked={worked} step={ruled} onStepChange={() => setWhy(false)} />
        )}
        <Plate>
          <div className="flex flex-wrap gap-4">
            <Reading
              label={jointsWords.measuredVolume}
              unit={jointsWords.inWord}
              value={volume}
              onValueChange={(usable_volume_in3) => set({ usable_volume_in3 })}
              onRest={onRest}
            />
            <Choice
              label={jointsWords.motorOverDiameter}
              options={[
                { value: true, label: jointsWords.yes },
                { value: false, label: jointsWords.no },
              ]}
              value={joints.is_over_11_in}
              onValueChange={(is_over_11_in) => set({ is_over_11_in })}
            />
          </div>
        </Plate>
        <Plate isGuess className="pt-7">
          <p>
            {jointsWords.jointsFreeEnds}{" "}
            <b className="font-mono">{jointsWords.inWord2(plan.bulk_in3)}</b>
            {plan.percent !== null && (
              <>
                , <b className="font-mono">{plan.percent} %</b> {jointsWords.housing2}
              </>
            )}
            .
          </p>
        </Plate>
      </section>
      <Checks findings={plan.findings} />
      {plan.ways_out.length > 0 && (
        <section aria-labelledby="ways" className="space-y-1">
          <h2 id="ways" className="stamp">
            {jointsWords.ifDoesNot}
          </h2>
          <ul className="list-disc pl-5">
            {plan.ways_out.map((way) => (
              <li key={way}>{way}</li>
            ))}
          </ul>
        </section>
      )}
      <Drawer name={jointsWords.conductors}>
        <div className="flex flex-wrap gap-3">
          <Words
            label={jointsWords.lineConductorAwg}
            value={joints.line_size}
            placeholder={plan.joints[0]?.sizes[0] ?? ""}
            onValueChange={(line_size) => set({ line_size })}
            className="w-36"
          />
          <Words
            label={jointsWords.motorLeads}
            value={joints.lead_size}
            placeholder={jointsWords.measuredDiameter}
            onValueChange={(lead_size) => set({ lead_size })}
            className="w-36"
          />
        </div>
      </Drawer>
      <Drawer name={jointsWords.conduitEntry} hint={jointsWords.racewayKnockout}>
        <div className="flex flex-wrap items-end gap-3">
          <Words
            label={jointsWords.raceway}
            value={joints.raceway}
            placeholder="3/4"
            onValueChange={(raceway) => set({ raceway })}
            className="w-24"
          />
          <Words
            label={jointsWords.knockout}
            value={joints.knockout}
            placeholder="1"
            onValueChange={(knockout) => set({ knockout })}
            className="w-24"
          />
          <Choice
            options={[
              { value: false, label: jointsWords.rigid },
              { value: true, label: jointsWords.flexible },
            ]}
            value={joints.is_flexible ?? false}
            onValueChange={(is_flexible) => set({ is_flexible })}
          />
        </div>
        <ul className="list-disc pl-5">
          {plan.parts.map((part) => (
            <li key={part}>{part}</li>
          ))}
        </ul>
      </Drawer>
      <Colors joints={joints} onColorsChange={(colors) => set({ colors })} />
      <TwistOn
        joints={joints}
        rule={RULES[works?.twist_on ?? "building"] ?? ""}
        largest={works?.twist_on_largest ?? ""}
        onJointsChange={set}
      />
    </div>
  );
}
