import { Diagram, type DiagramProps, Twin } from "../../diagram/Diagram";
import type { Circuit } from "../../diagram/useCircuit";
import { drawingsWords } from "../../words/drawings";

const SHEETS = {
  ladder: { label: drawingsWords.ladder, title: drawingsWords.ladder2, leastWidth: 880 },
  power: { label: drawingsWords.powerDiagram, title: drawingsWords.powerDiagram2, leastWidth: 620 },
  panel: { label: drawingsWords.panelLayout, title: drawingsWords.panel2, leastWidth: 760 },
  strip: {
    label: drawingsWords.terminalStrip,
    title: drawingsWords.terminalStrip2,
    leastWidth: 760,
  },
} as const;
type SheetName = keyof typeof SHEETS;

/** Tell whether a view is a drawn sheet. */
export function isSheet(view: string): view is SheetName {
  return view in SHEETS;
}

/** One sheet of the circuit, and the same in words. */
export function SheetView({
  view,
  circuit,
  isNarrow,
  ...props
}: Pick<DiagramProps, "numbers" | "picked" | "lit" | "onPick"> & {
  view: SheetName;
  circuit: Circuit;
  isNarrow: boolean;
}) {
  const { label, title, leastWidth } = SHEETS[view];
  const picture = circuit[view];
  return (
    <>
      {view === "ladder" && picture.shapes.length === 0 && <p>{drawingsWords.thereNoControl}</p>}
      <Diagram
        picture={picture}
        label={label}
        leastWidth={isNarrow ? leastWidth : 420}
        {...props}
      />
      <Twin picture={picture} title={title} />
    </>
  );
}
