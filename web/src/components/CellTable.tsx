import type { Schemas } from "../api/client";
import { sizeWords } from "../words/size";

/** The cell that was read, with the row above and the row below. */
export function CellTable({ step }: { step: Pick<Schemas["StepOut"], "cell"> }) {
  const { cell } = step;
  if (!cell) return null;
  return (
    <figure className="m-0">
      <section
        aria-label={cell.title}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keyboard must reach it
        tabIndex={0}
        className="overflow-x-auto border border-hair"
      >
        <table className="w-full font-mono text-sm">
          <thead>
            <tr>
              {cell.columns.map((name, place) => (
                <th
                  key={name}
                  scope="col"
                  className={`px-1.5 py-0.5 text-right font-normal ${place === cell.hit_column ? "bg-sunk font-semibold" : "text-soft"}`}
                >
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {cell.rows.map((row, place) => (
              <tr key={row.join(" ")} className={place === cell.hit_row ? "bg-sunk" : ""}>
                {row.map((text, column) => {
                  const isHit = place === cell.hit_row && column === cell.hit_column;
                  return (
                    <td
                      key={cell.columns[column]}
                      className={`px-1.5 py-0.5 text-right ${isHit ? "font-semibold outline-2 -outline-offset-2 outline-plum" : ""}`}
                    >
                      {text}
                      {isHit && <span className="sr-only"> {sizeWords.readHere}</span>}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <figcaption className="mt-1 text-sm text-soft">
        {cell.title}. {cell.source}. {cell.units}
      </figcaption>
    </figure>
  );
}
