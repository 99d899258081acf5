import { useEffect, useState } from "react";
import { Link, useLocation, useNavigate, useSearchParams } from "react-router";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { Sheet } from "../../components/Sheet";
import { Stop } from "../../components/shapes";
import { useIsNarrow } from "../../state/device";
import type { Key } from "../../state/keys";
import { sizeWords } from "../../words/size";
import { Decides } from "./Decides";
import { Figures } from "./Figures";
import { OwnSizes } from "./OwnSizes";
import { PartInputs } from "./parts/PartInputs";
import { PartPicker } from "./parts/PartPicker";
import { figuresOf, isPart, type PartId } from "./parts/parts";
import { RatingRules } from "./parts/RatingRules";
import { TimePart } from "./parts/TimePart";
import { Slip } from "./Slip";
import { WhySheet } from "./WhySheet";

/** Which conductor, and why; what decides it can be changed in place. */
export function SizeScreen() {
  const { place, state } = useRoom();
  const { given, worked } = state;
  const navigate = useNavigate();
  const location = useLocation();
  const isNarrow = useIsNarrow();
  const [seen, setSeen] = useState<string | null>(null);
  const asked = location.hash.slice(1) || (isNarrow ? null : seen);
  const [search, setSearch] = useSearchParams();
  const named = search.get("part");
  const part: PartId = isPart(named) ? named : "branch";
  const onPartChange = (next: PartId) => {
    setSeen(null);
    setSearch(next === "branch" ? {} : { part: next }, { replace: true });
  };
  const figures = worked ? figuresOf(worked, part) : [];
  const steps = worked?.steps ?? [];
  const first = figures.find((figure) => figure.step)?.step ?? null;
  const shown = steps.find((step) => step.id === (asked ?? (isNarrow ? "" : first)));
  const onWhy = (id: string) => {
    setSeen(id);
    navigate({ search: search.toString(), hash: id }, { replace: true });
  };
  useEffect(() => {
    if (worked && asked && !worked.steps.some((step) => step.id === asked)) setSeen(null);
  }, [worked, asked]);
  const chain = steps.filter(
    (step) =>
      step.kind === "calculated" && !worked?.figures.some((figure) => figure.step === step.id),
  );
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
      run: () => document.querySelector<HTMLElement>("[aria-labelledby=decides] button")?.focus(),
    },
  ];
  const why = worked && shown && <WhySheet worked={worked} step={shown} onStepChange={onWhy} />;
  const isOther = given?.supply.territory === "other";
  const title = shown ? sizeWords.why(shown.said) : "";
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
            className="border-2 border-ink bg-ground p-4 lg:sticky lg:top-20 lg:max-h-[calc(100dvh-11rem)] lg:overflow-y-auto"
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
        <div className="space-y-6">
          <PartPicker worked={worked} part={part} onPartChange={onPartChange} />
          {part === "branch" && isOther && (
            <OwnSizes
              figures={figures.filter((figure) => figure.group === "branch")}
              steps={steps}
              size={given.size}
              onSizeChange={(size) => state.change("size", size)}
            />
          )}
          <Figures
            figures={isOther ? figures.filter((figure) => !figure.refusal) : figures}
            steps={steps}
            shown={shown}
            base={base}
            onWhy={onWhy}
          />
          {part === "branch" && worked.steps.some((step) => step.id === "flc_for_maximum_a") && (
            <Stop strength="hold" title={sizeWords.powerBetweenRows}>
              <p>{sizeWords.minimumsFollowRow}</p>
              <button
                type="button"
                className="control"
                onClick={() => state.change("size", { ...given.size, between_rows: "next_row_up" })}
              >
                {sizeWords.allowNextRow}
              </button>
            </Stop>
          )}
          {part === "time" && <TimePart works={place.works} given={given} />}
          {part !== "branch" && part !== "time" && (
            <PartInputs
              part={part}
              works={place.works}
              size={given.size}
              worked={worked}
              onSizeChange={(size) => state.change("size", size)}
              onRest={() => void state.keep()}
            />
          )}
          {part === "branch" && <RatingRules worked={worked} />}
          {part === "branch" && chain.length > 0 && (
            <section aria-labelledby="chain">
              <h2 id="chain" className="stamp mb-2 text-soft">
                {sizeWords.howWasCalculated}
              </h2>
              <div className="grid gap-x-4 gap-y-2 sm:grid-cols-2 md:grid-cols-3">
                {chain.map((step) => (
                  <Slip key={step.id} step={step} isOpen={shown?.id === step.id} onWhy={onWhy} />
                ))}
              </div>
            </section>
          )}
          {part === "branch" && (
            <Decides
              plateText={given.plate.text ?? ""}
              onPlateTextChange={(text) => state.change("plate", { ...given.plate, text })}
              size={given.size}
              isOther={isOther}
              worked={worked}
              onSizeChange={(size) => state.change("size", size)}
              onRest={() => void state.keep()}
            />
          )}
          {given.size.between_rows === "next_row_up" && (
            <p>
              {sizeWords.nextTableRow}{" "}
              <button
                type="button"
                className="ask"
                onClick={() => state.change("size", { ...given.size, between_rows: "ask" })}
              >
                {sizeWords.undo}
              </button>
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
