import { useState } from "react";
import { Link } from "react-router";
import { Coming } from "../../components/Edges";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { ProblemSlab, Stop } from "../../components/shapes";
import type { Key } from "../../state/keys";
import type { Given } from "../../state/useJob";
import { words } from "../../words/common";
import { runUpWords as w } from "../../words/runUp";
import { csvOf, download } from "./csv";
import { Faults } from "./Faults";
import { InARow } from "./InARow";
import { LoadInputs } from "./LoadInputs";
import { StandsOn } from "./StandsOn";
import { Timer } from "./Timer";
import { TorquePlot } from "./TorquePlot";
import { Traces } from "./Traces";
import { useAdvice, useRunUp, useStartsInARow } from "./useRunUp";
import { Ways } from "./Ways";

type Load = Given["load"];

/** Does it start, how long does it take, and which setting is right? */
export function RunUpScreen() {
  const { place, state } = useRoom();
  const { given } = state;
  const [picked, setPicked] = useState("");
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  const set = (change: Partial<Load>) => {
    if (given) state.change("load", { ...given.load, ...change });
  };
  const { data: sheet, slab } = useRunUp(place.works, given);
  const way =
    sheet?.ways.find((one) => one.method === picked) ??
    sheet?.ways.find((one) => one.method === sheet.own) ??
    sheet?.ways[0];
  const timer = useAdvice(place.works, given, way);
  const row = useStartsInARow(place.works, given, Boolean(sheet?.load));
  const note = () => {
    set({
      noted: (sheet?.expected ?? []).map((one) => ({
        id: one.id as "loaded_a",
        value: one.value.toPrecision(4),
        unit: one.unit as "A",
        percent: one.percent,
      })),
    });
    void state.keep();
  };
  const next = (by: number) => {
    const all = sheet?.ways ?? [];
    const at = all.findIndex((one) => one.method === way?.method);
    setPicked(all[(at + by + all.length) % all.length]?.method ?? "");
  };
  const keys: Key[] = [
    { press: "ArrowUp", does: w.compare, run: () => next(-1) },
    { press: "ArrowDown", does: w.compare, run: () => next(1) },
  ];
  return (
    <JobFrame
      place={place}
      step="run-up"
      state={state}
      keys={keys}
      isWide
      headline={
        // room for a verdict, so that nothing below it moves when it comes
        <span className="block min-h-[4lh] lg:min-h-[2lh]">
          {way?.verdict ?? (given?.load.kind && !sheet ? w.calculating : w.ask)}
        </span>
      }
      margin={null}
      primary={
        <Link to={`${base}/rehearse`} className="control md:w-auto!" data-primary="true">
          {w.rehearse}
        </Link>
      }
      others={
        <>
          <Link to={`${base}/starter`} className="control">
            {words.steps.starter}
          </Link>
          {way && (
            <button
              type="button"
              className="control"
              onClick={() => download(csvOf(way), `${place.tag}-${way.method}.csv`)}
            >
              {w.csv}
            </button>
          )}
        </>
      }
    >
      {given && (
        <LoadInputs
          load={given.load}
          kind={sheet?.kind ?? ""}
          onLoadChange={set}
          onRest={() => void state.keep()}
        />
      )}
      {slab}
      {!sheet && <Coming />}
      {sheet?.refusal && given?.load.kind && <ProblemSlab problem={sheet.refusal} />}
      {sheet?.load && way && (
        <>
          {!way.is_good && (
            <Stop
              strength={way.method === "as_joined" ? "stop" : "hold"}
              title={`${way.name}: ${way.verdict}`}
            >
              {way.findings.map((text) => (
                <p key={text}>{text}</p>
              ))}
            </Stop>
          )}
          {way.is_good && way.findings.map((text) => <p key={text}>{text}</p>)}
          {sheet.is_poor && <p className="font-semibold text-caution">{w.poor}</p>}
          <div className="grid gap-4 lg:grid-cols-2">
            <TorquePlot key={`torque ${way.method}`} way={way} load={sheet.load} />
            <Traces key={`traces ${way.method}`} way={way} limitC={sheet.limit_c} />
          </div>
          <div className="grid gap-4 lg:grid-cols-2">
            <Ways sheet={sheet} chosen={way} onChoose={setPicked} />
            {way.duty_percent !== null && (
              <p className="lg:col-span-2">{w.duty(way.duty_percent.toFixed(0))}</p>
            )}
            {way.has_timer && <Timer advice={timer.data} slab={timer.slab} />}
          </div>
          <Faults sheet={sheet} />
          <StandsOn sheet={sheet} noted={given?.load.noted ?? []} onNote={note}>
            <InARow found={row.data} slab={row.slab} />
          </StandsOn>
          <p className="text-sm text-soft">{w.limits}</p>
        </>
      )}
    </JobFrame>
  );
}
