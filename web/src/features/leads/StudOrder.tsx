import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Reading } from "../../components/inputs";
import { leadsWords } from "../../words/leads";

type Board = Schemas["BoardInput"];

/** A typed count, or none. */
const whole = (text: string | null) => (text ? Math.round(Number(text.replace(",", "."))) : null);
const shownCount = (count: number | null | undefined) => (count == null ? null : String(count));

/** The order of the studs as they stand, and the parts that came with the board. */
export function StudOrder({
  box,
  board,
  onBoardChange,
}: {
  box: { board: { rows: string[][] } | null };
  board: Board;
  onBoardChange: (change: { board: Board }) => void;
}) {
  const rows = board.rows?.length ? board.rows : (box.board?.rows ?? []);
  const [text, setText] = useState<string | null>(null);
  const put = (change: Partial<Board>) => onBoardChange({ board: { ...board, ...change } });
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
              .split("/")
              .map((row) => row.trim().split(/\s+/).filter(Boolean))
              .filter((row) => row.length > 0);
            setText(null);
            put({ rows: next });
          }}
        />
      </label>
      <Reading
        label={leadsWords.barsThere}
        unit=""
        value={shownCount(board.bars)}
        onValueChange={(value) => put({ bars: whole(value) })}
        className="w-16"
      />
      <Reading
        label={leadsWords.jumpersThere}
        unit=""
        value={shownCount(board.jumpers ?? 0)}
        onValueChange={(value) => put({ jumpers: whole(value) ?? 0 })}
        className="w-16"
      />
      <Reading
        label={leadsWords.nutsEach}
        unit=""
        value={shownCount(board.nuts_per_stud ?? 3)}
        onValueChange={(value) => put({ nuts_per_stud: whole(value) ?? 0 })}
        className="w-16"
      />
      <Reading
        label={leadsWords.insulatorsThere}
        unit=""
        value={shownCount(board.insulators)}
        onValueChange={(value) => put({ insulators: whole(value) })}
        className="w-16"
      />
    </div>
  );
}
