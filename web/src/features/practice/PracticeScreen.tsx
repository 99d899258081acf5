import { useEffect, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { Choice } from "../../components/inputs";
import { PlantPage } from "../../components/PlantPage";
import { ProblemSlab } from "../../components/shapes";
import { useWorks } from "../../state/session";
import { practiceWords as w } from "../../words/practice";
import { Hidden } from "./Hidden";
import { Known } from "./Known";
import { Question } from "./Question";
import { type Setting, usePractice } from "./usePractice";

/** One question after another from the live rules; each wrong route is named. */
export function PracticeScreen() {
  const { works = "" } = useParams();
  const plant = useWorks(works);
  const room = usePractice(works);
  const [setting, setSetting] = useState<Setting>("field");
  const [isBook, setBook] = useState(false);
  const [isHidden, setHidden] = useState(false);
  const [about, setAbout] = useState("");
  const { own, drill, verdict } = room;
  const isAsked = useRef(false);
  // one question at once: what is due
  useEffect(() => {
    if (isAsked.current || !own) return;
    isAsked.current = true;
    void room.ask("", setting);
  });
  const isReviewer = ["reviewer", "admin"].includes(plant?.role ?? "");
  return (
    <PlantPage
      works={works}
      title={w.title}
      headline={
        room.isOver
          ? (room.isLate ? w.timeOver : w.result)(room.right, room.count)
          : (drill?.asked ?? w.ask)
      }
    >
      {room.problem && <ProblemSlab problem={room.problem} />}
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_400px]">
        <div className="min-w-0 space-y-4">
          <div className="flex flex-wrap gap-2" role="group" aria-label={w.title}>
            <label className="inline-flex items-center gap-2 text-sm text-soft">
              {w.about}
              <select
                className="control text-ink"
                value={about}
                onChange={(event) => {
                  setAbout(event.target.value);
                  setHidden(false);
                  void room.ask(event.target.value, setting);
                }}
              >
                <option value="">{w.aboutAny}</option>
                {w.kindsOf.map(([group, kinds]) => (
                  <optgroup key={group} label={group}>
                    {kinds.map((kind) => (
                      <option key={kind} value={kind}>
                        {w.kinds[kind] ?? kind}
                      </option>
                    ))}
                  </optgroup>
                ))}
              </select>
            </label>
            <button
              type="button"
              className="control"
              data-primary={!drill && !isHidden}
              onClick={() => {
                setHidden(false);
                void room.ask(about, setting);
              }}
            >
              {w.due}
            </button>
            <button
              type="button"
              className="control"
              aria-pressed={isHidden}
              onClick={() => {
                room.leave();
                setHidden(true);
              }}
            >
              {w.hidden}
            </button>
            <Link className="control" to={`/w/${works}/wiring`}>
              {w.wiring}
            </Link>
            <button
              type="button"
              className="control"
              onClick={() => {
                setHidden(false);
                void room.exam("exam");
              }}
            >
              {w.exam}
            </button>
          </div>
          <div className="flex flex-wrap gap-4">
            <Choice
              label={w.setting}
              value={setting}
              options={(["field", "exam"] as const).map((one) => ({
                value: one,
                label: w.settings[one] ?? one,
              }))}
              onValueChange={setSetting}
            />
            <label className="inline-flex min-h-9 items-center gap-2">
              <input
                type="checkbox"
                checked={isBook}
                onChange={(event) => setBook(event.target.checked)}
              />
              {w.codeBook}
            </label>
          </div>
          {isHidden && <Hidden works={works} by={own?.hidden ?? []} />}
          {!isHidden && drill && (
            <Question
              key={`${drill.kind}.${drill.seed}`}
              drill={drill}
              verdict={verdict}
              isBook={isBook}
              place={
                room.count > 1
                  ? `${w.of(room.place + 1, room.count)} · ${w.left(Math.floor(room.left / 60), room.left % 60)}`
                  : ""
              }
              onAnswer={(given, section) => void room.answer(drill, given, section)}
              onNext={room.count > 1 ? room.goOn : () => void room.ask(about, setting)}
            />
          )}
          {drill && isReviewer && (
            <button
              type="button"
              className="control"
              onClick={() => void room.setFor(drill.kind, setting)}
            >
              {w.setOne}
            </button>
          )}
        </div>
        {own && (
          <Known
            own={own}
            onShare={(isShared) => void room.share(isShared)}
            onOpen={(one) => {
              setHidden(false);
              void room.open(one.kind, one.seed, one.setting as Setting);
            }}
          />
        )}
      </div>
    </PlantPage>
  );
}
