import type { Way } from "./useRunUp";

/** The traces of one way as comma-separated text, a line for each time. */
export function csvOf(way: Way): string {
  const { trace } = way;
  const columns = Object.entries(trace).filter(([, values]) => values.length > 0);
  const rows = trace.time_s.map((_, row) => columns.map(([, values]) => values[row] ?? ""));
  return `${[columns.map(([name]) => name), ...rows].map((row) => row.join(",")).join("\n")}\n`;
}

/** Hand a text over as a file. */
export function download(text: string, name: string) {
  const address = URL.createObjectURL(new Blob([text], { type: "text/csv" }));
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}
