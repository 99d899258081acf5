import { useState } from "react";
import { Link } from "react-router";
import { Choice, Drawer, Reading, Words } from "../../components/inputs";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { Plate, ProblemSlab, Tag } from "../../components/shapes";
import type { Key } from "../../state/keys";
import { useWorks } from "../../state/session";
import type { Given } from "../../state/useJob";
import { jointsWords } from "../../words/joints";
import { Checks } from "../plate/Checks";
import { Slip } from "../size/Slip";
import { WhySheet } from "../size/WhySheet";
import { BoxPicture, Stack } from "./BoxPicture";
import { Colours } from "./Colors";
import { TwistOn } from "./TwistOn";

type Joints = Given["joints"];

type Method = NonNullable<Joints["method"]>;

type Work = NonNullable<Joints["work"]>[number];

const METHODS: readonly { value: Method; label: string }[] = [
  { value: "ring_bolt", label: jointsWords.boltedRings },
  { value: "split_bolt", label: jointsWords.splitBolt },
  { value: "set_screw_tap", label: jointsWords.setScrewConnector },
  { value: "crimp", label: jointsWords.crimp },
  { value: "twist_on", label: jointsWords.twist },
];

const TUGGED: readonly string[] = ["crimp", "twist_on"];

const RULES: Record<string, string> = {
  never: jointsWords.plantDoesNot,
  building: jointsWords.plantUsesThem,
  anywhere: jointsWords.plantUsesThemWherever,
};

/** Do the joints fit, how is each made, and was each made? */
export function JointsScreen() {
  const { place, state } = useRoom();
  const { given, worked } = state;
  const works = useWorks(place.works);
  const [at, setAt] = useState("");
  const [isWhy, setWhy] = useState(false);
  const plan = worked?.joints ?? null;
  const joint = plan?.joints.find((item) => item.id === at) ?? plan?.joints[0];
  const set = (change: Partial<Joints>) => {
    if (given) state.change("joints", { ...given.joints, ...change });
  };
  const work = given?.joints.work ?? [];
  const record = work.find((item) => item.joint === joint?.id);
  const setWork = (change: Partial<Work>) => {
    if (!joint) return;
    const base: Work = record ?? {
      joint: joint.id,
      method: null,
      rubber: 2,
      vinyl: 2,
      torque_in_lb: null,
      tug_held: null,
      by: "",
      at: "",
    };
    set({
      work: [...work.filter((item) => item.joint !== joint.id), { ...base, ...change }],
    });
  };
  const move = (by: number) => {
    const list = plan?.joints ?? [];
    const from = list.findIndex((item) => item.id === joint?.id);
    setAt(list[(from + by + list.length) % list.length]?.id ?? "");
  };
  const next = () => {
    const open = plan?.joints.find((item) => !item.is_recorded && item.id !== joint?.id);
    if (open) setAt(open.id);
  };
  const keys: Key[] = [
    { press: "ArrowRight", does: jointsWords.nextJoint, run: () => move(1) },
    { press: "ArrowLeft", does: jointsWords.previousJoint, run: () => move(-1) },
    { press: "PageDown", does: jointsWords.nextJointWithout, run: next },
  ];
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  const volume = given?.joints.usable_volume_in3;
  const ruled = plan?.rule;
  return (
    <JobFrame
      place={place}
      step="joints"
      state={state}
      keys={keys}
      margin={
        plan &&
        given && (
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
                    onRest={() => void state.keep()}
                  />
                  <Choice
                    label={jointsWords.motorOverDiameter}
                    options={[
                      { value: true, label: jointsWords.yes },
                      { value: false, label: jointsWords.no },
                    ]}
                    value={given.joints.is_over_11_in}
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
                  value={given.joints.line_size}
                  placeholder={plan.joints[0]?.sizes[0] ?? ""}
                  onValueChange={(line_size) => set({ line_size })}
                  className="w-36"
                />
                <Words
                  label={jointsWords.motorLeads}
                  value={given.joints.lead_size}
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
                  value={given.joints.raceway}
                  placeholder="3/4"
                  onValueChange={(raceway) => set({ raceway })}
                  className="w-24"
                />
                <Words
                  label={jointsWords.knockout}
                  value={given.joints.knockout}
                  placeholder="1"
                  onValueChange={(knockout) => set({ knockout })}
                  className="w-24"
                />
                <Choice
                  options={[
                    { value: false, label: jointsWords.rigid },
                    { value: true, label: jointsWords.flexible },
                  ]}
                  value={given.joints.is_flexible ?? false}
                  onValueChange={(is_flexible) => set({ is_flexible })}
                />
              </div>
              <ul className="list-disc pl-5">
                {plan.parts.map((part) => (
                  <li key={part}>{part}</li>
                ))}
              </ul>
            </Drawer>
            <Colours joints={given.joints} onColoursChange={(colours) => set({ colours })} />
            <TwistOn
              joints={given.joints}
              rule={RULES[works?.twist_on ?? "building"] ?? ""}
              largest={works?.twist_on_largest ?? ""}
              onJointsChange={set}
            />
          </div>
        )
      }
      primary={
        <Link to={`${base}/size`} className="control md:w-auto!" data-primary="true">
          {jointsWords.size}
        </Link>
      }
      others={
        <button type="button" className="control" onClick={next}>
          {jointsWords.nextJointWithout}
        </button>
      }
    >
      {worked?.joints_refusal && <ProblemSlab problem={worked.joints_refusal} />}
      {plan && given && joint && (
        <div className="space-y-4">
          <Choice
            options={METHODS}
            value={given.joints.method ?? "ring_bolt"}
            onValueChange={(method) => set({ method })}
          />
          <BoxPicture
            plan={plan}
            volumeIn3={volume ? Number(volume) : null}
            here={joint.id}
            onPick={setAt}
          />
          <section aria-labelledby="this-joint" className="space-y-3">
            <h2 id="this-joint" className="font-headline text-2xl font-bold">
              {jointsWords.joint2(joint.ends.join(" "))}
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
                  onRest={() => void state.keep()}
                />
              )}
              {record?.by && <Tag who={record.by} when={(record.at ?? "").slice(0, 10)} />}
              {joint.is_recorded && (
                <span className="font-semibold text-proven">{jointsWords.recorded}</span>
              )}
            </div>
          </section>
        </div>
      )}
    </JobFrame>
  );
}
