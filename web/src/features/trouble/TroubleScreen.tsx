import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { Refused } from "../../api/client";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { ProblemSlab } from "../../components/shapes";
import { words } from "../../words/common";
import { troubleWords as w } from "../../words/trouble";
import { Begin } from "./Begin";
import { Closing } from "./Closing";
import { Next } from "./Next";
import { Still } from "./Still";
import { Taken } from "./Taken";
import { useHunt, useSymptoms } from "./useHunt";
import { Where } from "./Where";

/** What is wrong with it? The next best reading until one cause is left, and what proves it. */
export function TroubleScreen() {
  const { place, state } = useRoom();
  const [params, setParams] = useSearchParams();
  const n = Number(params.get("hunt")) || null;
  const [isClosing, setClosing] = useState(false);
  const [isDead, setDead] = useState(false);
  const symptoms = useSymptoms();
  const room = useHunt(place, n);
  const { hunt, list, problem, isBusy } = room;
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  const open = (which: number | null) => {
    setClosing(false);
    setParams(which === null ? {} : { hunt: String(which) });
  };
  const stands = hunt?.stands;
  const top = stands?.groups[0];
  const headline = !hunt
    ? isBusy
      ? w.playing
      : w.ask
    : hunt.closed
      ? hunt.closed.said
      : stands?.state === "found"
        ? w.found(top?.faults[0] ?? "")
        : stands?.state === "doubt"
          ? w.doubt
          : stands?.state === "none"
            ? w.none
            : stands?.offer
              ? `${stands.offer.is_refuting ? w.refute : w.next(stands.offer.cost)}: ${stands.offer.said}`
              : w.stuck;
  return (
    <JobFrame
      place={place}
      step="trouble"
      state={state}
      keys={[]}
      headline={headline}
      primary={
        hunt && !hunt.closed ? (
          <button
            type="button"
            className="control"
            data-primary={stands?.state === "found"}
            onClick={() => setClosing(true)}
          >
            {w.close}
          </button>
        ) : hunt ? (
          <button type="button" className="control" onClick={() => open(null)}>
            {w.another}
          </button>
        ) : null
      }
      others={
        <>
          <Link to={`${base}/drawings`} className="control">
            {words.steps.drawings}
          </Link>
          <Link to={`/w/${place.works}/which`} className="control">
            {w.which}
          </Link>
        </>
      }
      margin={stands ? <Still stands={stands} odds={hunt?.odds_said ?? ""} /> : null}
    >
      {problem && <ProblemSlab problem={problem} />}
      {room.error instanceof Refused && <ProblemSlab problem={room.error.problem} />}
      {!hunt && n === null && (
        <Begin
          symptoms={symptoms.data ?? []}
          hunts={list}
          motor={`/w/${place.works}/m/${encodeURIComponent(place.tag)}`}
          job={place.number}
          isBusy={isBusy}
          onOpen={open}
          onBegin={async (given) => {
            const made = await room.begin(given);
            if (made) open(made.n);
          }}
        />
      )}
      {hunt && (
        <>
          <p className="text-soft" data-testid="case">
            {hunt.symptom_name} · {w.wordOf(hunt.wording)} · {w.ages[hunt.age]}
            {hunt.after_work ? ` · ${w.afterWork}` : ""}
          </p>
          {stands?.note && <p className="text-caution">{stands.note}</p>}
          {isClosing && !hunt.closed ? (
            <Closing hunt={hunt} isBusy={isBusy} onClose={room.close} />
          ) : (
            stands && (
              <Next
                key={`${hunt.n}.${hunt.rev}`}
                stands={stands}
                isBusy={isBusy}
                isDead={hunt.is_proven_dead || isDead}
                lockAt={`${base}/panel?do=lock`}
                onDead={setDead}
                onAnswer={(given) =>
                  stands.offer ? void room.answer(stands.offer.id, given) : undefined
                }
              />
            )
          )}
          {stands && <Where works={place.works} given={state.given} stands={stands} />}
          <Taken hunt={hunt} isBusy={isBusy} onBack={() => void room.back()} />
        </>
      )}
    </JobFrame>
  );
}
