import { type DiagramProps, Twin } from "../../diagram/Diagram";
import type { Circuit } from "../../diagram/useCircuit";
import { Viewer } from "../../diagram/Viewer";
import type { View } from "../../diagram/view";
import { drawingsWords } from "../../words/drawings";

const SHEETS = {
  ladder: { label: drawingsWords.ladder, title: drawingsWords.ladder2 },
  power: { label: drawingsWords.powerDiagram, title: drawingsWords.powerDiagram2 },
  panel: { label: drawingsWords.panelLayout, title: drawingsWords.panel2 },
  strip: {
    label: drawingsWords.terminalStrip,
    title: drawingsWords.terminalStrip2,
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
  places,
  ...props
}: Pick<
  DiagramProps,
  "numbers" | "picked" | "lit" | "onPick" | "terminal" | "onTerminal" | "terminalName"
> & {
  view: SheetName;
  circuit: Circuit;
  places: Map<string, View>;
  onJoin: ((start: string, end: string) => void) | undefined;
}) {
  const { label, title } = SHEETS[view];
  const picture = circuit[view];
  return (
    <>
      {view === "ladder" && picture.shapes.length === 0 && <p>{drawingsWords.thereNoControl}</p>}
      {picture.shapes.length > 0 && (
        <Viewer picture={picture} label={label} name={view} places={places} {...props} />
      )}
      <Twin picture={picture} title={title} />
    </>
  );
}
