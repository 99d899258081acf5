import { Link } from "react-router";
import type { Circuit } from "../../diagram/useCircuit";
import { drawingsWords } from "../../words/drawings";

/** Every wire from end to end, grounds and power first. */
export function WireTable({
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
          <th scope="col">{drawingsWords.no}</th>
          <th scope="col">{drawingsWords.from}</th>
          <th scope="col">{drawingsWords.to}</th>
          <th scope="col">{drawingsWords.color}</th>
          <th scope="col">{drawingsWords.size}</th>
        </tr>
      </thead>
      <tbody>
        {circuit.wires.map((wire) => (
          <tr
            key={wire.id}
            data-lit={wire.net === net}
            className="border-t border-hair font-mono data-[lit=true]:bg-sunk data-[lit=true]:font-semibold"
          >
            <td>
              <button
                type="button"
                className="ask font-mono"
                aria-pressed={wire.net === net}
                onClick={() => onPick(wire.net === net ? null : wire.net)}
              >
                {wire.number}
              </button>
            </td>
            <td>{wire.start}</td>
            <td>{wire.end}</td>
            <td className="font-words text-sm text-soft">{wire.color}</td>
            <td className="font-words text-sm text-soft">
              {wire.is_maker ? drawingsWords.factoryLinkVerify : wire.size}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Every device with its ratings, each with the step it stands on. */
export function MaterialTable({ circuit, base }: { circuit: Circuit; base: string }) {
  return (
    <table className="w-full" data-testid="material">
      <thead>
        <tr className="text-left text-sm text-soft">
          <th scope="col">{drawingsWords.tag}</th>
          <th scope="col">{drawingsWords.type}</th>
          <th scope="col">{drawingsWords.ratings}</th>
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
              {row.add_ons && (
                <span className="block text-sm text-soft">
                  {drawingsWords.addOnBlock} <span className="font-mono">{row.add_ons}</span>
                </span>
              )}
            </td>
            <td>
              {row.ratings.map((rating) => (
                <span key={rating.name} className="mr-3 inline-block">
                  {rating.name}{" "}
                  <span className={rating.is_open ? "text-soft italic" : "font-mono"}>
                    {rating.value} {rating.unit}
                  </span>{" "}
                  {rating.step && (
                    <Link className="ask" to={`${base}/size#${rating.step}`}>
                      {drawingsWords.reason}
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
