import { useId, useState } from "react";
import { wiringWords as w } from "../../words/wiring";

/** Two terminals by their names: for the keyboard, and for fingers too big for the board. */
export function ByName({
  terminals,
  nameOf,
  isSingle,
  does,
  onDone,
}: {
  terminals: readonly string[];
  nameOf: (terminal: string) => string;
  isSingle: boolean;
  does: string;
  onDone: (start: string, end: string) => void;
}) {
  const id = useId();
  const [start, setStart] = useState("");
  const [end, setEnd] = useState("");
  const listed = [...new Set(terminals)].map((one) => ({ id: one, name: nameOf(one) }));
  const known = new Map(listed.map((one) => [one.name.toLowerCase(), one.id]));
  const from = known.get(start.trim().toLowerCase()) ?? "";
  const to = isSingle ? "" : (known.get(end.trim().toLowerCase()) ?? "");
  const isReady = from !== "" && (isSingle || (to !== "" && to !== from));
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      aria-label={w.typed}
      onSubmit={(event) => {
        event.preventDefault();
        if (!isReady) return;
        onDone(from, to);
        setStart("");
        setEnd("");
      }}
    >
      <datalist id={id}>
        {listed.map((one) => (
          <option key={one.id} value={one.name} />
        ))}
      </datalist>
      <label className="text-sm text-soft">
        {w.start}
        <input
          className="field block w-36 font-mono text-ink"
          list={id}
          value={start}
          autoComplete="off"
          onChange={(event) => setStart(event.target.value)}
        />
      </label>
      {!isSingle && (
        <label className="text-sm text-soft">
          {w.end}
          <input
            className="field block w-36 font-mono text-ink"
            list={id}
            value={end}
            autoComplete="off"
            onChange={(event) => setEnd(event.target.value)}
          />
        </label>
      )}
      <button type="submit" className="control" disabled={!isReady}>
        {does}
      </button>
    </form>
  );
}
