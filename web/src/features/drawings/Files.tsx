import { drawingsWords } from "../../words/drawings";

const SHEETS = new Set(["ladder", "power", "panel", "strip"]);
const LISTS: Record<string, string> = {
  wires: "wires",
  material: "material",
  strip: "terminals",
  program: "points",
};

/** What is shown, as files to take along; the netlist goes with every view. */
export function Files({ base, view }: { base: string; view: string }) {
  const list = LISTS[view];
  return (
    <>
      {SHEETS.has(view) &&
        ["svg", "dxf", "pdf"].map((kind) => (
          <a
            key={kind}
            className="control uppercase"
            href={`/api${base}/drawing/${view}.${kind}`}
            aria-label={drawingsWords.drawing(kind.toUpperCase())}
          >
            {kind}
          </a>
        ))}
      {list && (
        <a className="control" href={`/api${base}/list/${list}.csv`}>
          {view === "program" ? drawingsWords.pointsCsv : drawingsWords.csv}
        </a>
      )}
      <a className="control" href={`/api${base}/netlist.txt`}>
        {drawingsWords.netlist}
      </a>
    </>
  );
}
