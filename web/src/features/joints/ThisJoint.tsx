import type { Schemas } from "../../api/client";
import { Choice, Reading } from "../../components/inputs";
import { Tag } from "../../components/shapes";
import type { Given } from "../../state/useJob";
import { jointsWords } from "../../words/joints";
import { inPlantNames } from "../../words/names";
import { Checks } from "../plate/Checks";
import { Stack } from "./BoxPicture";

type Method = NonNullable<Given["joints"]["method"]>;
type Work = NonNullable<Given["joints"]["work"]>[number];
type Joint = Schemas["JointPlanOut"];

export const METHODS: readonly { value: Method; label: string }[] = [
  { value: "ring_bolt", label: jointsWords.boltedRings },
  { value: "split_bolt", label: jointsWords.splitBolt },
  { value: "set_screw_tap", label: jointsWords.setScrewConnector },
  { value: "crimp", label: jointsWords.crimp },
  { value: "twist_on", label: jointsWords.twist },
];

const TUGGED: readonly string[] = ["crimp", "twist_on"];

/** One joint: how it is made, and the record that it was. */
export function ThisJoint({
  joint,
  record,
  onWorkChange: setWork,
  onRest,
}: {
  joint: Joint;
  record: Work | undefined;
  onWorkChange: (change: Partial<Work>) => void;
  onRest: () => void;
}) {
  return (
    <section aria-labelledby="this-joint" className="space-y-3 pt-3">
      <h2 id="this-joint" className="font-headline text-2xl font-bold">
        {jointsWords.joint2(joint.ends.map(inPlantNames).join(" "))}
      </h2>
      <p className="font-mono">
        {jointsWords.conductorsAwgKcmil(joint.sizes.length, joint.sizes.join(", "))}
      </p>
      <Checks findings={joint.findings} />
      <Stack joint={joint} />
      <div className="flex flex-wrap items-end gap-4">
        <Choice
          label={jointsWords.size2}
          options={METHODS}
          value={joint.method as Method}
          onValueChange={(method) => setWork({ method })}
        />
        {joint.rubber + joint.vinyl > 0 && (
          <>
            <Choice
              label={jointsWords.rubber}
              options={[1, 2, 3].map((count) => ({ value: count, label: String(count) }))}
              value={joint.rubber}
              onValueChange={(rubber) => setWork({ rubber })}
            />
            <Choice
              label={jointsWords.vinyl}
              options={[1, 2, 3].map((count) => ({ value: count, label: String(count) }))}
              value={joint.vinyl}
              onValueChange={(vinyl) => setWork({ vinyl })}
            />
          </>
        )}
      </div>
      <div className="metal flex flex-wrap items-end gap-4 px-5 py-3" data-testid="record">
        {TUGGED.includes(joint.method) ? (
          <Choice
            label={jointsWords.pullTest}
            options={[
              { value: true, label: jointsWords.held },
              { value: false, label: jointsWords.cameOut },
            ]}
            value={record?.tug_held}
            onValueChange={(tug_held) => setWork({ tug_held })}
          />
        ) : (
          <Reading
            label={jointsWords.torqueFromConnector}
            unit={jointsWords.lb}
            value={record?.torque_in_lb}
            onValueChange={(torque_in_lb) => setWork({ torque_in_lb })}
            onRest={onRest}
          />
        )}
        {record?.by && <Tag who={record.by} when={(record.at ?? "").slice(0, 10)} />}
        {joint.is_recorded && (
          <span className="font-semibold text-proven">{jointsWords.recorded}</span>
        )}
      </div>
    </section>
  );
}
