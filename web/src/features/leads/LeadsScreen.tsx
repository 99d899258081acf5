import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { ProblemSlab, Stop } from "../../components/shapes";
import { useDevice } from "../../state/device";
import type { Key } from "../../state/keys";
import { Checks } from "../plate/Checks";
import { type Joint, takeOut, tap } from "./joints";
import { WindingPicture } from "./WindingPicture";

type Box = Schemas["BoxOut"];

const KIND_WORDS: Record<string, string> = {
  "3-wye": "3 leads, wye",
  "3-delta": "3 leads, delta",
  "9-wye": "9 leads, wye",
  "9-delta": "9 leads, delta",
};

/** The derived answer: joints, conductor counts, and how counting tells it. */
function Answer({ box, isTaken, onTake }: { box: Box; isTaken: boolean; onTake: () => void }) {
  if (box.derived_refusal) return <ProblemSlab problem={box.derived_refusal} />;
  return (
    <section aria-labelledby="answer" className="metal space-y-2 px-5 py-4">
      <h2 id="answer" className="stamp">
        The answer for this supply
      </h2>
      <p className="font-shout text-xl font-bold uppercase">{box.derived_name}</p>
      <table className="w-full" data-testid="answer">
        <thead>
          <tr className="text-left text-sm text-soft">
            <th scope="col">Line</th>
            <th scope="col">Leads</th>
            <th scope="col">Conductors</th>
          </tr>
        </thead>
        <tbody>
          {box.derived.map((joint) => (
            <tr key={joint.id} className="border-t border-hair font-mono">
              <td>{joint.line ?? "none"}</td>
              <td>{joint.leads.join(" ")}</td>
              <td>{joint.conductors}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-sm">{box.tell}</p>
      {box.note && <p className="text-sm text-caution">{box.note}</p>}
      {isTaken ? (
        <p className="font-semibold text-proven">The box is joined like this.</p>
      ) : (
        <button type="button" className="control" aria-keyshortcuts="d" onClick={onTake}>
          Join the box like this
        </button>
      )}
    </section>
  );
}

/** Is this tie right for this supply? Tap two ends to join them, again to part them. */
export function LeadsScreen() {
  const { place, state } = useRoom();
  const { given, worked } = state;
  const isPanel = useDevice().seat === "panel";
  const [armed, setArmed] = useState<string | null>(null);
  const box = worked?.box;
  const joints: readonly Joint[] = given?.leads.joints ?? [];
  const put = (next: readonly Joint[]) => {
    if (given) state.change("leads", { ...given.leads, joints: [...next] });
  };
  const onTap = (end: string) => {
    if (armed === null) setArmed(end);
    else if (armed === end) setArmed(null);
    else {
      put(tap(joints, armed, end));
      setArmed(null);
    }
  };
  const onTake = () => {
    setArmed(null);
    if (box) {
      put(
        box.derived.map((joint) => ({
          id: joint.id,
          leads: joint.leads,
          line: joint.line as "L1" | "L2" | "L3" | null,
        })),
      );
    }
  };
  const onUntie = () => {
    if (armed) put(takeOut(joints, armed));
    setArmed(null);
  };
  const flat = (list: readonly { leads?: string[]; line?: string | null }[]) =>
    list
      .map((joint) => `${joint.line ?? ""}:${[...(joint.leads ?? [])].sort().join("-")}`)
      .sort()
      .join(" ");
  const isTaken = Boolean(box?.derived.length) && flat(joints) === flat(box?.derived ?? []);
  const keys: Key[] = [
    ...(box?.leads ?? []).map((lead) => ({
      press: lead.slice(1),
      does: `Tap lead ${lead.slice(1)}`,
      run: () => onTap(lead),
    })),
    ...["L1", "L2", "L3"].map((line, number) => ({
      press: "abc"[number] ?? "",
      does: `Tap line ${line}`,
      run: () => onTap(line),
    })),
    { press: "u", does: "Take the tapped end out of its joint", run: onUntie },
    { press: "d", does: "Join the box as derived", run: onTake },
    { press: "x", does: "Open all joints", run: () => put([]) },
  ];
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  return (
    <JobFrame
      place={place}
      step="leads"
      state={state}
      keys={keys}
      margin={
        box && (
          <div className="space-y-4">
            {box.verdict === "right" && <Checks findings={box.findings} />}
            <Answer box={box} isTaken={isTaken} onTake={onTake} />
          </div>
        )
      }
      primary={
        <Link to={`${base}/size`} className="control md:w-auto!" data-primary="true">
          To the sizes
        </Link>
      }
      others={
        <>
          <button type="button" className="control" onClick={onUntie}>
            {armed ? `Take ${armed} out` : "Take out: tap an end first"}
          </button>
          <button type="button" className="control" onClick={() => put([])}>
            Open all joints
          </button>
        </>
      }
    >
      {given && box && (
        <div className="space-y-4">
          {box.kinds.length > 1 && (
            <fieldset className="flex flex-wrap items-center gap-2">
              <legend className="sr-only">Which winding, read by ohms</legend>
              {box.kinds.map((kind) => (
                <button
                  key={kind}
                  type="button"
                  className="control"
                  aria-pressed={box.kind === kind}
                  onClick={() =>
                    state.change("leads", {
                      ...given.leads,
                      winding: kind as Schemas["LeadsInputs"]["winding"] & string,
                    })
                  }
                >
                  {KIND_WORDS[kind] ?? kind}
                </button>
              ))}
              <span className="text-sm text-soft">
                Locked out, by ohms: three pairs and a trio is wye, three trios is delta.
              </span>
            </fieldset>
          )}
          {box.refusal && <ProblemSlab problem={box.refusal} />}
          {box.verdict === "wrong" && (
            <Stop title={box.findings[0]?.text ?? ""}>
              <p>{box.findings[0]?.hint}</p>
              {box.findings.slice(1).map((found) => (
                <p key={found.code}>
                  <b>{found.text}</b> {found.hint}
                </p>
              ))}
            </Stop>
          )}
          {box.kind ? (
            <>
              <p className="text-soft" role="status">
                {armed
                  ? `${armed} is tapped. Tap what it goes to; tap it again to let go.`
                  : "Tap two ends to join them; tap two that are joined to part them."}
              </p>
              <WindingPicture box={box} joints={joints} armed={armed} onTap={onTap} />
              {isPanel && (
                <fieldset className="grid grid-cols-4 gap-3" data-testid="sleeves">
                  <legend className="sr-only">Leads and lines, large enough for gloves</legend>
                  {["L1", "L2", "L3", ...box.leads].map((name) => (
                    <button
                      key={name}
                      type="button"
                      className="control font-mono text-xl"
                      aria-pressed={armed === name}
                      onClick={() => onTap(name)}
                    >
                      {name.replace("T", "")}
                    </button>
                  ))}
                </fieldset>
              )}
              <details>
                <summary className="ask">The same as a table</summary>
                <table className="w-full" data-testid="coils">
                  <thead>
                    <tr className="text-left text-sm text-soft">
                      <th scope="col">Coil</th>
                      <th scope="col">From, to</th>
                      <th scope="col">Volts</th>
                      <th scope="col">Of rated</th>
                      <th scope="col">Angle</th>
                    </tr>
                  </thead>
                  <tbody>
                    {box.coils.map((coil) => (
                      <tr key={coil.name} className="border-t border-hair font-mono">
                        <td>{coil.name}</td>
                        <td>
                          {coil.start} {coil.end}
                        </td>
                        <td>{coil.volts_v.toFixed(1)} V</td>
                        <td>{coil.percent} %</td>
                        <td>{coil.angle_deg.toFixed(0)}°</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </details>
              <p className="text-sm text-soft">
                Worked out with the rotor open and typical coil constants: volts divide like this,
                currents are not told. It sees what you entered, not the wire.
              </p>
            </>
          ) : (
            <p>The picture needs the number of leads and the kind of winding.</p>
          )}
        </div>
      )}
    </JobFrame>
  );
}
