import { useState } from "react";
import { Link } from "react-router";
import { Choice } from "../../components/inputs";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { ProblemSlab } from "../../components/shapes";
import type { Key } from "../../state/keys";
import { useWorks } from "../../state/session";
import type { Given } from "../../state/useJob";
import { jointsWords } from "../../words/joints";
import { BoxPicture } from "./BoxPicture";
import { Housing } from "./Housing";
import { METHODS, ThisJoint } from "./ThisJoint";

type Joints = Given["joints"];

type Work = NonNullable<Joints["work"]>[number];

/** Do the joints fit, how is each made, and was each made? */
export function JointsScreen() {
  const { place, state } = useRoom();
  const { given, worked } = state;
  const works = useWorks(place.works);
  const [at, setAt] = useState("");
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
  return (
    <JobFrame
      place={place}
      step="joints"
      state={state}
      keys={keys}
      margin={
        plan &&
        given && (
          <Housing
            plan={plan}
            worked={worked}
            joints={given.joints}
            works={works}
            onJointsChange={set}
            onRest={() => void state.keep()}
          />
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
          <Choice
            label={jointsWords.groundLands}
            options={[
              { value: "", label: jointsWords.notLooked },
              { value: "terminal", label: jointsWords.groundTerminal },
              { value: "frame_bolt", label: jointsWords.frameBolt },
              { value: "none", label: jointsWords.notLanded },
            ]}
            value={given.joints.ground_landing ?? ""}
            onValueChange={(ground_landing) => set({ ground_landing })}
          />
          <BoxPicture
            plan={plan}
            volumeIn3={volume ? Number(volume) : null}
            here={joint.id}
            onPick={setAt}
          />
          <ThisJoint
            joint={joint}
            record={record}
            onWorkChange={setWork}
            onRest={() => void state.keep()}
          />
        </div>
      )}
    </JobFrame>
  );
}
