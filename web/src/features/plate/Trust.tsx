import type { Worked } from "../../api/client";
import { Reading, Words } from "../../components/inputs";
import { Plate, ProblemSlab, Stop } from "../../components/shapes";
import type { Given } from "../../state/useJob";
import { plateWords } from "../../words/plate";

type TrustGiven = Given["trust"];

export interface TrustProps {
  trust: TrustGiven;
  worked: Worked;
  onTrustChange: (trust: TrustGiven) => void;
}

const SURE: Record<string, string> = {
  high: plateWords.high,
  fair: plateWords.fair,
  low: plateWords.low,
};

/** A plate nobody trusts: what the readings say, how sure that is, and what may not be done. */
export function Trust({ trust, worked, onTrustChange }: TrustProps) {
  const set = (change: Partial<TrustGiven>) => onTrustChange({ ...trust, ...change });
  const found = worked.estimate;
  return (
    <div className="space-y-3" data-testid="trust">
      <button
        type="button"
        className="control"
        aria-pressed={trust.is_doubted ?? false}
        onClick={() => set({ is_doubted: !trust.is_doubted })}
      >
        {plateWords.thisNameplateDoubt}
      </button>
      {trust.is_doubted && (
        <>
          <Words
            label={plateWords.reason}
            value={trust.reason}
            onValueChange={(reason) => set({ reason })}
            placeholder={plateWords.rewoundThreeLeads}
          />
          <div className="flex flex-wrap gap-3">
            <Reading
              label={plateWords.powerFrame}
              unit={plateWords.hp}
              value={trust.power_hp}
              onValueChange={(power_hp) => set({ power_hp })}
            />
            <Reading
              label={plateWords.knownRun}
              unit="V"
              value={trust.earlier_supply_v}
              onValueChange={(earlier_supply_v) => set({ earlier_supply_v })}
            />
            <Reading
              label={plateWords.lineLineCold}
              unit="Ω"
              value={trust.winding_ohm}
              onValueChange={(winding_ohm) => set({ winding_ohm })}
            />
            <Reading
              label={plateWords.testLockedRotor}
              unit="V"
              value={trust.test_v}
              onValueChange={(test_v) => set({ test_v })}
            />
            <Reading
              label={plateWords.drew}
              unit="A"
              value={trust.test_a}
              onValueChange={(test_a) => set({ test_a })}
            />
          </div>
          {found?.refusal && <ProblemSlab problem={found.refusal} />}
          {found && !found.refusal && (
            <Plate isGuess>
              <p className="font-headline text-2xl font-bold">
                {plateWords.vConfidence(found.odds[0]?.volts ?? "", SURE[found.confidence] ?? "")}
              </p>
              <ul className="space-y-1 text-sm">
                {found.working.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
              <p className="font-mono text-sm">
                {found.odds.map((item) => `${item.volts} V ${item.percent} %`).join(" · ")}
              </p>
            </Plate>
          )}
          {!found?.may_energize && (
            <Stop title={plateWords.noFullVoltage}>
              <ul className="list-disc pl-5">
                {(found?.ways_out ?? []).map((way) => (
                  <li key={way}>{way}</li>
                ))}
              </ul>
            </Stop>
          )}
          {found?.may_energize && (
            <ul className="list-disc pl-5 text-sm">
              {found.ways_out.map((way) => (
                <li key={way}>{way}</li>
              ))}
            </ul>
          )}
        </>
      )}
    </div>
  );
}
