import { useState } from "react";
import { Link } from "react-router";
import { Refused } from "../../api/client";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { ProblemSlab, Stop } from "../../components/shapes";
import { Diagram, Twin } from "../../diagram/Diagram";
import { type Circuit, useCircuit } from "../../diagram/useCircuit";
import { useIsNarrow } from "../../state/device";
import type { Key } from "../../state/keys";
import { Probes } from "./Probes";

const VIEWS = [
  ["ladder", "Ladder"],
  ["power", "Power"],
  ["wires", "Wire list"],
  ["material", "Material"],
  ["probes", "Probes"],
] as const;
type View = (typeof VIEWS)[number][0];

/** The wires of one number, from end to end. */
function WireCard({ circuit, net }: { circuit: Circuit; net: string }) {
  const wires = circuit.wires.filter((wire) => wire.number === net);
  return (
    <section aria-labelledby="wire" className="metal space-y-2 px-5 py-4" data-testid="wire-card">
      <h2 id="wire" className="font-mono text-2xl font-semibold">
        {net}
      </h2>
      <ul className="space-y-1 font-mono">
        {wires.map((wire) => (
          <li key={wire.id}>
            {wire.start} <span className="text-soft">to</span> {wire.end}
          </li>
        ))}
      </ul>
      <p className="text-soft">
        {wires.length} {wires.length === 1 ? "wire" : "wires"}, {wires[0]?.way}, {wires[0]?.colour}
      </p>
    </section>
  );
}

function WireTable({
  circuit,
  net,
  onPick,
}: {
  circuit: Circuit;
  net: string | null;
  onPick: (net: string | null) => void;
}) {
  return (
    <table className="w-full" data-testid="wirelist">
      <thead>
        <tr className="text-left text-sm text-soft">
          <th scope="col">No.</th>
          <th scope="col">From</th>
          <th scope="col">To</th>
          <th scope="col">Colour</th>
        </tr>
      </thead>
      <tbody>
        {circuit.wires.map((wire) => (
          <tr
            key={wire.id}
            data-lit={wire.number === net}
            className="border-t border-hair font-mono data-[lit=true]:bg-sunk data-[lit=true]:font-semibold"
          >
            <td>
              <button
                type="button"
                className="ask font-mono"
                aria-pressed={wire.number === net}
                onClick={() => onPick(wire.number === net ? null : wire.number)}
              >
                {wire.number}
              </button>
            </td>
            <td>{wire.start}</td>
            <td>{wire.end}</td>
            <td className="font-words text-sm text-soft">{wire.colour}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function MaterialTable({ circuit, base }: { circuit: Circuit; base: string }) {
  return (
    <table className="w-full" data-testid="material">
      <thead>
        <tr className="text-left text-sm text-soft">
          <th scope="col">Tag</th>
          <th scope="col">What</th>
          <th scope="col">Ratings</th>
        </tr>
      </thead>
      <tbody>
        {circuit.material.map((row) => (
          <tr key={row.device} className="border-t border-hair align-baseline">
            <th scope="row" className="py-1 text-left font-mono">
              {row.tag}
            </th>
            <td>
              {row.type_label}
              {row.contacts && <span className="font-mono text-sm text-soft"> {row.contacts}</span>}
            </td>
            <td>
              {row.ratings.map((rating) => (
                <span key={rating.name} className="mr-3 inline-block">
                  {rating.name}{" "}
                  <span className="font-mono">
                    {rating.value} {rating.unit}
                  </span>{" "}
                  {rating.step && (
                    <Link className="ask" to={`${base}/size#${rating.step}`}>
                      Why
                    </Link>
                  )}
                </span>
              ))}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Where does this wire go? Five views of one netlist, one selection. */
export function DrawingsScreen() {
  const { place, state } = useRoom();
  const isNarrow = useIsNarrow();
  const query = useCircuit(place.works, state.given);
  const circuit = query.data;
  const [view, setView] = useState<View>("ladder");
  const [net, setNet] = useState<string | null>(null);
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  const numbers = [...new Set(circuit?.wires.map((wire) => wire.number) ?? [])];
  const step = (by: number) => {
    if (numbers.length === 0) return;
    const at = net === null ? (by > 0 ? -1 : 0) : numbers.indexOf(net);
    setNet(numbers[(at + by + numbers.length) % numbers.length] ?? null);
  };
  const keys: Key[] = [
    ...VIEWS.map(([name, label], number) => ({
      press: String(number + 1),
      does: `Show the ${label.toLowerCase()}`,
      run: () => setView(name),
    })),
    { press: "j", does: "Next wire", run: () => step(1) },
    { press: "k", does: "Wire before", run: () => step(-1) },
    { press: "0", does: "Light no wire", run: () => setNet(null) },
  ];
  const hasOne = Boolean(circuit?.entry);
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
            {net ? (
              <WireCard circuit={circuit} net={net} />
            ) : (
              <p className="text-soft">Tap a wire: it lights in every view.</p>
            )}
            <div className="flex gap-3">
              <button type="button" className="control" onClick={() => step(-1)}>
                Wire before
              </button>
              <button type="button" className="control" onClick={() => step(1)}>
                Next wire
              </button>
            </div>
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
          {hasOne ? "Rehearse it" : "Choose a starter"}
        </Link>
      }
      others={
        hasOne && (
          <>
            <a className="control" href={`/api${base}/drawing/ladder.svg`}>
              Ladder as SVG
            </a>
            <a className="control" href={`/api${base}/drawing/power.svg`}>
              Power as SVG
            </a>
          </>
        )
      }
    >
      {query.error instanceof Refused && <ProblemSlab problem={query.error.problem} />}
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
          <div className="flex flex-wrap gap-2" role="group" aria-label="Views">
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
          <div className="border-2 border-ink bg-sheet p-3">
            {view === "ladder" && (
              <>
                {circuit.ladder.shapes.length === 0 && <p>There is no control circuit.</p>}
                <Diagram
                  picture={circuit.ladder}
                  label="Ladder"
                  picked={net}
                  onPick={setNet}
                  leastWidth={isNarrow ? 880 : 420}
                />
                <Twin picture={circuit.ladder} title="The ladder" />
              </>
            )}
            {view === "power" && (
              <>
                <Diagram
                  picture={circuit.power}
                  label="Power diagram"
                  picked={net}
                  onPick={setNet}
                  leastWidth={isNarrow ? 620 : 420}
                />
                <Twin picture={circuit.power} title="The power diagram" />
              </>
            )}
            {view === "wires" && <WireTable circuit={circuit} net={net} onPick={setNet} />}
            {view === "probes" && state.given && <Probes works={place.works} given={state.given} />}
            {view === "material" && <MaterialTable circuit={circuit} base={base} />}
          </div>
        </div>
      )}
    </JobFrame>
  );
}
