import { cellOf, type Guided, type Taken } from "./readings";

/** Every two lead letters: what was read, and hatched what follows from it. */
export function Grid({ guided, readings }: { guided: Guided; readings: readonly Taken[] }) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full border-collapse font-mono text-xs" data-testid="grid">
        <thead>
          <tr>
            <td />
            {guided.lead_letters.map((name) => (
              <th key={name} scope="col" className="px-0.5">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {guided.lead_letters.map((row, line) => (
            <tr key={row}>
              <th scope="row" className="pr-1">
                {row}
              </th>
              {guided.lead_letters.map((column, place) => {
                if (place <= line) return <td key={column} className="bg-sunk" />;
                const cell = cellOf(row, column, readings, guided.settled);
                return (
                  <td
                    key={column}
                    className={`h-7 min-w-8 border border-hair text-center ${
                      cell.kind === "follows"
                        ? "bg-[repeating-linear-gradient(-45deg,transparent_0_4px,var(--hair)_4px_6px)] text-soft"
                        : "font-semibold"
                    }`}
                  >
                    {cell.text}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
