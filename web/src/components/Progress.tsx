/** A length for work that goes on, with its words for those who do not see it. */
export function Progress({ said, done, total }: { said: string; done: number; total: number }) {
  return (
    <div
      role="progressbar"
      aria-label={said}
      aria-valuenow={done}
      aria-valuemin={0}
      aria-valuemax={total}
      className="h-4 w-full max-w-xl bg-sunk"
    >
      <div
        className="h-4 bg-plum"
        style={{ width: `${Math.round((100 * done) / (total || 1))}%` }}
      />
    </div>
  );
}
