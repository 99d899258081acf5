import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { api, type Schemas, told, type Worked } from "../../api/client";
import { Failure, Waiting } from "../../components/Edges";
import { Choice, Reading } from "../../components/inputs";
import { ProblemSlab, Shout } from "../../components/shapes";
import { TopBar } from "../../components/TopBar";
import { useAnswer } from "../../components/useAnswer";
import { useSession } from "../../state/session";
import { feederWords } from "../../words/feeder";
import { Slip } from "../size/Slip";
import { WhySheet } from "../size/WhySheet";

type Asked = Schemas["FeederInputs"];
type Told = Schemas["FeederOut"];

const KINDS: readonly { value: NonNullable<Asked["device_kind"]>; label: string }[] = [
  { value: "inverse_time_breaker", label: feederWords.inverseTimeBreaker },
  { value: "dual_element_fuse", label: feederWords.dualElementFuse },
  { value: "nontime_delay_fuse", label: feederWords.fuseWithoutDelay },
];

/** What must this machine's feeder carry, and what may protect it? */
export function FeederScreen() {
  const { works = "", machine = "" } = useParams();
  const session = useSession();
  const [asked, setAsked] = useState<Asked>({
    supply: "",
    continuous_a: "0",
    noncontinuous_a: "0",
    material: "cu",
    termination_c: 75,
    device_kind: "inverse_time_breaker",
    is_group: false,
    interlocked: [],
    taps: [],
  });
  const [seen, setSeen] = useState("feeder_device_a");
  const query = useQuery({
    queryKey: ["feeder", works, machine, asked],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/feeder/{machine}", {
          params: { path: { works, machine } },
          body: asked,
          signal,
        }),
      ),
  });
  useEffect(() => {
    document.title = feederWords.feederEvenCoil(machine);
  }, [machine]);
  const { data: found, slab } = useAnswer(query);
  if (!found) return query.error ? <Failure error={query.error} /> : <Waiting />;
  const set = (change: Partial<Asked>) => setAsked({ ...asked, ...change });
  const shown = found.steps.find((step) => step.id === seen) ?? found.steps[0];
  return (
    <>
      <TopBar
        crumbs={[
          { name: feederWords.motors, to: `/w/${works}` },
          { name: machine },
          { name: feederWords.feeder },
        ]}
        who={session.data?.display_name ?? ""}
        onHelp={() => undefined}
      />
      <div className="mx-auto grid max-w-[1280px] gap-x-6 px-4 pt-4 pb-24 lg:grid-cols-[minmax(0,1fr)_400px]">
        <main className="min-w-0 space-y-5">
          <Shout>{found.headline}</Shout>
          {slab}
          {found.refusal && <ProblemSlab problem={found.refusal} />}
          <OneFeeder works={works} found={found} />
          <div className="metal flex flex-wrap items-end gap-x-5 gap-y-3 px-5 py-4">
            {found.supplies.length > 1 && (
              <Choice
                label={feederWords.motors2}
                options={["", ...found.supplies].map((value) => ({
                  value,
                  label: value || feederWords.anySupply,
                }))}
                value={asked.supply ?? ""}
                onValueChange={(supply) => set({ supply })}
              />
            )}
            <Reading
              label={feederWords.otherLoadsContinuous}
              unit="A"
              value={asked.continuous_a}
              onValueChange={(value) => set({ continuous_a: value ?? "0" })}
            />
            <Reading
              label={feederWords.otherLoadsNoncontinuous}
              unit="A"
              value={asked.noncontinuous_a}
              onValueChange={(value) => set({ noncontinuous_a: value ?? "0" })}
            />
            <Choice
              label={feederWords.feederFuseBreaker}
              options={KINDS}
              value={asked.device_kind}
              onValueChange={(device_kind) => set({ device_kind })}
            />
            <Choice
              label={feederWords.terminalTemperatureRating}
              options={[
                { value: 75, label: "75 °C" },
                { value: 60, label: "60 °C" },
                { value: null, label: feederWords.notKnown },
              ]}
              value={asked.termination_c}
              onValueChange={(termination_c) => set({ termination_c })}
            />
            <Choice
              label={feederWords.conductorMaterial}
              options={[
                { value: "cu", label: "copper" },
                { value: "al", label: "aluminum" },
              ]}
              value={asked.material}
              onValueChange={(material) => set({ material })}
            />
          </div>
          <NeverTogether asked={asked} found={found} onAskedChange={set} />
          <Taps asked={asked} found={found} onAskedChange={set} />
          <p className="text-sm text-soft">{feederWords.eachMotorEnters}</p>
        </main>
        <aside aria-label={feederWords.margin} className="min-w-0 space-y-3 pt-4 lg:pt-0">
          {found.steps.map((step) => (
            <Slip
              key={step.id}
              step={step}
              isLarge
              isOpen={shown?.id === step.id}
              onWhy={setSeen}
            />
          ))}
          {shown && (
            <section
              aria-label={feederWords.why(shown.said)}
              className="border-2 border-ink bg-ground p-4"
            >
              <h2 className="font-headline text-xl font-bold text-plum uppercase">
                {feederWords.why(shown.said)}
              </h2>
              <WhySheet
                worked={{ steps: found.steps } as unknown as Worked}
                step={shown}
                onStepChange={setSeen}
              />
            </section>
          )}
          <Link className="control" to={`/w/${works}`}>
            {feederWords.motors}
          </Link>
        </aside>
      </div>
    </>
  );
}

/** Motors of which only one can run at a time: the largest combination counts. */
function NeverTogether({
  asked,
  found,
  onAskedChange,
}: {
  asked: Asked;
  found: Told;
  onAskedChange: (change: Partial<Asked>) => void;
}) {
  const groups = asked.interlocked ?? [];
  const group = groups[0] ?? [];
  const [picked, setPicked] = useState<readonly string[]>(group);
  const toggle = (tag: string) => {
    const next = picked.includes(tag) ? picked.filter((one) => one !== tag) : [...picked, tag];
    setPicked(next);
    onAskedChange({ interlocked: next.length > 1 ? [next] : [] });
  };
  return (
    <fieldset className="flex flex-wrap items-center gap-2">
      <legend className="stamp mb-1 text-soft">{feederWords.interlockedNeverRun}</legend>
      {found.motors
        .filter((motor) => !motor.refusal)
        .map((motor) => (
          <button
            key={motor.tag}
            type="button"
            className="control"
            aria-pressed={picked.includes(motor.tag)}
            onClick={() => toggle(motor.tag)}
          >
            {motor.tag}
          </button>
        ))}
      {picked.length === 1 && <span className="text-soft">{feederWords.whichOtherMotor}</span>}
    </fieldset>
  );
}

/** The wire from the feeder to each motor, by its length, and one device in front of all. */
function Taps({
  asked,
  found,
  onAskedChange,
}: {
  asked: Asked;
  found: Told;
  onAskedChange: (change: Partial<Asked>) => void;
}) {
  const taps = asked.taps ?? [];
  return (
    <section aria-labelledby="taps" className="space-y-3">
      <h2 id="taps" className="stamp text-soft">
        {feederWords.taps}
      </h2>
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <Choice
          label={feederWords.eachTap}
          options={[
            { value: false, label: feederWords.ownFuseBreaker },
            { value: true, label: feederWords.oneFuseBreaker },
          ]}
          value={asked.is_group}
          onValueChange={(is_group) => onAskedChange({ is_group })}
        />
        {asked.is_group && (
          <>
            <Reading
              label={feederWords.groupFuseBreaker}
              unit="A"
              value={asked.group_device_a}
              onValueChange={(group_device_a) => onAskedChange({ group_device_a })}
              className="w-20"
            />
            <Reading
              label={feederWords.startersListedGroup}
              unit="A"
              value={asked.group_listed_a}
              onValueChange={(group_listed_a) => onAskedChange({ group_listed_a })}
              className="w-20"
            />
          </>
        )}
      </div>
      <ul className="space-y-2">
        {found.motors
          .filter((motor) => !motor.refusal)
          .map((motor) => {
            const tap = taps.find((item) => item.tag === motor.tag);
            const rest = taps.filter((item) => item.tag !== motor.tag);
            const sized = found.taps.find((item) => item.tag === motor.tag);
            const wire = sized?.steps.find((step) => step.id === "tap_conductor_size");
            const least = sized?.steps.find((step) => step.id === "tap_least_a");
            return (
              <li
                key={motor.tag}
                className="flex flex-wrap items-end gap-x-5 gap-y-1 border-l-4 border-edge pl-3"
              >
                <b className="font-headline text-xl">{motor.tag}</b>
                <Reading
                  label={feederWords.tap(motor.tag)}
                  unit={feederWords.ft}
                  value={tap?.length_ft}
                  onValueChange={(length_ft) =>
                    onAskedChange({
                      taps: length_ft
                        ? [
                            ...rest,
                            {
                              is_protected: tap?.is_protected ?? true,
                              to: tap?.to ?? "overload",
                              tag: motor.tag,
                              length_ft,
                            },
                          ]
                        : rest,
                    })
                  }
                  className="w-20"
                />
                {tap && (
                  <Choice
                    options={[
                      { value: true, label: feederWords.raceway },
                      { value: false, label: "open" },
                    ]}
                    value={tap.is_protected}
                    onValueChange={(is_protected) =>
                      onAskedChange({ taps: [...rest, { ...tap, is_protected }] })
                    }
                  />
                )}
                {wire && least && (
                  <span className="min-w-0">
                    <b className="font-mono text-xl">{wire.shown}</b>{" "}
                    <span className="text-sm">{least.working}</span>
                  </span>
                )}
              </li>
            );
          })}
      </ul>
    </section>
  );
}

/** The feeder as one line: its device, its bus, and every motor with what it counts. */
function OneFeeder({ works, found }: { works: string; found: Told }) {
  return (
    <div className="border-2 border-ink bg-sheet px-5 py-4" data-testid="feeder">
      <svg viewBox="0 0 90 46" className="block h-12" aria-hidden="true">
        <path d="M10 0V12M10 32V46M10 32L24 12" stroke="var(--ink)" strokeWidth="3" fill="none" />
      </svg>
      <ul className="grid gap-x-4 gap-y-2 border-t-4 border-ink pt-2 sm:grid-cols-2">
        {found.motors.map((motor) => (
          <li
            key={motor.tag}
            data-largest={motor.is_largest}
            className="border-l-4 border-edge pl-3 data-[largest=true]:border-plum"
          >
            <Link
              className="font-headline text-xl font-bold text-ink"
              to={`/w/${works}/m/${encodeURIComponent(motor.tag)}/j/${motor.job}/size`}
            >
              {motor.tag}
            </Link>{" "}
            {motor.name}
            {motor.is_largest && (
              <b className="stamp ml-2 text-plum">{feederWords.highestRatedMotor}</b>
            )}
            {motor.refusal ? (
              <span className="block text-caution">
                {feederWords.notCountedYet(motor.refusal.detail)}
              </span>
            ) : (
              <span className="block font-mono">
                {motor.flc_a}&nbsp;A{motor.duty_a && feederWords.duty(motor.duty_a)}
                {motor.is_largest && feederWords.counts(motor.share_a)}{" "}
                {feederWords.device(motor.device_a)}
              </span>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
