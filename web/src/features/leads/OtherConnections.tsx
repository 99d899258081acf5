import type { Schemas } from "../../api/client";
import { ProblemSlab } from "../../components/shapes";
import type { Given } from "../../state/useJob";
import { leadsWords } from "../../words/leads";
import { useInside } from "./useInside";

/** Every other connection of the half-coils: what supply it suits, at the box or opened. */
export function OtherConnections({ works, given }: { works: string; given: Given }) {
  const found = useInside(works, given);
  const rows: readonly Schemas["InsideOut"][] = found.data?.rows ?? [];
  if (found.data?.refusal) return <ProblemSlab problem={found.data.refusal} />;
  const polarity = rows.some((row) => row.needs_polarity);
  return (
    <div className="space-y-2" data-testid="inside">
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left text-soft">
            <th scope="col">{leadsWords.connection}</th>
            <th scope="col">{leadsWords.forWord}</th>
            <th scope="col">{leadsWords.voltsPerCoil}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={`${row.speed} ${row.name}`} className="border-t border-hair align-top">
              <td>
                {row.speed && <b className="block">{row.speed}</b>}
                {row.name}
                <span className="block text-soft">{row.place}</span>
                {row.note && <span className="block text-caution">{row.note}</span>}
                {row.labels.length > 0 && (
                  <span className="block text-soft">
                    {leadsWords.bringOutMark(row.labels.join(" "))}
                  </span>
                )}
              </td>
              <td className="font-mono">
                {row.line_volts_v} V
                {row.volts_per_hertz !== null && (
                  <span className="block text-soft">{leadsWords.vHz(row.volts_per_hertz)}</span>
                )}
                {row.amps_a !== null && <span className="block text-soft">{row.amps_a} A</span>}
                {row.poles !== null && (
                  <span className="block text-soft">{leadsWords.poles(row.poles)}</span>
                )}
              </td>
              <td className={`font-mono ${row.suits ? "text-proven" : "text-caution"}`}>
                {row.percent === null ? leadsWords.noSupply : `${row.percent} %`}
                <span className="block font-words">
                  {row.suits ? "suits" : leadsWords.doesNotSuit}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-sm text-soft">
        {rows.every((row) => row.keeps_rotation)
          ? leadsWords.polesDirectionGiven
          : leadsWords.polesBySpeed}
      </p>
      {polarity && (
        <p className="text-sm">
          <b>{leadsWords.beforeConnectingHalves}</b> {leadsWords.verifyPolarityEach}
        </p>
      )}
    </div>
  );
}
