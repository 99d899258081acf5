import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { Choice, Drawer } from "../../components/inputs";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { ProblemSlab, Stop } from "../../components/shapes";
import { useDevice } from "../../state/device";
import type { Key } from "../../state/keys";
import { leadsWords } from "../../words/leads";
import { BoxPicture } from "../joints/BoxPicture";
import { BoardPicture } from "./BoardPicture";
import { Changed } from "./Changed";
import { type Joint, sameJoints, takeOut, tap } from "./joints";
import { LeadsMargin } from "./LeadsMargin";
import { CoilTable, LeadButtons } from "./LeadTables";
import { SinglePhase } from "./SinglePhase";
import { StudOrder } from "./StudOrder";
import { Kinds, Switches } from "./Switches";
import { shown, WindingPicture } from "./WindingPicture";

type Sent = { id: string; leads: string[]; line: string | null };

/** Joints as the server sends them, as joints that are given. */
const asGiven = (list: readonly Sent[]): Joint[] =>
  list.map((joint) => ({
    id: joint.id,
    leads: joint.leads,
    line: joint.line as "L1" | "L2" | "L3" | null,
  }));

const SINGLE_KEYS = /^T\d$/;

/** Is this tie right for this supply? Tap two ends to join them, again to part them. */
export function LeadsScreen() {
  const { place, state } = useRoom();
  const { given, worked } = state;
  const isPanel = useDevice().seat === "panel";
  const navigate = useNavigate();
  const [armed, setArmed] = useState<string | null>(null);
  const [shownAt, setShownAt] = useState(0);
  const box = worked?.box;
  const joints: readonly Joint[] = given?.leads.joints ?? [];
  const set = (change: Partial<NonNullable<typeof given>["leads"]>) => {
    if (given) state.change("leads", { ...given.leads, ...change });
  };
  const put = (next: readonly Joint[]) => set({ joints: [...next] });
  const onTap = (end: string) => {
    if (armed === null) setArmed(end);
    else if (armed === end) setArmed(null);
    else {
      put(tap(joints, armed, end));
      setArmed(null);
    }
  };
  const take = (list: readonly Sent[]) => {
    setArmed(null);
    put(asGiven(list));
  };
  const onUntie = () => {
    if (armed) put(takeOut(joints, armed));
    setArmed(null);
  };
  const onFlip = () => {
    const known = box?.known ?? [];
    const next = (shownAt + 1) % Math.max(known.length, 1);
    setShownAt(next);
    if (known[next]) take(known[next].joints);
  };
  const isTaken = Boolean(box?.derived.length) && sameJoints(joints, box?.derived ?? []);
  const thin = (given?.leads.accessories ?? []).flatMap((item) => item.marks ?? []);
  const keys: Key[] = [
    ...(box?.leads ?? [])
      .filter((lead) => SINGLE_KEYS.test(lead))
      .map((lead) => ({
        press: lead.slice(1),
        does: leadsWords.tapLead(lead.slice(1)),
        run: () => onTap(lead),
      })),
    ...(box?.lines ?? []).map((line, number) => ({
      press: "abc"[number] ?? "",
      does: leadsWords.tapLine(shown(line)),
      run: () => onTap(line),
    })),
    { press: "u", does: leadsWords.removeTappedEnd, run: onUntie },
    { press: "d", does: leadsWords.connectBoxDerived, run: () => take(box?.derived ?? []) },
    { press: "f", does: leadsWords.showNextConnection, run: onFlip },
    { press: "x", does: leadsWords.openAllJoints, run: () => put([]) },
  ];
  const volume = given?.joints.usable_volume_in3;
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  return (
    <JobFrame
      place={place}
      step="leads"
      state={state}
      keys={keys}
      margin={
        box &&
        given && (
          <LeadsMargin
            place={place}
            box={box}
            given={given}
            isTaken={isTaken}
            onTake={() => take(box.derived)}
            onLeadsChange={set}
          />
        )
      }
      primary={
        <Link to={`${base}/joints`} className="control md:w-auto!" data-primary="true">
          {leadsWords.joints}
        </Link>
      }
      others={
        <>
          <Link to={`${base}/bench`} className="control">
            {leadsWords.tagsMissingIdentify}
          </Link>
          <Link to={`${base}/replace`} className="control">
            {leadsWords.motorReplaced}
          </Link>
        </>
      }
    >
      {given && worked && box && (
        <div className="space-y-4">
          {box.counts.length > 0 && (
            <Choice
              label={leadsWords.leadsCounted}
              options={box.counts.map((value) => ({ value, label: String(value) }))}
              value={given.leads.lead_count ?? null}
              onValueChange={(lead_count) =>
                set({
                  lead_count: given.leads.lead_count === lead_count ? null : lead_count,
                  winding: null,
                  joints: [],
                })
              }
            />
          )}
          {box.kind === "" && <Kinds box={box} leads={given.leads} onLeadsChange={set} />}
          {box.refusal && <ProblemSlab problem={box.refusal} />}
          {box.verdict === "wrong" && (
            <Stop title={box.findings[0]?.text ?? ""}>
              <p>{box.findings[0]?.hint}</p>
              {box.findings.slice(1).map((found) => (
                <p key={found.code}>
                  <b>{found.text}</b> {found.hint}
                </p>
              ))}
            </Stop>
          )}
          {box.kind ? (
            <>
              <div className="flex flex-wrap items-center justify-between gap-3">
                <p className="text-soft" role="status">
                  {armed
                    ? leadsWords.selectedTapWhat(shown(box.marks[armed] ?? armed))
                    : leadsWords.tapTwoEnds}
                </p>
                <div className="flex flex-wrap items-center gap-3">
                  <button type="button" className="control" onClick={onUntie}>
                    {armed
                      ? leadsWords.remove2(shown(box?.marks[armed] ?? armed))
                      : leadsWords.removeTapEnd}
                  </button>
                  <button type="button" className="control" onClick={() => put([])}>
                    {leadsWords.openAllJoints}
                  </button>
                  <Choice
                    options={[
                      { value: false, label: leadsWords.flyingLeads },
                      { value: true, label: leadsWords.studBoard },
                    ]}
                    value={Boolean(given.leads.board)}
                    onValueChange={(isBoard) =>
                      set({ board: isBoard ? { rows: [], jumpers: 0, nuts_per_stud: 3 } : null })
                    }
                  />
                </div>
              </div>
              <WindingPicture box={box} joints={joints} armed={armed} onTap={onTap} />
              <Changed box={box} />
              <Switches box={box} leads={given.leads} onLeadsChange={set} onTry={take} />
              {box.start && (
                <SinglePhase
                  start={box.start}
                  single={given.leads.single}
                  onSingleChange={(single) => set({ single })}
                />
              )}
              {box.kinds.length > 1 && (
                <Drawer name={leadsWords.windingType} hint={box.kind_name}>
                  <Kinds box={box} leads={given.leads} onLeadsChange={set} />
                </Drawer>
              )}
              {given.leads.board && (
                <>
                  <BoardPicture
                    box={box}
                    joints={joints.length > 0 ? joints : asGiven(box.derived)}
                    armed={armed}
                    onTap={onTap}
                  />
                  <StudOrder box={box} board={given.leads.board} onBoardChange={set} />
                </>
              )}
              {(isPanel || thin.length > 0) && (
                <LeadButtons box={box} more={thin} armed={armed} onTap={onTap} />
              )}
              {worked.joints && (
                <section aria-labelledby="box-to-scale" className="space-y-2">
                  <h2 id="box-to-scale" className="stamp text-soft">
                    {leadsWords.theBox}
                  </h2>
                  <BoxPicture
                    plan={worked.joints}
                    volumeIn3={volume ? Number(volume) : null}
                    here=""
                    onPick={() => navigate(`${base}/joints`)}
                  />
                </section>
              )}
              <CoilTable box={box} />
              <p className="text-sm text-soft">
                {box.phases === 3 ? leadsWords.calculatedCage : leadsWords.calculatedSingle}
              </p>
            </>
          ) : (
            <p>{leadsWords.pictureNeedsNumber}</p>
          )}
        </div>
      )}
    </JobFrame>
  );
}
