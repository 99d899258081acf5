import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import type { Worked } from "../../api/client";
import { Failure, Waiting } from "../../components/Edges";
import { Choice, Reading } from "../../components/inputs";
import { ProblemSlab, Shout } from "../../components/shapes";
import { TopBar } from "../../components/TopBar";
import { useSession } from "../../state/session";
import { feederWords } from "../../words/feeder";
import { Slip } from "../size/Slip";
import { WhySheet } from "../size/WhySheet";
import { Taps } from "./FeederTaps";
import { NeverTogether } from "./NeverTogether";
import { OneFeeder } from "./OneFeeder";
import { Several } from "./Several";
import { type FeederGiven, useFeeder } from "./useFeeder";

const KINDS: readonly { value: NonNullable<FeederGiven["device_kind"]>; label: string }[] = [
  { value: "inverse_time_breaker", label: feederWords.inverseTimeBreaker },
  { value: "dual_element_fuse", label: feederWords.dualElementFuse },
  { value: "nontime_delay_fuse", label: feederWords.fuseWithoutDelay },
];

/** What must this machine's feeder carry, and what may protect it? */
export function FeederScreen() {
  const { works = "", machine = "" } = useParams();
  const session = useSession();
  const { asked, set, query, found, slab } = useFeeder(works, machine);
  const [seen, setSeen] = useState("feeder_device_a");
  useEffect(() => {
    document.title = feederWords.feederEvenCoil(machine);
  }, [machine]);
  if (!found) return query.error ? <Failure error={query.error} /> : <Waiting />;
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
                { value: "cu", label: feederWords.copper },
                { value: "al", label: feederWords.aluminum },
              ]}
              value={asked.material}
              onValueChange={(material) => set({ material })}
            />
          </div>
          <NeverTogether asked={asked} found={found} onAskedChange={set} />
          <Several asked={asked} found={found} onAskedChange={set} />
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
