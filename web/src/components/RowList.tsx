import type { ReactNode } from "react";
import { withoutRow, withRow } from "../state/rows";

export interface RowListProps<Row> {
  rows: readonly Row[];
  onRowsChange: (rows: Row[]) => void;
  /** A new row, as the add button puts it in. */
  newRow: () => Row;
  add: string;
  remove: string;
  className?: string;
  testIdOf?: (row: Row) => string;
  children: (row: Row, change: (next: Partial<Row>) => void, at: number) => ReactNode;
}

/** Rows edited in place, each with a button that removes it, and one button that adds a row. */
export function RowList<Row>({
  rows,
  onRowsChange,
  newRow,
  add,
  remove,
  className = "metal flex flex-wrap items-end gap-3 px-5 py-3",
  testIdOf,
  children,
}: RowListProps<Row>) {
  return (
    <>
      {rows.map((row, at) => (
        <div
          // biome-ignore lint/suspicious/noArrayIndexKey: rows are edited in place
          key={at}
          className={className}
          data-testid={testIdOf?.(row)}
        >
          {children(row, (next) => onRowsChange(withRow(rows, at, next)), at)}
          <button
            type="button"
            className="ask self-end"
            onClick={() => onRowsChange(withoutRow(rows, at))}
          >
            {remove}
          </button>
        </div>
      ))}
      <button type="button" className="control" onClick={() => onRowsChange([...rows, newRow()])}>
        {add}
      </button>
    </>
  );
}
