import { useDeferredValue, useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { Failure, Waiting } from "../../components/Edges";
import { KeySheet } from "../../components/KeySheet";
import { Shout } from "../../components/shapes";
import { TopBar } from "../../components/TopBar";
import { useIsNarrow } from "../../state/device";
import { type Key, useKeys } from "../../state/keys";
import { useDemo, useSession } from "../../state/session";
import { auditWords } from "../../words/audit";
import { helpWords } from "../../words/help";
import { peopleWords } from "../../words/people";
import { practiceWords } from "../../words/practice";
import { scheduleWords } from "../../words/schedule";
import { sensorsWords } from "../../words/sensors";
import { troubleWords } from "../../words/trouble";
import { yardWords } from "../../words/yard";
import { ALL, Filters, isNarrowed, type Only } from "./Filters";
import { FirstRun } from "./FirstRun";
import { Intake } from "./Intake";
import { groupsOf, Machine } from "./Machine";
import { type ListedMotor, useMotors } from "./useMotors";

/** What is asked for, as it stands in an address. */
const asText = (asked: Record<string, string | number | boolean>) =>
  Object.entries(asked).map(([name, value]) => [name, String(value)]);

/** Every motor of the works: where its job stands and what it wants next. */
export function Motors() {
  const { works = "" } = useParams();
  const [filter, setFilter] = useState("");
  const [page, setPage] = useState(1);
  const [only, setOnly] = useState<Only>(ALL);
  const asked = useDeferredValue(filter.trim());
  const isNarrow = useIsNarrow();
  const state = useMotors(works, { page, q: asked, ...only });
  const session = useSession();
  const plants = session.data?.works?.filter((one) => one.slug !== works) ?? [];
  const demo = useDemo();
  const navigate = useNavigate();
  const [at, setAt] = useState(0);
  const [mode, setMode] = useState<"add" | "import" | null>(null);
  const [isHelp, setHelp] = useState(false);
  const yard = state.yard.data;
  const motors = yard?.motors ?? [];
  const to = (motor: ListedMotor) =>
    `/w/${works}/m/${encodeURIComponent(motor.tag)}/j/${motor.job}/${motor.next_step || "size"}`;
  const open = (motor: ListedMotor | undefined) => motor && navigate(to(motor));
  const move = (by: number) => {
    const next = Math.min(Math.max(at + by, 0), Math.max(motors.length - 1, 0));
    setAt(next);
    document.getElementById(`motor-${next}`)?.focus();
  };
  const wants = yard?.next ?? [];
  const turn = (by: number) => {
    setPage((yard?.page ?? 1) + by);
    window.scrollTo(0, 0);
  };
  const keys: Key[] = [
    { press: "j", does: yardWords.nextMotor, run: () => move(1) },
    { press: "k", does: yardWords.previousMotor, run: () => move(-1) },
    {
      press: "n",
      does: yardWords.nextUp,
      run: () => open(wants[0]),
    },
    { press: "a", does: yardWords.newMotor, run: () => setMode("add") },
    { press: "i", does: yardWords.importJobFile, run: () => setMode("import") },
    { press: "/", does: yardWords.search, run: () => document.getElementById("search")?.focus() },
    { press: "?", does: yardWords.keysScreen, run: () => setHelp(true) },
  ];
  useKeys(keys);
  useEffect(() => {
    document.title = yardWords.motorsEvenCoil;
  }, []);
  if (state.yard.error) return <Failure error={state.yard.error} />;
  // the ways to other plants come with the session: a line that came later would move the rest
  if (!yard || session.isPending) return <Waiting />;
  const others = (
    <>
      <Link className="control" to={`/w/${works}/heaters`}>
        {yardWords.heaterCharts}
      </Link>
      <Link className="control" to={`/w/${works}/audit`}>
        {auditWords.title}
      </Link>
      <Link className="control" to={`/w/${works}/schedule`}>
        {scheduleWords.title}
      </Link>
      <Link className="control" to={`/w/${works}/practice`}>
        {practiceWords.title}
      </Link>
      <Link className="control" to={`/w/${works}/which`}>
        {troubleWords.which}
      </Link>
      <Link className="control" to={`/w/${works}/sensors`}>
        {sensorsWords.title}
      </Link>
      <Link className="control" to={`/w/${works}/people`}>
        {peopleWords.title}
      </Link>
      <Link className="control" to={`/w/${works}/rules`}>
        {yardWords.plantRules}
      </Link>
      <button type="button" className="control" onClick={() => setMode("import")}>
        {yardWords.importFile}
      </button>
      {plants.map((plant) => (
        <Link key={plant.slug} className="control" to={`/w/${plant.slug}`}>
          {yardWords.toPlant(plant.name)}
        </Link>
      ))}
    </>
  );
  const filters = (
    <Filters
      only={only}
      machines={yard.machines}
      volts={yard.volts}
      onChange={(next) => {
        setOnly(next);
        setPage(1);
      }}
    />
  );
  const demoSlug = demo.data?.works ?? "";
  const isMember = session.data?.works?.some((one) => one.slug === demoSlug);
  const demoAt =
    demoSlug === "" || demoSlug === works ? "" : isMember ? `/w/${demoSlug}` : "/sign-in";
  // the tour goes round a motor whose starter is chosen, if there is one on this page
  const guide =
    motors.find((motor) =>
      motor.arches.some((arch) => arch.step === "starter" && arch.state === "done"),
    ) ?? motors[0];
  const tour = guide && `/w/${works}/m/${encodeURIComponent(guide.tag)}/j/${guide.job}/plate?tour`;
  return (
    <>
      <TopBar
        crumbs={[{ name: yard.works }]}
        who={session.data?.display_name ?? ""}
        onHelp={() => setHelp(true)}
      />
      <main className="mx-auto max-w-[1280px] space-y-4 px-4 pt-4 pb-24">
        <div className="flex flex-wrap items-end justify-between gap-3">
          <Shout>{yard.headline}</Shout>
          <div className="flex flex-wrap items-center gap-3">
            {!isNarrow && others}
            <button
              type="button"
              className="control md:w-auto!"
              data-primary="true"
              aria-describedby={yard.may_add ? undefined : "why-not-add"}
              onClick={() => setMode("add")}
            >
              {yardWords.newMotor}
            </button>
            {!yard.may_add && (
              <p id="why-not-add" className="text-sm text-soft">
                {yard.why_not_add}
              </p>
            )}
          </div>
        </div>
        <div className="flex flex-wrap items-center gap-3">
          <label className="flex items-center max-md:w-full">
            <span className="sr-only">{yardWords.searchMotors}</span>
            <input
              id="search"
              type="search"
              className="field md:w-80"
              placeholder={yardWords.search2}
              value={filter}
              onChange={(event) => {
                setFilter(event.target.value);
                setPage(1);
              }}
            />
          </label>
          {isNarrow ? (
            <details className="w-full">
              <summary className="ask">{yardWords.narrow}</summary>
              {filters}
            </details>
          ) : (
            filters
          )}
        </div>
        <div className="grid items-start gap-4 lg:grid-cols-[minmax(0,1fr)_340px]">
          <div className="min-w-0 space-y-4">
            {groupsOf(motors).map((group) => (
              <Machine key={group.machine} works={works} group={group} to={to} onFocus={setAt} />
            ))}
            {motors.length === 0 && !asked && !isNarrowed(only) && (
              <FirstRun
                demo={demoAt}
                mayAdd={yard.may_add}
                onAdd={() => setMode("add")}
                onImport={() => setMode("import")}
              />
            )}
            {motors.length === 0 && (asked || isNarrowed(only)) && (
              <p>{asked ? yardWords.noMotorMatches(asked) : yardWords.noneSo}</p>
            )}
            {motors.length > 0 && (
              <p className="flex flex-wrap gap-x-4">
                <span className="text-soft">{yardWords.asFile(yard.found)}</span>
                {(["csv", "xlsx", "json"] as const).map((kind) => (
                  <a
                    key={kind}
                    className="ask"
                    href={`/api/w/${works}/motors.${kind}?${new URLSearchParams(asText({ q: asked, ...only }))}`}
                    download={`${works} motors.${kind}`}
                  >
                    {yardWords.files[kind]}
                  </a>
                ))}
              </p>
            )}
            {yard.pages > 1 && (
              <nav aria-label={yardWords.pages} className="flex items-center gap-3">
                <button
                  type="button"
                  className="control"
                  disabled={yard.page <= 1}
                  onClick={() => turn(-1)}
                >
                  {yardWords.pageBefore}
                </button>
                <span>{yardWords.pageOf(yard.page, yard.pages)}</span>
                <button
                  type="button"
                  className="control"
                  disabled={yard.page >= yard.pages}
                  onClick={() => turn(1)}
                >
                  {yardWords.pageAfter}
                </button>
              </nav>
            )}
          </div>
          <section aria-labelledby="next-undone" className="metal px-5 py-4">
            {tour && (
              <Link className="ask float-right" to={tour}>
                {helpWords.takeTour}
              </Link>
            )}
            <h2 id="next-undone" className="stamp">
              {yardWords.nextUp}
            </h2>
            {wants.length === 0 ? (
              <p className="mt-2">
                {yard.found === 0 && !asked && !isNarrowed(only)
                  ? yardWords.nothingYet
                  : yardWords.nothingEveryFigure}
              </p>
            ) : (
              <ol className="mt-2 space-y-2">
                {wants.map((motor) => (
                  <li
                    key={motor.tag}
                    className="border-t border-hair pt-2 first:border-0 first:pt-0"
                  >
                    <Link to={to(motor)} className="ask font-headline text-lg">
                      {motor.tag}
                    </Link>
                    <span className="block">{motor.wants}</span>
                  </li>
                ))}
              </ol>
            )}
          </section>
        </div>
        {isNarrow && <div className="flex flex-wrap gap-3">{others}</div>}
      </main>
      <Intake
        works={works}
        machines={yard.machines}
        yard={state}
        mode={mode}
        onClose={() => setMode(null)}
      />
      <KeySheet keys={keys} isOpen={isHelp} onOpenChange={setHelp} screen="motors" tour={tour} />
    </>
  );
}
