import { useEffect } from "react";
import { Link, useParams } from "react-router";
import { Failure, Waiting } from "../../components/Edges";
import { Reading, Words } from "../../components/inputs";
import { ProblemSlab, Shout, Tag } from "../../components/shapes";
import { TopBar } from "../../components/TopBar";
import { useSession } from "../../state/session";
import { convertWords } from "../../words/convert";
import { Loads } from "./Loads";
import { Taps } from "./Taps";
import { type Transformer, useConvert } from "./useConvert";

const TONE: Record<string, string> = {
  can: "text-proven",
  cannot: "text-live",
  open: "text-caution",
};

const ANSWERS: Record<string, string> = {
  can: convertWords.convertible,
  cannot: convertWords.notConvertible,
  open: convertWords.informationMissing,
};

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
  const setTransformer = (at: number, change: Partial<Transformer>) =>
    set({
      transformers: transformers.map((item, place) =>
        place === at ? { ...item, ...change } : item,
      ),
    });
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
        <ul className="space-y-2" aria-label={convertWords.motors2} data-testid="conversion">
          {plan.motors.map((motor) => (
            <li
              key={motor.tag}
              data-answer={motor.answer}
              className="grid gap-x-5 gap-y-1 border-[1.5px] border-edge bg-sheet px-4 py-3 md:grid-cols-[6rem_minmax(0,1fr)_minmax(0,1fr)]"
            >
              <span>
                <Link
                  className="font-headline text-2xl font-bold text-ink"
                  to={`/w/${works}/m/${encodeURIComponent(motor.tag)}/j/${motor.job}/leads`}
                >
                  {motor.tag}
                </Link>
                <span
                  className={`block font-headline text-lg font-bold uppercase ${TONE[motor.answer]}`}
                >
                  {ANSWERS[motor.answer] ?? motor.answer}
                </span>
              </span>
              <span>
                <b>{motor.name}</b>
                {motor.answer === "can" ? (
                  <>
                    <span className="block">
                      {motor.before || convertWords.notDerivedPresent} → <b>{motor.after}</b>
                    </span>
                    {motor.amps_after && (
                      <span className="block font-mono text-sm">
                        {motor.amps_before || "?"} A → {motor.amps_after} A
                      </span>
                    )}
                    {motor.left && (
                      <b className="my-1 block border-l-8 border-live pl-2 text-live">
                        {motor.left}
                      </b>
                    )}
                    {motor.changed.length > 0 && (
                      <table className="text-sm" aria-label={convertWords.sizes(motor.tag)}>
                        <tbody>
                          {motor.changed.map((row) => (
                            <tr key={row.label}>
                              <th scope="row" className="pr-3 text-left font-normal text-soft">
                                {row.label}
                              </th>
                              <td className="pr-2 font-mono">{row.before} →</td>
                              <td className="font-mono font-semibold">
                                {row.before === row.after ? "same" : row.after}
                                {row.is_larger && (
                                  <b className="stamp ml-2 text-caution">
                                    {convertWords.moreThanPresent}
                                  </b>
                                )}
                              </td>
                            </tr>
                          ))}
                        </tbody>
                      </table>
                    )}
                  </>
                ) : (
                  <span className="block text-caution">
                    {motor.refusal?.detail} <span className="text-soft">{motor.refusal?.hint}</span>
                  </span>
                )}
              </span>
              <span className="text-sm">
                {motor.answer === "can" ? (
                  motor.moves.length > 0 ? (
                    <ul className="grid grid-cols-2 gap-x-3 font-mono">
                      {motor.moves.map((move) => (
                        <li key={move}>{move}</li>
                      ))}
                    </ul>
                  ) : (
                    convertWords.noConnectionChanges
                  )
                ) : (
                  <>
                    <ul className="list-disc pl-4">
                      {motor.ways_out.map((way) => (
                        <li key={way}>{way}</li>
                      ))}
                    </ul>
                    {motor.load_kva && (
                      <span className="block font-mono">
                        {convertWords.kvaOwnTransformer(motor.load_kva)}
                      </span>
                    )}
                  </>
                )}
              </span>
            </li>
          ))}
        </ul>
        <section aria-labelledby="transformers" className="space-y-3">
          <h2 id="transformers" className="stamp">
            {convertWords.controlTransformers}
          </h2>
          {transformers.map((item, at) => {
            const found = plan.transformers.find((other) => other.tag === item.tag);
            return (
              <div
                // biome-ignore lint/suspicious/noArrayIndexKey: rows are edited in place
                key={at}
                className="metal flex flex-wrap items-end gap-3 px-5 py-3"
              >
                <Words
                  label={convertWords.tag}
                  value={item.tag}
                  onValueChange={(tag) => setTransformer(at, { tag })}
                  className="w-24"
                />
                <Taps
                  taps={item.taps ?? []}
                  onTapsChange={(taps) => setTransformer(at, { taps })}
                />
                <Reading
                  label={convertWords.secondary}
                  unit="V"
                  value={item.secondary_v}
                  onValueChange={(value) => setTransformer(at, { secondary_v: value ?? "120" })}
                />
                <p className="min-w-60 flex-1">
                  {found?.text}
                  {found?.refusal && (
                    <span className="text-caution">
                      {found.refusal.detail} {found.refusal.hint}
                    </span>
                  )}
                </p>
                <button
                  type="button"
                  className="ask"
                  onClick={() =>
                    set({ transformers: transformers.filter((_, other) => other !== at) })
                  }
                >
                  {convertWords.remove}
                </button>
              </div>
            );
          })}
          <button
            type="button"
            className="control"
            onClick={() =>
              set({
                transformers: [
                  ...transformers,
                  {
                    tag: `T${transformers.length + 1}`,
                    taps: [
                      { volts_v: "240", links: "H1-H3, H2-H4" },
                      { volts_v: "480", links: "H2-H3" },
                    ],
                    secondary_v: "120",
                    now_v: null,
                  },
                ],
              })
            }
          >
            {convertWords.addControlTransformer}
          </button>
        </section>
        <Loads
          loads={given.loads ?? []}
          answers={plan.loads}
          feeds={transformers.map((item) => item.tag)}
          onLoadsChange={(loads) => set({ loads })}
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
