import { useEffect } from "react";
import { Link, useParams } from "react-router";
import { Failure, Waiting } from "../../components/Edges";
import { Words } from "../../components/inputs";
import { ProblemSlab, Shout, Tag } from "../../components/shapes";
import { TopBar } from "../../components/TopBar";
import { useSession } from "../../state/session";
import { convertWords } from "../../words/convert";
import { ControlTransformers } from "./ControlTransformers";
import { ConvertedMotors } from "./ConvertedMotors";
import { Loads } from "./Loads";
import { Unnamed } from "./Unnamed";
import { useConvert } from "./useConvert";

const SUPPLIES = ["480Y/277", convertWords.delta, "208Y/120", "600Y/347"];

/** One machine, another supply: what becomes of every motor and control transformer. */
export function ConvertScreen() {
  const { works = "", machine = "" } = useParams();
  const session = useSession();
  const { kept, given, answered, isDraft, refusal, set, keep } = useConvert(works, machine);
  useEffect(() => {
    document.title = convertWords.convertEvenCoil(machine);
  }, [machine]);
  if (kept.error) return <Failure error={kept.error} />;
  if (!kept.data || !given) return <Waiting />;
  const plan = (isDraft && answered.data) || kept.data;
  const transformers = given.transformers ?? [];
  return (
    <>
      <TopBar
        crumbs={[
          { name: convertWords.motors, to: `/w/${works}` },
          { name: machine },
          { name: convertWords.convert },
        ]}
        line={isDraft ? convertWords.notSavedYet : convertWords.saved}
        who={session.data?.display_name ?? ""}
        onHelp={() => undefined}
      />
      <main className="mx-auto max-w-[1280px] space-y-5 px-4 pt-4 pb-32">
        <Shout>{plan.headline}</Shout>
        <div className="metal grid gap-3 px-6 pt-5 pb-4 sm:grid-cols-2">
          <Words
            label={convertWords.presentSupplyEmpty}
            value={given.now?.text}
            placeholder={convertWords.delta}
            onValueChange={(text) => set({ now: { ...given.now, text } })}
          />
          <Words
            label={convertWords.newSupply}
            value={given.supply?.text}
            placeholder="480Y/277"
            onValueChange={(text) => set({ supply: { ...given.supply, text } })}
          />
          <div
            className="flex flex-wrap gap-1.5 sm:col-start-2"
            role="group"
            aria-label={convertWords.usual}
          >
            {SUPPLIES.map((text) => (
              <button
                key={text}
                type="button"
                className="control px-2.5 font-mono text-sm"
                aria-pressed={given.supply?.text === text}
                onClick={() => set({ supply: { ...given.supply, text } })}
              >
                {text}
              </button>
            ))}
          </div>
        </div>
        {isDraft && answered.slab}
        {plan.refusal && <ProblemSlab problem={plan.refusal} />}
        {refusal && <ProblemSlab problem={refusal.problem} />}
        <ConvertedMotors works={works} motors={plan.motors} />
        <ControlTransformers
          transformers={transformers}
          answers={plan.transformers}
          onTransformersChange={(next) => set({ transformers: next })}
        />
        <Loads
          loads={given.loads ?? []}
          answers={plan.loads}
          feeds={transformers.map((item) => item.tag)}
          onLoadsChange={(loads) => set({ loads })}
        />
        <Unnamed
          unnamed={given.unnamed ?? []}
          answers={plan.named}
          onUnnamedChange={(unnamed) => set({ unnamed })}
        />
        <p className="text-sm text-soft">{convertWords.heatersSizedLow}</p>
        {kept.data.version.n > 0 && (
          <p className="text-sm text-soft">
            {convertWords.version(kept.data.version.n)}{" "}
            <Tag who={kept.data.version.by} when={kept.data.version.at} />
          </p>
        )}
      </main>
      <footer className="fixed inset-x-0 bottom-0 z-10 border-t-2 border-ink bg-sheet">
        <div className="mx-auto flex max-w-[1280px] flex-wrap items-center gap-3 px-4 py-2">
          <button
            type="button"
            className="control md:w-auto!"
            data-primary="true"
            onClick={() => void keep()}
          >
            {isDraft ? convertWords.savePlan : convertWords.saved}
          </button>
          <Link className="control" to={`/w/${works}`}>
            {convertWords.motors}
          </Link>
        </div>
      </footer>
    </>
  );
}
