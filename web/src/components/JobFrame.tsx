import { type ReactNode, useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { useDevice, useIsNarrow } from "../state/device";
import type { Key } from "../state/keys";
import { useKeys } from "../state/keys";
import { useSession } from "../state/session";
import { useIsOnline } from "../state/useIsOnline";
import type { JobState, Line, Place } from "../state/useJob";
import { words } from "../words/common";
import { frameWords } from "../words/frame";
import { ClashSlab } from "./ClashSlab";
import { Failure, Waiting } from "./Edges";
import { HistorySheet } from "./HistorySheet";
import { KeySheet } from "./KeySheet";
import { LockStrip, useStrip } from "./LockStrip";
import { PrintSheet } from "./PrintSheet";
import { ProblemSlab, Shout, Stop, Tag } from "./shapes";
import { TopBar } from "./TopBar";
import { Tour } from "./Tour";
import { OLD } from "./useAnswer";
import { Winding } from "./Winding";

const ONLY_HERE = frameWords.pageOnly;

function lineWords(line: Line, isOnline: boolean): string {
  if (line.state === "typing") return frameWords.calculatedNotSaved;
  if (line.state === "saving") return frameWords.saving;
  if (line.state === "refused") return ONLY_HERE;
  if (!isOnline) return frameWords.noNetwork;
  return line.version ? frameWords.saved(line.version.at.slice(-5)) : frameWords.saved2;
}

export interface JobFrameProps {
  place: Place;
  step: string;
  state: JobState;
  keys: readonly Key[];
  children: ReactNode;
  /** Right of the work on a wide desk; the screen itself decides what a narrow one does. */
  margin: ReactNode;
  /** The one thing to do next. */
  primary: ReactNode;
  /** What else can be done here: beside the answer at the desk, under the work at the panel. */
  others: ReactNode;
  /** Said first instead of the step's own sentence. */
  headline?: ReactNode;
  /** Behind the whole screen: make-believe is woven, real work is plain. */
  isMakeBelieve?: boolean;
  /** The work takes the whole width and the margin stands below it. */
  isWide?: boolean;
}

/** What all steps of a job share: bar, winding, headline, work, margin, actions. */
export function JobFrame({
  place,
  step,
  state,
  keys,
  children,
  margin,
  primary,
  others,
  headline,
  isMakeBelieve = false,
  isWide = false,
}: JobFrameProps) {
  const navigate = useNavigate();
  const session = useSession();
  const [isHelp, setHelp] = useState(false);
  const [isHistory, setHistory] = useState(false);
  const [isPrint, setPrint] = useState(false);
  const isPanel = useDevice().seat === "panel";
  const isNarrow = useIsNarrow();
  const isOnline = useIsOnline();
  const strip = useStrip(place);
  // at the desk the actions stand beside the answer; at the panel the next one is at the thumb
  const isBar = isPanel || isNarrow;
  const { job, worked, line, refusal } = state;
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  const steps = worked?.states.map((item) => item.step) ?? [];
  const beside = (by: number) =>
    steps[(steps.indexOf(step as "plate") + by + steps.length) % steps.length];
  const all: Key[] = [
    ...keys,
    { press: "[", does: frameWords.previousStep, run: () => navigate(`${base}/${beside(-1)}`) },
    { press: "]", does: frameWords.nextStep, run: () => navigate(`${base}/${beside(1)}`) },
    { press: "g p", does: frameWords.goNameplate, run: () => navigate(`${base}/plate`) },
    { press: "g l", does: frameWords.goLeads, run: () => navigate(`${base}/leads`) },
    { press: "g j", does: frameWords.goJoints, run: () => navigate(`${base}/joints`) },
    { press: "g i", does: frameWords.identifyLeads, run: () => navigate(`${base}/bench`) },
    { press: "h", does: frameWords.historyStep, run: () => setHistory(true) },
    { press: "g s", does: frameWords.goSize, run: () => navigate(`${base}/size`) },
    { press: "g y", does: frameWords.goMotors, run: () => navigate(`/w/${place.works}`) },
    { press: "g t", does: frameWords.goStarter, run: () => navigate(`${base}/starter`) },
    { press: "g d", does: frameWords.goDrawings, run: () => navigate(`${base}/drawings`) },
    { press: "g c", does: frameWords.goDeadCheck, run: () => navigate(`${base}/check`) },
    { press: "g r", does: frameWords.goRehearse, run: () => navigate(`${base}/rehearse`) },
    { press: "g f", does: frameWords.goTrouble, run: () => navigate(`${base}/trouble`) },
    { press: "p", does: frameWords.printPack, run: () => setPrint(true) },
    { press: "?", does: frameWords.keysScreen, run: () => setHelp(true) },
  ];
  useKeys(all);
  useEffect(() => {
    document.title = frameWords.evenCoil2(place.tag, words.steps[step] ?? "");
  }, [place.tag, step]);
  if (state.error) return <Failure error={state.error} />;
  // a strip that came later would push the page under a thumb
  if (!job || !worked || strip.isPending) return <Waiting />;
  const printButton = (
    <button type="button" className="control" aria-keyshortcuts="p" onClick={() => setPrint(true)}>
      {frameWords.print}
    </button>
  );
  const shown = worked.states.find((item) => item.step === step);
  const version =
    job.versions[{ drawings: "starter", check: "starter", rehearse: "starter" }[step] ?? step];
  return (
    <>
      <TopBar
        crumbs={[
          { name: job.works, to: `/w/${place.works}` },
          { name: job.machine },
          { name: `${job.tag} ${job.name}` },
        ]}
        line={refusal ? ONLY_HERE : lineWords(line, isOnline)}
        who={session.data?.display_name ?? ""}
        onHelp={() => setHelp(true)}
      />
      <Winding
        arches={worked.states.map((item) => ({
          step: item.step,
          state: job.is_stale ? "stale" : item.state,
        }))}
        here={step}
        to={(name) => `${base}/${name}`}
      />
      <LockStrip place={place} query={strip} />
      <Tour base={base} step={step} />
      <div
        data-make-believe={isMakeBelieve}
        className={`mx-auto grid max-w-[1280px] gap-x-6 px-4 pt-3 ${isBar ? "pb-32" : "pb-10"} ${isWide ? "" : "lg:grid-cols-[minmax(0,1fr)_400px]"}`}
      >
        <section
          aria-label={frameWords.answer}
          className="flex min-w-0 items-start gap-x-6 pb-3 lg:col-span-full"
        >
          <div className="min-w-0 flex-1">
            <Shout>{headline ?? shown?.headline}</Shout>
          </div>
          {!isBar && (
            <div className="flex shrink-0 items-center gap-2 print:hidden" data-testid="actions">
              {others}
              {printButton}
              {primary}
            </div>
          )}
        </section>
        <main className="min-w-0 space-y-4">
          {job.is_stale && (
            <Stop strength="hold" title={frameWords.nameplateWasRead}>
              <button
                type="button"
                className="control"
                onClick={() => void state.takeNewestPlate()}
              >
                {frameWords.useNewestReading}
              </button>
            </Stop>
          )}
          {state.clash && <ClashSlab state={state} />}
          {refusal && (
            <ProblemSlab problem={refusal.problem}>
              <p>{OLD}</p>
            </ProblemSlab>
          )}
          {line.state === "refused" && !state.clash && <ProblemSlab problem={line.problem} />}
          {children}
          {isPanel && (
            <div className="flex flex-wrap gap-3">
              {others}
              {printButton}
            </div>
          )}
          {version && version.n > 0 && (
            <p className="flex flex-wrap items-center gap-2 text-sm text-soft">
              {frameWords.version(version.n)}{" "}
              <Tag who={version.by} when={version.at} source={version.source} />
              <button type="button" className="ask" onClick={() => setHistory(true)}>
                {frameWords.history}
              </button>
            </p>
          )}
        </main>
        <aside aria-label={frameWords.margin} className="min-w-0 pt-4 lg:pt-0">
          {margin}
        </aside>
      </div>
      {isBar && (primary || !isPanel) && (
        <footer className="fixed inset-x-0 bottom-0 z-10 border-t-2 border-ink bg-sheet print:hidden">
          <div className="mx-auto flex max-w-[1280px] flex-wrap items-center gap-3 px-4 py-2">
            {primary}
            {!isPanel && others}
            {/* in a place of its own: what comes before it may appear under a finger on its way */}
            {!isPanel && <div className="ml-auto">{printButton}</div>}
          </div>
        </footer>
      )}
      {isHistory && (
        <HistorySheet place={place} step={step} state={state} onClose={() => setHistory(false)} />
      )}
      {isPrint && <PrintSheet place={place} state={state} onClose={() => setPrint(false)} />}
      <KeySheet
        keys={all}
        isOpen={isHelp}
        onOpenChange={setHelp}
        screen={step}
        tour={`${base}/plate?tour`}
      />
    </>
  );
}
