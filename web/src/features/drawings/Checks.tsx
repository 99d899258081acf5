import type { Schemas } from "../../api/client";
import { Working } from "../../components/Edges";
import { Drawer } from "../../components/inputs";
import type { Given } from "../../state/useJob";
import { drawingsWords } from "../../words/drawings";
import { Probes } from "./Probes";
import { Proofs } from "./Proofs";
import { questionOf, useChecks } from "./useAnswers";

export type Check = Schemas["CheckOut"];

const TONE: Record<string, string> = {
  error: "border-live",
  doubt: "border-caution",
  note: "border-hair",
};
const WORD: Record<string, string> = {
  error: "text-live",
  doubt: "text-caution",
  note: "text-soft",
};

function Finding({
  check,
  isShown,
  onShow,
  onDo,
}: {
  check: Check;
  isShown: boolean;
  onShow: () => void;
  onDo: () => void;
}) {
  return (
    <li
      className={`border-l-8 py-1.5 pr-2 pl-4 ${TONE[check.level] ?? ""} ${isShown ? "bg-sunk" : ""}`}
      data-testid={`check-${check.rule}`}
    >
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="font-mono text-sm text-soft">{check.rule}</span>
        <b className={`stamp ${WORD[check.level] ?? ""}`}>{check.level_label}</b>
      </p>
      <p className="font-semibold">{check.text}</p>
      <p>{check.change}</p>
      <div className="mt-1 flex flex-wrap gap-2">
        <button type="button" className="control" aria-pressed={isShown} onClick={onShow}>
          {drawingsWords.show}
        </button>
        {check.edits.length > 0 && (
          <button type="button" className="control" onClick={onDo}>
            {drawingsWords.makeChange}
          </button>
        )}
      </div>
    </li>
  );
}

function Nothing({ text }: { text: string }) {
  return <p className="border-l-8 border-proven px-4 py-1.5 font-semibold">{text}</p>;
}

/** What is wrong with this circuit, what each isolator leaves live, and what was searched. */
export function Checks({
  works,
  given,
  shown,
  onShow,
  onDo,
}: {
  works: string;
  given: Given;
  shown: Check | null;
  onShow: (check: Check) => void;
  onDo: (check: Check) => void;
}) {
  const query = useChecks(works, given);
  const checks = query.data;
  if (!checks) return <Working query={query} question={questionOf("checks", works, given)} />;
  const wrong = checks.found.filter((check) => check.level !== "note");
  const drawn = wrong.filter((check) => !check.played);
  const played = wrong.filter((check) => check.played);
  const notes = checks.found.filter((check) => check.level === "note");
  const list = (some: readonly Check[]) => (
    <ul className="space-y-2">
      {some.map((check) => (
        <Finding
          key={`${check.rule} ${check.text}`}
          check={check}
          isShown={shown?.text === check.text}
          onShow={() => onShow(check)}
          onDo={() => onDo(check)}
        />
      ))}
    </ul>
  );
  return (
    <div className="space-y-5" data-testid="checks">
      <section aria-labelledby="by-drawing">
        <h2 id="by-drawing" className="stamp mb-1 text-soft">
          {drawingsWords.byDrawing(drawn.length)}
        </h2>
        {drawn.length === 0 ? <Nothing text={drawingsWords.noneByDrawing} /> : list(drawn)}
      </section>
      <section aria-labelledby="by-playing">
        <h2 id="by-playing" className="stamp mb-1 text-soft">
          {drawingsWords.byPlaying(played.length)}
        </h2>
        {played.length === 0 ? <Nothing text={drawingsWords.noneByPlaying} /> : list(played)}
      </section>
      {notes.length > 0 && (
        <Drawer name={drawingsWords.goodKnow} hint={`${notes.length}`}>
          {list(notes)}
        </Drawer>
      )}
      <section aria-labelledby="isolators">
        <h2 id="isolators" className="stamp mb-1 text-soft">
          {drawingsWords.whatStaysLive}
        </h2>
        <ul className="space-y-2">
          {checks.isolations.map((one) => (
            <li
              key={one.device}
              className={`border-l-8 px-4 py-1 ${one.clean ? "border-proven" : "border-caution"}`}
              data-testid={`isolation-${one.tag}`}
            >
              {one.lines.map((line) => (
                <p key={line}>{line}</p>
              ))}
            </li>
          ))}
        </ul>
      </section>
      <section aria-labelledby="proofs">
        <h2 id="proofs" className="stamp mb-1 text-soft">
          {drawingsWords.searchedOverEvery}
        </h2>
        <Proofs works={works} given={given} />
      </section>
      <section aria-labelledby="played">
        <h2 id="played" className="stamp mb-1 text-soft">
          {drawingsWords.scenarioTests}
        </h2>
        <Probes works={works} given={given} />
      </section>
    </div>
  );
}
