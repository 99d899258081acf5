import { useEffect, useRef, useState } from "react";
import { Link, useLocation, useNavigate, useSearchParams } from "react-router";
import type { Worked } from "../../api/client";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { Sheet } from "../../components/Sheet";
import { Stop } from "../../components/shapes";
import { useIsNarrow } from "../../state/device";
import type { Key } from "../../state/keys";
import type { Given } from "../../state/useJob";
import { sizeWords } from "../../words/size";
import { BranchRows } from "./ledger/BranchRows";
import { FigureRows } from "./ledger/FigureRows";
import { Fold } from "./ledger/Fold";
import { useMoved } from "./ledger/useMoved";
import { OwnSizes } from "./OwnSizes";
import { PartInputs } from "./parts/PartInputs";
import { failsOf, figuresOf, isPart, PARTS, type PartId, type Size } from "./parts/parts";
import { RatingRules } from "./parts/RatingRules";
import { TimePart } from "./parts/TimePart";
import { WhySheet } from "./WhySheet";

/** What do I install, and by which rule? One ledger: every figure with what decides it. */
export function SizeScreen() {
  const { place, state } = useRoom();
  const { given, worked, job } = state;
  const navigate = useNavigate();
  const location = useLocation();
  const isNarrow = useIsNarrow();
  const [seen, setSeen] = useState<string | null>(null);
  const moved = useMoved(worked);
  const asked = location.hash.slice(1) || (isNarrow ? null : seen);
  const [search, setSearch] = useSearchParams();
  const { opened, set } = useFolds(worked, search.get("part"));
  const steps = worked?.steps ?? [];
  const figures = worked ? figuresOf(worked, "branch") : [];
  const first =
    figures.find((figure) => figure.id === "conductor_size" && figure.step)?.step ??
    figures.find((figure) => figure.step)?.step ??
    null;
  const shown = steps.find((step) => step.id === (asked ?? (isNarrow ? "" : first)));
  const onWhy = (id: string) => {
    setSeen(id);
    navigate({ search: search.toString(), hash: id }, { replace: true });
  };
  useEffect(() => {
    if (worked && asked && !worked.steps.some((step) => step.id === asked)) setSeen(null);
  }, [worked, asked]);
  const named = search.get("part");
  const isThere = Boolean(worked);
  const arrived = useRef(false);
  useEffect(() => {
    // a link to a section shows it; later folds stay where they are
    if (!isThere || arrived.current) return;
    arrived.current = true;
    if (isPart(named)) {
      document.getElementById(`part-${named}`)?.scrollIntoView({ block: "start" });
    }
  }, [isThere, named]);
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  const focused = () => {
    const id = document.activeElement?.id;
    return steps.find((step) => step.id === id)?.id ?? shown?.id ?? first;
  };
  const keys: Key[] = [
    {
      press: "s",
      does: sizeWords.switchReading,
      run: () => {
        if (given && worked) {
          state.change("size", {
            ...given.size,
            rating_rule: worked.rating_rule === "main_rule" ? "next_size_up" : "main_rule",
          });
        }
      },
    },
    {
      press: "w",
      does: sizeWords.whyFigureFocus,
      run: () => {
        const id = focused();
        if (id) onWhy(id);
      },
    },
    {
      press: "e",
      does: sizeWords.changeInputs,
      run: () => document.querySelector<HTMLElement>(".ledger-row select")?.focus(),
    },
    {
      press: "c",
      does: sizeWords.openCurve,
      run: () => onOpen("time", true),
    },
  ];
  const onOpen = (part: PartId, isOpen: boolean) => {
    set(part, isOpen);
    if (part === "branch") return;
    setSearch(isOpen ? { part } : {}, { replace: true });
  };
  const why = worked && shown && (
    <>
      <WhySheet worked={worked} step={shown} onStepChange={onWhy} />
      {shown.id === "protection_device_a" && <RatingRules worked={worked} />}
    </>
  );
  const isOther = given?.supply.territory === "other";
  const title = shown ? sizeWords.why(shown.said) : "";
  const onSizeChange = (size: Size) => state.change("size", size);
  const onRest = () => void state.keep();
  return (
    <JobFrame
      place={place}
      step="size"
      state={state}
      keys={keys}
      margin={
        !isNarrow &&
        why && (
          <section
            aria-label={title}
            className="border-2 border-ink bg-ground p-4 lg:sticky lg:top-20 lg:max-h-[calc(100dvh-6rem)] lg:overflow-y-auto"
          >
            <h2 className="font-headline text-xl font-bold text-plum uppercase">{title}</h2>
            {why}
          </section>
        )
      }
      primary={
        <Link to={`${base}/starter`} className="control md:w-auto!" data-primary="true">
          {sizeWords.starter}
        </Link>
      }
      others={
        <>
          <Link to={`${base}/leads`} className="control">
            {sizeWords.leads}
          </Link>
          <a
            className="control"
            href={`/api${base}/file`}
            download={`${place.tag}-${place.number}.json`}
          >
            {sizeWords.exportFile}
          </a>
        </>
      }
    >
      {given && worked && (
        <div data-testid="ledger">
          {PARTS.map(({ id, name }) => (
            <Fold
              key={id}
              part={id}
              name={name}
              worked={worked}
              moved={
                figuresOf(worked, id).filter((figure) => figure.step && moved.has(figure.step))
                  .length
              }
              isOpen={opened.has(id)}
              onOpenChange={(isOpen) => onOpen(id, isOpen)}
            >
              {id === "branch" ? (
                <>
                  <BetweenRows given={given} worked={worked} onSizeChange={onSizeChange} />
                  {isOther && (
                    <OwnSizes
                      figures={figures}
                      steps={steps}
                      size={given.size}
                      onSizeChange={onSizeChange}
                    />
                  )}
                  <BranchRows
                    given={given}
                    worked={worked}
                    base={base}
                    shown={shown?.id}
                    moved={moved}
                    isOther={isOther}
                    onWhy={onWhy}
                    onSizeChange={onSizeChange}
                    onPlateTextChange={(text) => state.change("plate", { ...given.plate, text })}
                    onRest={onRest}
                  />
                </>
              ) : id === "time" ? (
                // as tall as a screen at once: what comes later moves nothing
                <div className="min-h-[calc(100dvh-8rem)]">
                  <TimePart works={place.works} given={given} />
                </div>
              ) : (
                <>
                  {figuresOf(worked, id).length > 0 && (
                    <ul>
                      <FigureRows
                        part={id}
                        worked={worked}
                        base={base}
                        shown={shown?.id}
                        moved={moved}
                        onWhy={onWhy}
                      />
                    </ul>
                  )}
                  <PartInputs
                    part={id}
                    works={place.works}
                    size={given.size}
                    worked={worked}
                    onSizeChange={onSizeChange}
                    onRest={onRest}
                  />
                </>
              )}
            </Fold>
          ))}
          {job && (
            <p className="border-t-2 border-ink py-1.5">
              <Link
                className="ask"
                to={`/w/${place.works}/feeder/${encodeURIComponent(job.machine)}`}
              >
                {sizeWords.feederOf(job.machine)}
              </Link>
            </p>
          )}
        </div>
      )}
      {isNarrow && (
        <Sheet
          isOpen={Boolean(why)}
          onOpenChange={(isOpen) => {
            if (!isOpen) {
              setSeen(null);
              navigate({ search: search.toString(), hash: "" }, { replace: true });
            }
          }}
          title={title}
        >
          {why}
        </Sheet>
      )}
    </JobFrame>
  );
}

/** Which sections are open: the branch circuit, the named one, and each as soon as it fails. */
function useFolds(worked: Worked | null | undefined, named: string | null) {
  const [opened, setOpened] = useState<ReadonlySet<PartId>>(
    () => new Set<PartId>(isPart(named) ? ["branch", named] : ["branch"]),
  );
  const failing = worked
    ? PARTS.filter(({ id }) => failsOf(worked, id) > 0)
        .map(({ id }) => id)
        .join(" ")
    : "";
  useEffect(() => {
    // what fails opens by itself, and never closes under a hand
    const fresh = failing.split(" ").filter(isPart);
    if (fresh.length > 0) setOpened((before) => new Set([...before, ...fresh]));
  }, [failing]);
  const set = (part: PartId, isOpen: boolean) =>
    setOpened((before) => {
      const next = new Set(before);
      if (isOpen) next.add(part);
      else next.delete(part);
      return next;
    });
  return { opened, set };
}

/** A horsepower between two rows of the table: marked, and settled with one tap. */
function BetweenRows({
  given,
  worked,
  onSizeChange,
}: {
  given: Given;
  worked: Worked;
  onSizeChange: (size: Size) => void;
}) {
  const { size } = given;
  if (size.between_rows === "next_row_up") {
    return (
      <p>
        {sizeWords.nextTableRow}{" "}
        <button
          type="button"
          className="ask"
          onClick={() => onSizeChange({ ...size, between_rows: "ask" })}
        >
          {sizeWords.undo}
        </button>
      </p>
    );
  }
  if (!worked.steps.some((step) => step.id === "flc_for_maximum_a")) return null;
  return (
    <Stop strength="hold" title={sizeWords.powerBetweenRows}>
      <p>{sizeWords.minimumsFollowRow}</p>
      <button
        type="button"
        className="control"
        onClick={() => onSizeChange({ ...size, between_rows: "next_row_up" })}
      >
        {sizeWords.allowNextRow}
      </button>
    </Stop>
  );
}
