import { keepPreviousData, skipToken, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, type Schemas, told } from "../../api/client";
import { Waiting } from "../../components/Edges";
import { Reading } from "../../components/inputs";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { Stop } from "../../components/shapes";
import { useAnswer } from "../../components/useAnswer";
import { checkWords } from "../../words/check";

type Check = Schemas["DeadCheckOut"];
type Taken = NonNullable<Schemas["StarterInputs"]["readings"]>[number];

const handsKey = (hands: readonly { verb: string; device: string; word?: string }[]) =>
  hands.map((hand) => `${hand.verb} ${hand.device} ${hand.word ?? ""}`).join("; ");
const keyOf = (item: {
  start: string;
  end: string;
  hands?: readonly { verb: string; device: string; word?: string }[];
}) => `${item.start}|${item.end}|${handsKey(item.hands ?? [])}`;

/** Does the dead circuit read as it was drawn, and if not, which single fault explains it? */
export function CheckScreen() {
  const { place, state } = useRoom();
  const { given } = state;
  const query = useQuery({
    queryKey: ["dead", place.works, given],
    placeholderData: keepPreviousData,
    queryFn: given
      ? ({ signal }) =>
          told(
            api.POST("/api/w/{works}/dead", {
              params: { path: { works: place.works } },
              body: given,
              signal,
            }),
          )
      : skipToken,
  });
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  const { data: found, isOld, slab } = useAnswer(query);
  const taken = given?.starter.readings ?? [];
  const take = (check: Check, ohms: string | null | undefined) => {
    if (!given) return;
    const rest = taken.filter((item) => keyOf(item) !== keyOf(check));
    const reading: Taken = {
      start: check.start,
      end: check.end,
      hands: check.hands.map(({ verb, device, word }) => ({
        verb: verb as "press" | "trip" | "on" | "turn",
        device,
        word,
      })),
      ohms: ohms ?? null,
    };
    const readings = ohms === undefined ? rest : [...rest, reading];
    state.change("starter", { ...given.starter, readings });
  };
  const groups: { held: string; checks: Check[] }[] = [];
  for (const check of found?.checks ?? []) {
    const held = check.hands.map((hand) => hand.label).join(" and ") || checkWords.nothingOperated;
    const group = groups.find((item) => item.held === held);
    if (group) group.checks.push(check);
    else groups.push({ held, checks: [check] });
  }
  return (
    <JobFrame
      place={place}
      step="check"
      state={state}
      keys={[]}
      margin={
        found &&
        found.suspects.length > 0 && (
          <section
            aria-labelledby="suspects"
            className="space-y-2 border-2 border-live bg-sheet p-4 lg:sticky lg:top-20"
            data-testid="suspects"
          >
            <h2 id="suspects" className="font-headline text-xl font-bold text-live uppercase">
              {checkWords.whatWouldExplain}
            </h2>
            <p className="text-sm text-soft">{checkWords.singleFaultsExplain}</p>
            <ol className="list-decimal space-y-1.5 pl-5">
              {found.suspects.map((one) => (
                <li key={one.text}>
                  {one.text}{" "}
                  <span className="text-sm text-soft">
                    {checkWords.explains(one.explains, one.of)}
                  </span>
                </li>
              ))}
            </ol>
          </section>
        )
      }
      primary={
        <Link to={`${base}/rehearse`} className="control md:w-auto!" data-primary="true">
          {checkWords.rehearse}
        </Link>
      }
      others={
        <Link to={`${base}/drawings`} className="control">
          {checkWords.drawings}
        </Link>
      }
    >
      {slab}
      {!found ? (
        !slab && <Waiting />
      ) : found.checks.length === 0 ? (
        <p>
          {checkWords.thereNoCircuit}{" "}
          <Link className="ask" to={`${base}/starter`}>
            {checkWords.chooseStarter}
          </Link>
        </p>
      ) : (
        <div className="space-y-5">
          <Stop strength="hold" title={checkWords.firstLockOut}>
            <p>
              {found.pulled.length > 0 &&
                checkWords.removeOtherwiseTransformer(found.pulled.join(", "))}
              {checkWords.lineSideMain}{" "}
              <span className="font-mono text-sm">{found.line_side.join(", ")}</span>.
            </p>
          </Stop>
          <p className="text-soft">
            {checkWords.readingsCheckEvery(found.checks.length, found.states)}
            {found.untold.length > 0 && checkWords.notDetectedAny(found.untold.join(", "))}
          </p>
          {groups.map((group) => (
            <section key={group.held} aria-label={group.held}>
              <h2 className="stamp mb-1.5">{group.held}</h2>
              <ul className="space-y-2">
                {group.checks.map((check) => {
                  const at = taken.findIndex((item) => keyOf(item) === keyOf(check));
                  const reading = at < 0 ? undefined : taken[at];
                  return (
                    <CheckRow
                      key={keyOf(check)}
                      check={check}
                      reading={reading}
                      // an older answer counts the readings otherwise: what it says of one is not said of this
                      holds={at < 0 || isOld ? undefined : (found.readings[at]?.holds ?? undefined)}
                      onTake={(ohms) => take(check, ohms)}
                      onRest={() => void state.keep()}
                    />
                  );
                })}
              </ul>
            </section>
          ))}
        </div>
      )}
    </JobFrame>
  );
}

/** One reading: where the probes go, what a right circuit reads, what the meter said. */
function CheckRow({
  check,
  reading,
  holds,
  onTake,
  onRest,
}: {
  check: Check;
  reading: Taken | undefined;
  holds: boolean | undefined;
  onTake: (ohms: string | null | undefined) => void;
  onRest: () => void;
}) {
  const ohms = reading?.ohms;
  const isZero = reading !== undefined && ohms !== null && Number(ohms) < 2;
  const isOpen = reading !== undefined && ohms === null;
  const name = checkWords.to(check.start_said, check.end_said);
  const tone = { true: "border-proven", false: "border-live" }[String(holds)] ?? "border-edge";
  return (
    <li
      className={`grid items-center gap-x-4 gap-y-1.5 border-l-8 bg-sheet px-4 py-2 sm:grid-cols-[minmax(0,1fr)_auto] ${tone}`}
      data-testid={`check-${check.start_said}-${check.end_said}`}
    >
      <span>
        <b className="font-mono text-lg">
          {check.start_said} – {check.end_said}
        </b>{" "}
        <span className="whitespace-nowrap">
          {checkWords.shouldRead} <b>{check.expects}</b>
        </span>
        <details className="text-sm text-soft">
          <summary>
            {check.wires.length > 0 && checkWords.checksWires(check.wires.length)}
            {check.wires.length > 0 && check.guards.length > 0 && ", "}
            {check.guards.length > 0 && checkWords.alsoRulesOut}
          </summary>
          <span className="font-mono">{check.wires.join(" · ")}</span>
          <ul>
            {check.guards.map((text) => (
              <li key={text}>{checkWords.notDrawn(text)}</li>
            ))}
          </ul>
        </details>
      </span>
      <fieldset
        className="flex flex-wrap items-end gap-1.5"
        aria-label={checkWords.meterReading(name)}
      >
        <button
          type="button"
          className="control px-2.5 text-sm"
          aria-pressed={isZero}
          onClick={() => onTake(isZero ? undefined : "0")}
        >
          {checkWords.nearZero}
        </button>
        <Reading
          label={checkWords.reads}
          unit="Ω"
          value={reading && !isZero && !isOpen ? ohms : ""}
          onValueChange={(value) => onTake(value ?? undefined)}
          onRest={onRest}
          className="w-20"
        />
        <button
          type="button"
          className="control px-2.5 text-sm"
          aria-pressed={isOpen}
          onClick={() => onTake(isOpen ? undefined : null)}
        >
          {checkWords.open}
        </button>
        <b
          role="status"
          className={`stamp min-w-20 ${holds === false ? "text-live" : "text-proven"}`}
        >
          {holds === undefined ? "" : holds ? checkWords.drawn : "differs"}
        </b>
      </fieldset>
    </li>
  );
}
