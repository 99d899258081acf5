import type { Schemas } from "../../api/client";
import { Choice, Reading } from "../../components/inputs";
import { Stop } from "../../components/shapes";
import { Diagram } from "../../diagram/Diagram";
import type { Given } from "../../state/useJob";
import { leadsWords } from "../../words/leads";

type Single = NonNullable<Given["leads"]["single"]>;

const CAPACITORS = [
  { value: "none", label: leadsWords.none },
  { value: "start", label: leadsWords.start },
  { value: "run", label: leadsWords.run },
  { value: "both", label: leadsWords.startRun },
] as const;
const SWITCHES = [
  { value: "none", label: leadsWords.nothing },
  { value: "centrifugal", label: leadsWords.centrifugal },
  { value: "potential_relay", label: leadsWords.potentialRelay },
  { value: "current_relay", label: leadsWords.currentRelay },
  { value: "electronic", label: leadsWords.electronic },
] as const;
const PROTECTORS = [
  { value: 0, label: leadsWords.none },
  { value: 2, label: "P1 P2" },
  { value: 3, label: "P1 P2 P3" },
] as const;

const NOTHING: Single = {
  capacitors: "",
  switch: "",
  start_uf: null,
  run_uf: null,
  protector_leads: 0,
};

export interface SinglePhaseProps {
  start: Schemas["StartOut"];
  single: Given["leads"]["single"];
  onSingleChange: (single: Single) => void;
}

/** What starts a single-phase motor: said as found, drawn, and how each part reads dead. */
export function SinglePhase({ start, single, onSingleChange }: SinglePhaseProps) {
  const now: Single = { ...NOTHING, ...single };
  const set = (change: Partial<Single>) => onSingleChange({ ...now, ...change });
  const hasStart = now.capacitors === "start" || now.capacitors === "both";
  const hasRun = now.capacitors === "run" || now.capacitors === "both";
  return (
    <section aria-labelledby="start-circuit" className="space-y-3" data-testid="start-circuit">
      <h2 id="start-circuit" className="stamp">
        {leadsWords.startCircuit(start.kind_name)}
      </h2>
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <Choice
          label={leadsWords.capacitorsFound}
          options={[...CAPACITORS]}
          value={now.capacitors || null}
          onValueChange={(capacitors) => set({ capacitors })}
        />
        {hasStart && (
          <Reading
            label={leadsWords.startStamped}
            unit="µF"
            value={now.start_uf}
            onValueChange={(start_uf) => set({ start_uf })}
            className="w-20"
          />
        )}
        {hasRun && (
          <Reading
            label={leadsWords.runStamped}
            unit="µF"
            value={now.run_uf}
            onValueChange={(run_uf) => set({ run_uf })}
            className="w-20"
          />
        )}
        <Choice
          label={leadsWords.whatDisconnectsStart}
          options={[...SWITCHES]}
          value={now.switch || null}
          onValueChange={(value) => set({ switch: value })}
        />
        <Choice
          label={leadsWords.protectorLeads}
          options={[...PROTECTORS]}
          value={now.protector_leads ?? 0}
          onValueChange={(protector_leads) => set({ protector_leads })}
        />
      </div>
      {start.findings.map((found) => (
        <Stop key={found.code} strength="hold" title={found.text}>
          <p>{found.hint}</p>
        </Stop>
      ))}
      <div className="border-2 border-ink bg-sheet">
        <Diagram picture={start.picture} label={leadsWords.startCircuit2} leastWidth={340} />
      </div>
      {start.notes.map((note) => (
        <p key={note}>{note}</p>
      ))}
      {start.caution && <p className="border-l-4 border-caution pl-3">{start.caution}</p>}
      <table className="w-full" data-testid="part-tests">
        <thead>
          <tr className="text-left text-sm text-soft">
            <th scope="col">{leadsWords.part}</th>
            <th scope="col">{leadsWords.readingIsolatedDead}</th>
            <th scope="col">{leadsWords.otherwise}</th>
          </tr>
        </thead>
        <tbody>
          {start.tests.map((test) => (
            <tr key={test.part} className="border-t border-hair align-top">
              <th scope="row" className="pr-3 text-left font-semibold">
                {test.name}
              </th>
              <td className="pr-3">{test.reads}</td>
              <td className="text-soft">{test.otherwise}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
