import { useQuery } from "@tanstack/react-query";
import { api, type Schemas, told } from "../../api/client";
import { ProblemSlab } from "../../components/shapes";
import type { Given } from "../../state/useJob";

/** Every other joining of the half-coils: what supply it suits, at the box or opened. */
export function OtherJoinings({ works, given }: { works: string; given: Given }) {
  const found = useQuery({
    queryKey: ["inside", works, given.plate, given.supply, given.leads],
    queryFn: ({ signal }) =>
      told(api.POST("/api/w/{works}/inside", { params: { path: { works } }, body: given, signal })),
  });
  const rows: readonly Schemas["InsideOut"][] = found.data?.rows ?? [];
  if (found.data?.refusal) return <ProblemSlab problem={found.data.refusal} />;
  const polarity = rows.some((row) => row.needs_polarity);
  return (
    <div className="space-y-2" data-testid="inside">
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left text-soft">
            <th scope="col">Joining</th>
            <th scope="col">For</th>
            <th scope="col">A half gets</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.name} className="border-t border-hair align-top">
              <td>
                {row.name}
                <span className="block text-soft">{row.place}</span>
                {row.labels.length > 0 && (
                  <span className="block text-soft">bring out and mark {row.labels.join(" ")}</span>
                )}
              </td>
              <td className="font-mono">
                {row.line_volts_v} V
                {row.volts_per_hertz !== null && (
                  <span className="block text-soft">{row.volts_per_hertz} V/Hz</span>
                )}
                {row.amps_a !== null && <span className="block text-soft">{row.amps_a} A</span>}
              </td>
              <td className={`font-mono ${row.suits ? "text-proven" : "text-caution"}`}>
                {row.percent === null ? "no supply" : `${row.percent} %`}
                <span className="block font-words">{row.suits ? "suits" : "does not suit"}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-sm text-soft">
        Poles and the direction for a given order of lines stay the same. Amps at the same power.
      </p>
      {polarity && (
        <p className="text-sm">
          <b>Before halves go in parallel inside:</b> prove the sense of each half by induction, low
          AC on one, reading the other; resistance cannot see it, and one half turned is a short
          circuit. Then insulation, balance of the three phases, and a first run with the current
          limited.
        </p>
      )}
    </div>
  );
}
