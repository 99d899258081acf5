import { Link } from "react-router";
import { Choice, Drawer } from "../../components/inputs";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { ProblemSlab, Stop } from "../../components/shapes";
import type { Key } from "../../state/keys";
import { benchWords } from "../../words/bench";
import { KnownTags } from "./KnownTags";
import { NextReading } from "./NextReading";
import { Done } from "./Numbered";
import { OwnReading } from "./OwnReading";
import { PracticeMotor } from "./PracticeMotor";
import { askWords, Probes } from "./Probes";
import { Grid } from "./ReadingGrid";
import { type Guided, said, type Taken } from "./readings";
import { TakenReadings } from "./TakenReadings";
import { useBench } from "./useBench";

const COUNTS = [6, 9, 12] as const;

function shoutOf(guided: Guided | undefined): string {
  if (!guided) return benchWords.leadTagsMissing;
  if (guided.stage === "done") return benchWords.numbered(guided.kind_names.join(benchWords.or));
  if (guided.stage === "contradiction") return benchWords.leastOneReading;
  if (guided.stage === "stuck") return benchWords.noFurtherReading;
  return guided.ask ? askWords(guided.ask) : "";
}

/** Tags gone: which lead is which, with the fewest readings. */
export function BenchScreen() {
  const { place, state } = useRoom();
  const bench = useBench(place.works, state);
  const { guided, ask, readings, count, isAsking, doubtful, set, answer, undo } = bench;
  const keys: Key[] = [
    { press: "o", does: benchWords.openOl, run: () => answer("", true) },
    { press: "r", does: benchWords.continuityNoValue, run: () => answer("", false) },
    { press: "u", does: benchWords.undoLastReading, run: undo },
    { press: "b", does: benchWords.letPracticeMotor, run: () => void bench.askMotor() },
  ];
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  return (
    <JobFrame
      place={place}
      step="bench"
      state={state}
      keys={keys}
      headline={<span className={ask ? "normal-case" : ""}>{shoutOf(guided)}</span>}
      isMakeBelieve={bench.isMystery}
      margin={
        guided ? (
          <div className="space-y-4">
            <Grid guided={guided} readings={readings} />
            <TakenReadings bench={bench} />
          </div>
        ) : null
      }
      primary={
        <Link to={`${base}/leads`} className="control md:w-auto!" data-primary="true">
          {benchWords.backLeads}
        </Link>
      }
      others={
        <>
          <button type="button" className="control" onClick={undo}>
            {benchWords.undoLastReading}
          </button>
          <button type="button" className="control" onClick={() => window.print()}>
            {benchWords.printTags}
          </button>
        </>
      }
    >
      {bench.bench && (
        <div className="space-y-4">
          <div className="flex flex-wrap gap-x-6 gap-y-2 print:hidden">
            <Choice
              label={benchWords.leadsWithoutTags}
              options={COUNTS.map((value) => ({ value, label: String(value) }))}
              value={(count || null) as 6 | 9 | 12 | null}
              onValueChange={(leads) =>
                set({
                  leads,
                  readings: [],
                  groups: [],
                  known: {},
                  corners: [],
                  same_phase: [],
                  mystery: null,
                  mystery_kind: null,
                })
              }
            />
            <span className="text-sm text-soft">{benchWords.leaveOutHeater}</span>
          </div>
          {count > 0 && bench.slab}
          {guided?.refusal && <ProblemSlab problem={guided.refusal} />}
          {guided && <Probes guided={guided} ask={ask} />}
          {guided?.stage === "contradiction" && isAsking && (
            <Stop strength="hold" title={guided.notes[0] ?? ""}>
              <p>
                {doubtful.length > 0
                  ? benchWords.measureAgainWithout(
                      doubtful
                        .map((at) => `${at + 1}. ${said(readings[at] as Taken)}`)
                        .join(benchWords.or2),
                    )
                  : benchWords.noSingleWrong}
              </p>
              {guided.notes.slice(1).map((note) => (
                <p key={note}>{note}</p>
              ))}
            </Stop>
          )}
          {guided && ask && <NextReading bench={bench} />}
          {guided?.stage === "done" && <Done guided={guided} />}
          {guided?.stage === "stuck" && <p>{guided.notes.join(" ")}</p>}
          {count === 0 && <p>{benchWords.howManyLeads}</p>}
          {guided && (
            <Drawer name={benchWords.yourOwnReading} hint={benchWords.ohmsVoltsRest}>
              <OwnReading leadLetters={guided.lead_letters} onAdd={bench.add} />
            </Drawer>
          )}
          {guided && (
            <Drawer name={benchWords.knownAlready} hint={benchWords.tagsCornersMeter}>
              <KnownTags bench={bench} leadLetters={guided.lead_letters} />
            </Drawer>
          )}
          <PracticeMotor bench={bench} />
        </div>
      )}
    </JobFrame>
  );
}
