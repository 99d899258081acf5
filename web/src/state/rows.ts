/** Rows that are edited in place: the same rows with one of them changed. */
export function withRow<Row>(rows: readonly Row[], at: number, change: Partial<Row>): Row[] {
  return rows.map((row, place) => (place === at ? { ...row, ...change } : row));
}

/** The same rows without one of them. */
export function withoutRow<Row>(rows: readonly Row[], at: number): Row[] {
  return rows.filter((_, place) => place !== at);
}
