import { useMemo, useRef, useState } from "react";
import { Link } from "react-router";
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
import { Changes } from "./Changes";
import { CheckCard } from "./CheckCard";
import { type Check, Checks } from "./Checks";
import { EditBar } from "./EditBar";
import type { Edit } from "./edits";
import { Files } from "./Files";
import { FIND, Find } from "./Find";
import { MaterialTable, WireTable } from "./Lists";
import type { Match } from "./matches";
import { NewDevice } from "./NewDevice";
import { Rungs } from "./Rungs";
import { isSheet, SheetView } from "./SheetView";
import { TypedWire } from "./TypedWire";
import { useHistory } from "./useHistory";
import { namesOf, useTouch } from "./useTouch";
import { Problems, Verdict } from "./Verdict";
import { type Drawn, stillOpen } from "./verdict";
import { WireCard } from "./WireCard";

const VIEWS = [
  ["ladder", drawingsWords.ladder],
  ["power", drawingsWords.power],
  ["wires", drawingsWords.wireList],
  ["material", drawingsWords.material],
  ["panel", drawingsWords.panel],
  ["strip", drawingsWords.terminals],
  ["checks", drawingsWords.checks],
  ["changes", drawingsWords.editWiring],
] as const;
type View = (typeof VIEWS)[number][0];

/** Where does this wire go? Every view of one netlist, one selection. */
export function DrawingsScreen() {
  const { place, state } = useRoom();
  const isNarrow = useIsNarrow();
  const { data: circuit, slab } = useCircuit(place.works, state.given);
  const [view, setView] = useState<View>("ladder");
  const [picked, pickNet] = useState<string | null>(null);
  // a wire that an edit took away is no longer picked
  const net = circuit?.nets.some((one) => one.id === picked) ? picked : null;
  const [check, setCheck] = useState<Check | null>(null);
  const [device, setDevice] = useState<string | null>(null);
  const lit = useMemo(
    () => (check ? new Set(check.devices) : device ? new Set([device]) : undefined),
    [check, device],
  );
  const setNet = (next: string | null) => {
    setCheck(null);
    setDevice(null);
    pickNet(next);
  };
  const pick = (match: Match) => {
    setNet(match.kind === "wire" ? match.net : null);
    if (match.kind === "device") setDevice(match.device);
  };
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
  const light = (next: Check) => {
    // the drawing that shows it: power if none of it stands in the ladder
    const inLadder = circuit?.ladder.shapes.some(
      (shape) => next.devices.includes(shape.device ?? "") || next.nets.includes(shape.net ?? ""),
    );
    setCheck(next);
    pickNet(next.nets[0] ?? null);
    setView(inLadder ? "ladder" : "power");
  };
  const showProblem = (problem: Drawn) => {
    setCheck(null);
    pickNet(problem.nets[0] ?? null);
    setDevice(problem.devices[0] ?? null);
    const inLadder = circuit?.ladder.shapes.some(
      (shape) =>
        problem.devices.includes(shape.device ?? "") || problem.nets.includes(shape.net ?? ""),
    );
    setView(inLadder ? "ladder" : "power");
  };
  // what the last edit brought stands with its verdict already
  const openProblems = history.before
    ? stillOpen(history.before, circuit?.problems ?? [])
    : (circuit?.problems ?? []);
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  const numbers = useMemo(() => numbersOf(circuit), [circuit]);
  const nets = Object.keys(numbers);
  const step = (by: number) => {
    if (nets.length === 0) return;
    const at = net === null ? (by > 0 ? -1 : 0) : nets.indexOf(net);
    setNet(nets[(at + by + nets.length) % nets.length] ?? null);
  };
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
    { press: "0", does: drawingsWords.clearHighlight, run: () => setNet(null) },
    { press: "e", does: drawingsWords.touchWire, run: touchWire },
    { press: "d", does: drawingsWords.touchDevice, run: () => setAdding(true) },
    {
      press: "Escape",
      does: drawingsWords.stopEdit,
      run: () => {
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
          <div className="space-y-4">
            <Find circuit={circuit} onPick={pick} />
            <EditBar
              touch={hand.touch}
              isAdding={isAdding}
              nameOf={nameOf}
              canUndo={history.canUndo}
              canRedo={history.canRedo}
              onTouch={(touch) => (touch ? touchWire() : hand.setTouch(null))}
              onDevice={() => setAdding((now) => !now)}
              onUndo={history.undo}
              onRedo={history.redo}
            />
            {hand.touch?.kind === "wire" && given && (
              <TypedWire
                works={place.works}
                given={given}
                label={drawingsWords.oneLineShort}
                onAdd={(wires) => history.edit(wires, "")}
              />
            )}
            {isAdding && (
              <NewDevice
                library={known?.library ?? []}
                usual={known?.usual ?? []}
                onEdit={(made, why) => {
                  edit(made, why);
                  // a device without a wire stands on the panel, not in the ladder
                  setView("panel");
                }}
              />
            )}
            {history.before && (
              <Verdict before={history.before} now={circuit.problems} onShow={showProblem} />
            )}
            {check && (
              <CheckCard
                check={check}
                onDo={() => {
                  apply(check);
                  setNet(null);
                }}
                onBack={() => setView("checks")}
              />
            )}
            {net ? (
              <WireCard
                circuit={circuit}
                net={net}
                onEdit={edit}
                onMove={(touch) => {
                  if (!isSheet(view)) setView("ladder");
                  hand.setTouch(touch);
                }}
              />
            ) : (
              <p className="text-soft">{drawingsWords.tapWireHighlight}</p>
            )}
            <div className="flex gap-3">
              <button type="button" className="control" onClick={() => step(-1)}>
                {drawingsWords.wireBefore}
              </button>
              <button type="button" className="control" onClick={() => step(1)}>
                {drawingsWords.nextWire}
              </button>
            </div>
            {openProblems.length > 0 && (
              <section aria-labelledby="problems" className="space-y-2">
                <h2 id="problems" className="stamp text-soft">
                  {drawingsWords.problemsHere}
                </h2>
                <Problems problems={openProblems} onShow={showProblem} />
              </section>
            )}
            {circuit.findings
              .filter((found) => found.level === "note")
              .map((found) => (
                <p key={found.text} className="text-sm text-soft">
                  {found.text}
                </p>
              ))}
          </div>
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
            {VIEWS.map(([name, label]) => (
              <button
                key={name}
                type="button"
                className="control"
                aria-pressed={view === name}
                onClick={() => setView(name)}
              >
                {label}
              </button>
            ))}
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
                onJoin={hand.touch?.kind === "wire" ? hand.join : undefined}
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
            {view === "material" && <MaterialTable circuit={circuit} base={base} />}
          </div>
        </div>
      )}
    </JobFrame>
  );
}
