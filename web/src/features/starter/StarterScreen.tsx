import { useState } from "react";
import { Link } from "react-router";
import { Refused, type Schemas } from "../../api/client";
import { Coming } from "../../components/Edges";
import { Choice } from "../../components/inputs";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { ProblemSlab, Stop } from "../../components/shapes";
import { useCatalogue } from "../../diagram/useCatalogue";
import { useCircuit } from "../../diagram/useCircuit";
import type { Key } from "../../state/keys";
import { useWorks } from "../../state/session";
import { words } from "../../words/common";
import { starterWords } from "../../words/starter";
import { Measures, Verdict } from "./Compare";
import { Hazards } from "./Hazards";
import { LiveDrawing } from "./LiveDrawing";
import { Options } from "./Options";
import { SideBySide } from "./SideBySide";
import { Thumb } from "./Thumb";
import { useChoices } from "./useChoices";

type Entry = Schemas["RecipeOut"];

/** What a circuit is for and what it is not for. */
function About({ entry }: { entry: Entry }) {
  return (
    <section aria-labelledby="about" className="metal space-y-3 px-5 py-4">
      <h2 id="about" className="font-headline text-xl leading-tight font-bold">
        {entry.title}
      </h2>
      <p>{entry.purpose}</p>
      <p>
        <b>{starterWords.use}</b> {entry.use}
      </p>
      {entry.avoid.length > 1 && (
        <p className="text-caution">
          <b>{starterWords.not}</b> {entry.avoid}
        </p>
      )}
      {entry.interlocks.length > 1 && (
        <p>
          <b>{starterWords.mustInclude}</b> {entry.interlocks}
        </p>
      )}
    </section>
  );
}

/** What must it do? A starter, with its options; what cannot be says why. */
export function StarterScreen() {
  const { place, state } = useRoom();
  const works = useWorks(place.works);
  const { given } = state;
  const catalogue = useCatalogue(place.works);
  const { data: circuit, slab } = useCircuit(place.works, given);
  const circuits = catalogue.data?.circuits ?? [];
  const beside = useChoices(place.works, given);
  const choices = new Map((beside.data ?? []).map((choice) => [choice.id, choice]));
  // a starter comes with what it does for this motor, or with why that is not told
  const isListed = circuits.length > 0 && Boolean(beside.data || beside.slab);
  const groups = [...new Map(circuits.map((entry) => [entry.group, entry.group_label]))];
  const chosen = given?.starter.standard_circuit || "";
  const [group, setGroup] = useState<string | null>(null);
  const [pair, setPair] = useState<readonly string[]>([]);
  const [looked, setLooked] = useState<string | null>(null);
  const shownGroup =
    group ?? circuits.find((entry) => entry.id === chosen)?.group ?? groups[2]?.[0] ?? "";
  const listed = circuits.filter((entry) => entry.group === shownGroup);
  const about = circuits.find((entry) => entry.id === (looked ?? chosen));
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  const choose = (id: string) => {
    if (!given) return;
    setLooked(null);
    // what was taken on or changed belonged to the other circuit
    state.change("starter", {
      ...given.starter,
      standard_circuit: id,
      options: {},
      edits: id === given.starter.standard_circuit ? (given.starter.edits ?? []) : [],
      accepted: [],
    });
  };
  const style = circuit?.style ?? "nema";
  const titleOf = (id: string) => circuits.find((entry) => entry.id === id)?.title ?? id;
  const compare = (id: string) => {
    if (pair.includes(id)) return setPair(pair.filter((one) => one !== id));
    // marked alone beside a chosen one, it is held against that
    const held = chosen && chosen !== "found" && chosen !== id ? chosen : null;
    const first = pair[0] ?? held;
    setPair(first ? [first, id] : [id]);
  };
  const move = (by: number) => {
    const at = Math.max(
      0,
      groups.findIndex(([name]) => name === shownGroup),
    );
    setGroup(groups[(at + by + groups.length) % groups.length]?.[0] ?? null);
  };
  const keys: Key[] = [
    { press: "j", does: starterWords.nextFunction, run: () => move(1) },
    { press: "k", does: starterWords.previous, run: () => move(-1) },
    ...listed.slice(0, 9).map((entry, number) => ({
      press: String(number + 1),
      does: starterWords.choose(entry.title),
      run: () => choose(entry.id),
    })),
  ];
  return (
    <JobFrame
      place={place}
      step="starter"
      state={state}
      keys={keys}
      margin={
        <div className="space-y-4">
          {circuit?.entry && <LiveDrawing circuit={circuit} />}
          {chosen && !circuit && <div className="h-[21.5rem]" aria-hidden="true" />}
          {about && <About entry={about} />}
          {circuit?.findings
            .filter((found) => found.level === "note" && !found.code.startsWith("restart."))
            .map((found) => (
              <p key={found.text} className="text-sm text-soft">
                {found.text}
              </p>
            ))}
        </div>
      }
      primary={
        <Link to={`${base}/drawings`} className="control md:w-auto!" data-primary="true">
          {starterWords.drawings}
        </Link>
      }
      others={
        <>
          <Link to={`${base}/run-up`} className="control">
            {words.steps["run-up"]}
          </Link>
          <Link to={`${base}/rehearse`} className="control">
            {starterWords.rehearse}
          </Link>
        </>
      }
    >
      {pair.length === 2 && (
        <SideBySide
          works={place.works}
          style={style}
          pair={pair.map((id) => ({ id, title: titleOf(id), choice: choices.get(id) }))}
          onChoose={(id) => {
            setPair([]);
            choose(id);
          }}
          onClose={() => setPair([])}
        />
      )}
      {catalogue.error instanceof Refused && <ProblemSlab problem={catalogue.error.problem} />}
      {!isListed && !catalogue.error && <Coming />}
      {given && isListed && (
        <div className="space-y-5">
          <fieldset>
            <legend className="stamp mb-2 text-soft">{starterWords.whatMustDo}</legend>
            <div className="flex flex-wrap gap-2">
              {groups.map(([name, label]) => (
                <button
                  key={name}
                  type="button"
                  className="control"
                  aria-pressed={name === shownGroup}
                  onClick={() => setGroup(name)}
                >
                  {label}
                </button>
              ))}
            </div>
          </fieldset>
          <Choice
            label={starterWords.howDoesLoad}
            options={[
              { value: "empty", label: starterWords.empty },
              { value: "loaded", label: starterWords.loaded },
              { value: "unknown", label: starterWords.notKnown },
            ]}
            value={given.starter.load ?? "unknown"}
            onValueChange={(load) =>
              state.change("starter", { ...given.starter, load: load as "empty" })
            }
          />
          {beside.slab}
          {pair.length === 1 && (
            <p role="status" className="text-sm">
              {starterWords.comparing(titleOf(pair[0] ?? ""))}
            </p>
          )}
          <ul className="space-y-2" aria-label={starterWords.starters}>
            {listed.map((entry, number) => {
              const isChosen = entry.id === chosen;
              const choice = choices.get(entry.id);
              return (
                <li key={entry.id}>
                  <div
                    data-chosen={isChosen}
                    className="flex items-start gap-x-3 border-[1.5px] border-edge bg-sheet p-2 data-[chosen=true]:border-2 data-[chosen=true]:border-ink"
                  >
                    <button
                      type="button"
                      aria-pressed={isChosen}
                      data-testid={`circuit-${entry.id}`}
                      className="flex min-w-0 flex-1 items-start gap-x-3 text-left hover:text-plum"
                      onClick={() => choose(entry.id)}
                      onFocus={() => setLooked(entry.id)}
                      onMouseEnter={() => setLooked(entry.id)}
                    >
                      {entry.id !== "found" && (
                        <Thumb works={place.works} circuit={entry.id} style={style} />
                      )}
                      <span className="min-w-0 flex-1 text-ink">
                        <b>{entry.title}</b>{" "}
                        <span className="font-mono text-sm text-soft">
                          {entry.id}
                          {number < 9 && ` · ${number + 1}`}
                        </span>
                        <span className="block text-sm text-soft">{entry.use}</span>
                        {choice && <Verdict choice={choice} />}
                        {choice && (choice.line_percent ?? 100) < 100 && (
                          <Measures choice={choice} />
                        )}
                      </span>
                    </button>
                    <span className="flex shrink-0 flex-col items-end gap-1">
                      {isChosen && <b className="font-mono text-sm">{starterWords.chosen}</b>}
                      {entry.id !== "found" && (
                        <button
                          type="button"
                          className="ask"
                          aria-label={starterWords.compareOf(entry.title)}
                          aria-pressed={pair.includes(entry.id)}
                          onClick={() => compare(entry.id)}
                        >
                          {starterWords.compare}
                        </button>
                      )}
                    </span>
                  </div>
                </li>
              );
            })}
          </ul>
          {!beside.slab && slab}
          {circuit?.refusal && <ProblemSlab problem={circuit.refusal} />}
          {circuit && circuit.entry?.id === chosen && circuit.hazards.length > 0 && (
            <Hazards
              hazards={circuit.hazards}
              starter={given.starter}
              maySign={works?.may_sign ?? false}
              onChange={(starter) => state.change("starter", starter)}
            />
          )}
          {circuit?.findings
            .filter((found) => !found.code.startsWith("restart."))
            .filter((found) => found.level === "refusal" || found.level === "doubt")
            .map((found) => (
              <Stop key={found.text} strength="hold" title={found.text}>
                <p>{found.hint}</p>
              </Stop>
            ))}
          {circuit?.entry && circuit.entry.id === chosen && (
            <Options
              options={circuit.options}
              starter={given.starter}
              letters={works?.device_names ?? "iec"}
              onChange={(starter) => state.change("starter", starter)}
            />
          )}
        </div>
      )}
    </JobFrame>
  );
}
