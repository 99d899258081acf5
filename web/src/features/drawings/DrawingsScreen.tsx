import { useMemo, useRef, useState } from "react";
import { Link } from "react-router";
import { Coming } from "../../components/Edges";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { ProblemSlab, Stop } from "../../components/shapes";
import { numbersOf } from "../../diagram/numbers";
import { useCatalogue } from "../../diagram/useCatalogue";
import { useCircuit } from "../../diagram/useCircuit";
import type { View as Seen } from "../../diagram/view";
import { useIsNarrow } from "../../state/device";
import type { Key } from "../../state/keys";
import { drawingsWords } from "../../words/drawings";
import { programWords } from "../../words/program";
import { ProgramView } from "../program/ProgramView";
import { Beside } from "./Beside";
import { Changes } from "./Changes";
import { type Check, Checks } from "./Checks";
import type { Edit } from "./edits";
import { Files } from "./Files";
import { FIND } from "./Find";
import { MaterialTable, WireTable } from "./Lists";
import { Rungs } from "./Rungs";
import { isSheet, SheetView } from "./SheetView";
import { useHistory } from "./useHistory";
import { useSelection } from "./useSelection";
import { namesOf, useTouch } from "./useTouch";

const VIEWS = [
  ["ladder", drawingsWords.ladder],
  ["power", drawingsWords.power],
  ["wires", drawingsWords.wireList],
  ["material", drawingsWords.material],
  ["panel", drawingsWords.panel],
  ["strip", drawingsWords.terminals],
  ["checks", drawingsWords.checks],
  ["changes", drawingsWords.editWiring],
  ["program", programWords.view],
] as const;
type View = (typeof VIEWS)[number][0];

/** Press a button of the sheet that is shown. */
const zoom = (how: "near" | "away" | "fit") =>
  document.querySelector<HTMLElement>(`[data-zoom=${how}]`)?.click();

/** Where does this wire go? Every view of one netlist, one selection. */
export function DrawingsScreen() {
  const { place, state } = useRoom();
  const isNarrow = useIsNarrow();
  const { data: circuit, slab, isOld } = useCircuit(place.works, state.given);
  const [view, setView] = useState<View>("ladder");
  const { net, check, lit, setNet, pick, light, showProblem, step } = useSelection(
    circuit,
    setView,
  );
  const known = useCatalogue(place.works).data;
  const { given } = state;
  const history = useHistory(given?.starter, circuit?.problems ?? [], (starter) =>
    state.change("starter", starter),
  );
  const edit = (change: Partial<Edit>, why: string) => history.edit([change], why);
  const hand = useTouch(edit);
  const [isAdding, setAdding] = useState(false);
  const seen = useRef(new Map<string, Seen>());
  const nameOf = useMemo(() => namesOf(circuit ?? { devices: [] }), [circuit]);
  const touchWire = () => {
    if (!isSheet(view)) setView("ladder");
    hand.setTouch({ kind: "wire", from: "" });
  };
  const apply = (found: Check) => history.edit(found.edits as Partial<Edit>[], found.rule);
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  const numbers = useMemo(() => numbersOf(circuit), [circuit]);
  const keys: Key[] = [
    ...VIEWS.map(([name, label], number) => ({
      press: String(number + 1),
      does: drawingsWords.show2(label.toLowerCase()),
      run: () => setView(name),
    })),
    { press: "j", does: drawingsWords.nextWire, run: () => step(1) },
    { press: "k", does: drawingsWords.wireBefore, run: () => step(-1) },
    {
      press: "/",
      does: drawingsWords.find,
      run: () => document.getElementById(FIND)?.focus(),
    },
    { press: "+", does: drawingsWords.nearer, run: () => zoom("near") },
    { press: "-", does: drawingsWords.further, run: () => zoom("away") },
    { press: "0", does: drawingsWords.wholeSheet, run: () => zoom("fit") },
    { press: "e", does: drawingsWords.touchWire, run: touchWire },
    { press: "d", does: drawingsWords.touchDevice, run: () => setAdding(true) },
    {
      press: "Escape",
      does: drawingsWords.letGo,
      run: () => {
        if (!hand.touch && !isAdding) setNet(null);
        hand.setTouch(null);
        setAdding(false);
      },
    },
    { press: "Ctrl+z", does: drawingsWords.undoLastEdit, run: history.undo },
    { press: "Ctrl+y", does: drawingsWords.redo, run: history.redo },
  ];
  const hasOne = Boolean(circuit?.entry);
  // a wire is touched on the whole ladder; to read, a phone shows a rung at a time
  const isRungs = view === "ladder" && isNarrow && !hand.touch && (circuit?.rungs.length ?? 0) > 0;
  return (
    <JobFrame
      place={place}
      step="drawings"
      state={state}
      keys={keys}
      margin={
        circuit &&
        hasOne && (
          <Beside
            works={place.works}
            circuit={circuit}
            nameOf={nameOf}
            isOld={isOld}
            given={given}
            known={known}
            net={net}
            check={check}
            hand={hand}
            history={history}
            isAdding={isAdding}
            onAdding={setAdding}
            onPick={pick}
            onStep={step}
            onProblem={showProblem}
            onTouchWire={touchWire}
            onMove={(touch) => {
              if (!isSheet(view)) setView("ladder");
              hand.setTouch(touch);
            }}
            // a device without a wire stands on the panel, not in the ladder
            onAdded={() => setView("panel")}
            onDo={(found) => {
              apply(found);
              setNet(null);
            }}
            onChecks={() => setView("checks")}
          />
        )
      }
      primary={
        <Link
          to={hasOne ? `${base}/rehearse` : `${base}/starter`}
          className="control md:w-auto!"
          data-primary="true"
        >
          {hasOne ? drawingsWords.rehearse : drawingsWords.chooseStarter}
        </Link>
      }
      others={hasOne && <Files base={base} view={view} />}
    >
      {slab}
      {!circuit && <Coming />}
      {circuit?.refusal && <ProblemSlab problem={circuit.refusal} />}
      {circuit && hasOne && (
        <div className="space-y-4">
          {circuit.findings
            .filter((found) => found.level === "refusal" || found.level === "doubt")
            .map((found) => (
              <Stop key={found.text} strength="hold" title={found.text}>
                <p>{found.hint}</p>
              </Stop>
            ))}
          <div className="flex flex-wrap gap-2" role="group" aria-label={drawingsWords.views}>
            {VIEWS.filter(([name]) => name !== "program" || circuit.relays.length > 0).map(
              ([name, label]) => (
                <button
                  key={name}
                  type="button"
                  className="control"
                  aria-pressed={view === name}
                  onClick={() => setView(name)}
                >
                  {label}
                </button>
              ),
            )}
          </div>
          <div className="border-2 border-ink bg-sheet p-2">
            {isRungs && (
              <Rungs
                rungs={circuit.rungs}
                numbers={numbers}
                picked={net}
                lit={lit}
                onPick={setNet}
              />
            )}
            {isSheet(view) && !isRungs && (
              <SheetView
                view={view}
                circuit={circuit}
                numbers={numbers}
                picked={net}
                lit={lit}
                onPick={setNet}
                places={seen.current}
                terminal={hand.touch?.from}
                onTerminal={hand.touch ? hand.tap : undefined}
                terminalName={nameOf}
                onJoin={hand.touch ? hand.join : undefined}
              />
            )}
            {view === "wires" && <WireTable circuit={circuit} net={net} onPick={setNet} />}
            {view === "checks" && given && (
              <Checks works={place.works} given={given} shown={check} onShow={light} onDo={apply} />
            )}
            {view === "changes" && given && (
              <Changes
                works={place.works}
                given={given}
                circuit={circuit}
                library={known?.library ?? []}
                usual={known?.usual ?? []}
                onChange={(starter) => state.change("starter", starter)}
              />
            )}
            {view === "program" &&
              given &&
              circuit.relays.map((relay) => (
                <ProgramView
                  key={`${relay.id} ${relay.program}`}
                  relay={relay}
                  onKeep={(text) =>
                    state.change("starter", {
                      ...given.starter,
                      programs: { ...given.starter.programs, [relay.id]: text },
                    })
                  }
                />
              ))}
            {view === "material" && <MaterialTable circuit={circuit} base={base} />}
          </div>
        </div>
      )}
    </JobFrame>
  );
}
