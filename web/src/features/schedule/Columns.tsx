import { useState } from "react";
import { scheduleWords as w } from "../../words/schedule";
import type { Schedule } from "./useSchedule";

/** Which column means which field: guessed, and told where the guess is wrong. */
export function Columns({
  schedule,
  isOpen,
  onMap,
}: {
  schedule: Schedule;
  /** It was not taken yet: the mapping can be changed. */
  isOpen: boolean;
  onMap: (told: Record<string, string>) => void;
}) {
  // it stays as a person left it: a good line must not close it under their hand
  const [isShown, setShown] = useState(schedule.good === 0);
  const now = Object.fromEntries(schedule.columns.map((one) => [one.field, one.head]));
  return (
    <details open={isShown} onToggle={(event) => setShown(event.currentTarget.open)}>
      <summary className="ask">{w.columns}</summary>
      <div className="grid gap-x-4 gap-y-2 py-2 sm:grid-cols-2 lg:grid-cols-3">
        {schedule.columns.map((one) => (
          <label key={one.field} className="text-sm text-soft">
            {w.fields[one.field] ?? one.field}
            <select
              className="control block w-full text-ink"
              value={one.head}
              disabled={!isOpen}
              onChange={(event) => onMap({ ...now, [one.field]: event.target.value })}
            >
              <option value="">{w.none}</option>
              {[...new Set(schedule.heads)].map((head) => (
                <option key={head} value={head}>
                  {head}
                </option>
              ))}
            </select>
          </label>
        ))}
      </div>
      {schedule.left.length > 0 && <p className="text-soft">{w.left(schedule.left.join(", "))}</p>}
    </details>
  );
}
