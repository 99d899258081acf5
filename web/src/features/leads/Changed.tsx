import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { leadsWords } from "../../words/leads";
import { coilsChanged } from "./changed";

/** What has changed since the verdict before: the coils by their volts, old struck beside new. */
export function Changed({ box }: { box: Schemas["BoxOut"] }) {
  const last = useRef(box);
  const [before, setBefore] = useState<Schemas["BoxOut"] | null>(null);
  useEffect(() => {
    if (last.current === box) return;
    const moved =
      coilsChanged(last.current.coils, box.coils).length > 0 ||
      last.current.verdict !== box.verdict;
    if (moved) setBefore(last.current);
    last.current = box;
  }, [box]);
  if (!before) return null;
  const coils = coilsChanged(before.coils, box.coils);
  return (
    <section
      aria-labelledby="changed-box"
      className="border-l-4 border-plum px-3 py-1"
      data-testid="changed"
    >
      <h2 id="changed-box" className="stamp text-soft">
        {leadsWords.sinceLast}
      </h2>
      {before.verdict !== box.verdict && (
        <p>
          <s className="text-soft">{leadsWords.verdicts[before.verdict]}</s>{" "}
          <b>{leadsWords.verdicts[box.verdict]}</b>
        </p>
      )}
      <ul className="flex flex-wrap gap-x-4 font-mono text-sm">
        {coils.map((one) => (
          <li key={one.coil}>
            {one.coil} <s className="text-soft">{one.before}</s> <b>{one.now} V</b>
          </li>
        ))}
      </ul>
    </section>
  );
}
