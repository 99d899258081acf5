import { useState } from "react";
import { Choice } from "../../components/inputs";
import { leadsWords } from "../../words/leads";

/** The order of the studs as they stand, and the parts that came with the board. */
export function StudOrder({
  box,
  board,
  onBoardChange,
}: {
  box: { board: { rows: string[][] } | null };
  board: { rows?: string[][]; bars?: number; nuts_per_stud?: number };
  onBoardChange: (change: {
    board: { rows: string[][]; bars: number; nuts_per_stud: number };
  }) => void;
}) {
  const rows = board.rows?.length ? board.rows : (box.board?.rows ?? []);
  const [text, setText] = useState<string | null>(null);
  const put = (change: Partial<{ rows: string[][]; bars: number }>) =>
    onBoardChange({
      board: {
        rows: board.rows ?? [],
        bars: board.bars ?? 3,
        nuts_per_stud: board.nuts_per_stud ?? 3,
        ...change,
      },
    });
  return (
    <div className="flex flex-wrap items-end gap-3">
      <label className="min-w-0">
        <span className="block text-sm text-soft">{leadsWords.studsRowRow}</span>
        <input
          className="field w-96 max-w-full"
          value={text ?? rows.map((row) => row.join(" ")).join(" / ")}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => {
            if (text === null) return;
            const next = text
              .toUpperCase()
              .split("/")
              .map((row) => row.trim().split(/\s+/).filter(Boolean))
              .filter((row) => row.length > 0);
            setText(null);
            put({ rows: next });
          }}
        />
      </label>
      <Choice
        label={leadsWords.bars}
        options={[2, 3, 4, 6].map((count) => ({ value: count, label: String(count) }))}
        value={board.bars ?? 3}
        onValueChange={(bars) => put({ bars })}
      />
    </div>
  );
}
