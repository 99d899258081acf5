import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { api, Refused, type Schemas, told } from "../../api/client";
import { Failure, Waiting } from "../../components/Edges";
import { Reading, Words } from "../../components/inputs";
import { ProblemSlab, Shout, Tag } from "../../components/shapes";
import { TopBar } from "../../components/TopBar";
import { useAnswer } from "../../components/useAnswer";
import { useSession } from "../../state/session";
import { convertWords } from "../../words/convert";

type Given = Schemas["ConversionInputs"];
type Transformer = NonNullable<Given["transformers"]>[number];

const TONE: Record<string, string> = {
  can: "text-proven",
  cannot: "text-live",
  open: "text-caution",
};
const SUPPLIES = ["480Y/277", convertWords.delta, "208Y/120", "600Y/347"];

/** One machine, another supply: what becomes of every motor and control transformer. */
export function ConvertScreen() {
  const { works = "", machine = "" } = useParams();
  const session = useSession();
  const client = useQueryClient();
  const [draft, setDraft] = useState<Given | null>(null);
  const [refusal, setRefusal] = useState<Refused | null>(null);
  const path = { works, machine };
  const kept = useQuery({
    queryKey: ["convert", works, machine],
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/convert/{machine}", { params: { path }, signal })),
    refetchOnWindowFocus: false,
  });
  const given = draft ?? kept.data?.given ?? null;
  const tried = useQuery({
    queryKey: ["try-convert", works, machine, given],
    enabled: draft !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/convert/{machine}", {
          params: { path },
          body: given as Given,
          signal,
        }),
      ),
  });
  const answered = useAnswer(tried, kept.data);
  useEffect(() => {
    document.title = convertWords.convertEvenCoil(machine);
  }, [machine]);
  if (kept.error) return <Failure error={kept.error} />;
  if (!kept.data || !given) return <Waiting />;
  const plan = (draft && answered.data) || kept.data;
  const set = (change: Partial<Given>) => setDraft({ ...given, ...change });
  const keep = async () => {
    try {
      const fresh = await told(
        api.PUT("/api/w/{works}/convert/{machine}", {
          params: { path },
          body: { based_on: kept.data.version.n, body: given },
        }),
      );
      client.setQueryData(["convert", works, machine], fresh);
      setDraft(null);
      setRefusal(null);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      setRefusal(error);
    }
  };
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
        line={draft ? convertWords.notSavedYet : convertWords.saved}
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
        {draft && answered.slab}
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
                  {motor.answer === "open" ? convertWords.informationMissing : motor.answer}
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
            {draft ? convertWords.savePlan : convertWords.saved}
          </button>
          <Link className="control" to={`/w/${works}`}>
            {convertWords.motors}
          </Link>
        </div>
      </footer>
    </>
  );
}

const LOADS = [
  "lamp",
  "coil",
  "solenoid",
  "brake",
  "rectifier",
  "dc_drive",
  "timer",
  "phase_monitor",
  "capacitor",
  "heater",
] as const;
const ACTIONS: Record<string, string> = {
  keep: "text-proven",
  refeed: "text-caution",
  replace: "text-live",
  open: "text-caution",
};

type Load = Schemas["MachineLoad"];

/** Whatever else hangs on the machine: what feeds it, and what becomes of it. */
function Loads({
  loads,
  answers,
  feeds,
  onLoadsChange,
}: {
  loads: readonly Load[];
  answers: readonly Schemas["LoadOut"][];
  feeds: readonly string[];
  onLoadsChange: (loads: Load[]) => void;
}) {
  const change = (at: number, next: Partial<Load>) =>
    onLoadsChange(loads.map((item, place) => (place === at ? { ...item, ...next } : item)));
  return (
    <section aria-labelledby="loads" className="space-y-3">
      <h2 id="loads" className="stamp">
        {convertWords.lampsCoilsRectifiers}
      </h2>
      {loads.map((item, at) => {
        const answer = answers.find((other) => other.tag === item.tag);
        return (
          <div
            // biome-ignore lint/suspicious/noArrayIndexKey: rows are edited in place
            key={at}
            className="metal flex flex-wrap items-end gap-3 px-5 py-3"
            data-testid={`load-${item.tag}`}
          >
            <Words
              label={convertWords.tag}
              value={item.tag}
              onValueChange={(tag) => tag && change(at, { tag })}
              className="w-24"
            />
            <label className="block">
              <span className="block text-sm text-soft">{convertWords.type}</span>
              <select
                className="field font-semibold"
                value={item.kind}
                onChange={(event) => {
                  const kind = LOADS.find((name) => name === event.target.value);
                  if (kind) change(at, { kind });
                }}
              >
                {LOADS.map((name) => (
                  <option key={name} value={name}>
                    {name.replace("_", " ")}
                  </option>
                ))}
              </select>
            </label>
            <Reading
              label={convertWords.ratedVoltage}
              unit="V"
              value={item.rated_v}
              onValueChange={(rated_v) => rated_v && change(at, { rated_v })}
            />
            <label className="block">
              <span className="block text-sm text-soft">{convertWords.fedFrom}</span>
              <select
                className="field font-semibold"
                value={item.fed_from ?? ""}
                onChange={(event) => change(at, { fed_from: event.target.value })}
              >
                <option value="">{convertWords.line}</option>
                {feeds.map((name) => (
                  <option key={name} value={name}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
            <p className="min-w-60 flex-1">
              {answer && (
                <>
                  <b className={`stamp ${ACTIONS[answer.action] ?? ""}`}>{answer.action}</b>{" "}
                  {answer.text}
                </>
              )}
            </p>
            <button
              type="button"
              className="ask"
              onClick={() => onLoadsChange(loads.filter((_, place) => place !== at))}
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
          onLoadsChange([
            ...loads,
            {
              tag: `LT${loads.length + 1}`,
              kind: "lamp",
              rated_v: "120",
              fed_from: feeds[0] ?? "",
            },
          ])
        }
      >
        {convertWords.addLoad}
      </button>
    </section>
  );
}

/** Primary voltages with their taps or links, as "240 H1-H3, H2-H4 / 480 H2-H3". */
function Taps({
  taps,
  onTapsChange,
}: {
  taps: NonNullable<Transformer["taps"]>;
  onTapsChange: (taps: NonNullable<Transformer["taps"]>) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = taps.map((tap) => `${tap.volts_v} ${tap.links ?? ""}`.trim()).join(" / ");
  return (
    <label className="min-w-0">
      <span className="block text-sm text-soft">{convertWords.primaryVoltagesTheir}</span>
      <input
        className="field w-80 max-w-full"
        value={text ?? shown}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => {
          if (text === null) return;
          onTapsChange(
            [...text.matchAll(/(\d+(?:\.\d+)?)\s*([^/]*)/g)].map(([, volts = "", links = ""]) => ({
              volts_v: volts,
              links: links.trim(),
            })),
          );
          setText(null);
        }}
      />
    </label>
  );
}
