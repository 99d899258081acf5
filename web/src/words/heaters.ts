/** Words of the heaters screen. */
import { counted, type Shown } from "./shown";

export const heatersWords = {
  heaterChartsEven: "Heater charts · Even Coil",
  motors: "Motors",
  heaterCharts: "Heater charts",
  heaterChartsPlant: "Heater charts of this plant",
  heaterCodeMeans:
    "A heater code means nothing without its overload relay. Copy the chart from the starter door; every job that uses it keeps its own copy.",
  countedRowsHeater: (source: Shown, by: Shown, rows: Shown, factor: Shown) =>
    `${source} · ${by} · ${counted(rows, "heater")} · × ${factor} below service factor 1.15`,
  removeChart: "Remove this chart",
  rows: (name: Shown) => `Rows of ${name}`,
  relay: "Relay",
  size: "Size",
  elements: "Elements",
  ambient: "Ambient",
  heater: "Heater",
  from: "From A",
  chart: "Chart",
  anotherChart: "Another chart",
  pasteCsvChoose: "Paste it as CSV, or choose a file",
  relaySizeElements: "Relay,Size,Elements,Ambient,Heater,From,To",
  chartFile: "Chart as a file",
  sameEveryRow: (label: Shown) => `${label}, the same in every row`,
  name: "Name",
  copiedFrom: "Copied from",
  ownFactorSf: "Its own factor for SF below 1.15",
  importChart: "Import chart",
  countedRowsHeaterImported: (rows: Shown) => `${counted(rows, "heater")} imported`,
  countedBadLine: (bad: Shown) => `, ${counted(bad, "line")} skipped`,
  line: (line: Shown, reason: Shown) => `Line ${line}: ${reason}`,
  column: (label: Shown) => `Column for ${label}`,
  noColumn: "no column",
};
