import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { convertWords } from "../../words/convert";

const TONE: Record<string, string> = {
  can: "text-proven",
  cannot: "text-live",
  open: "text-caution",
};

const ANSWERS: Record<string, string> = {
  can: convertWords.convertible,
  cannot: convertWords.notConvertible,
  open: convertWords.informationMissing,
};

/** What becomes of every motor of the machine: moves, sizes that change, or why not. */
export function ConvertedMotors({
  works,
  motors,
}: {
  works: string;
  motors: readonly Schemas["ConvertedOut"][];
}) {
  return (
    <ul className="space-y-2" aria-label={convertWords.motors} data-testid="conversion">
      {motors.map((motor) => (
        <li
          key={motor.tag}
          data-answer={motor.answer}
          className="grid gap-x-5 gap-y-1 border-[1.5px] border-edge bg-sheet px-4 py-3 md:grid-cols-[6rem_minmax(0,1fr)_minmax(0,1fr)]"
        >
          <span>
            <Link
              className="font-headline text-2xl font-bold text-ink"
              to={`/w/${works}/m/${encodeURIComponent(motor.tag)}/j/${motor.job}/leads`}
            >
              {motor.tag}
            </Link>
            <span
              className={`block font-headline text-lg font-bold uppercase ${TONE[motor.answer]}`}
            >
              {ANSWERS[motor.answer] ?? motor.answer}
            </span>
          </span>
          <span>
            <b>{motor.name}</b>
            {motor.answer === "can" ? (
              <>
                <span className="block">
                  {motor.before || convertWords.notDerivedPresent} → <b>{motor.after}</b>
                </span>
                {motor.amps_after && (
                  <span className="block font-mono text-sm">
                    {motor.amps_before || "?"} A → {motor.amps_after} A
                  </span>
                )}
                {motor.left && (
                  <b className="my-1 block border-l-8 border-live pl-2 text-live">{motor.left}</b>
                )}
                {motor.changed.length > 0 && (
                  <table className="text-sm" aria-label={convertWords.sizes(motor.tag)}>
                    <tbody>
                      {motor.changed.map((row) => (
                        <tr key={row.label}>
                          <th scope="row" className="pr-3 text-left font-normal text-soft">
                            {row.label}
                          </th>
                          <td className="pr-2 font-mono">{row.before} →</td>
                          <td className="font-mono font-semibold">
                            {row.before === row.after ? convertWords.same : row.after}
                            {row.is_larger && (
                              <b className="stamp ml-2 text-caution">
                                {convertWords.moreThanPresent}
                              </b>
                            )}
                          </td>
                        </tr>
                      ))}
                    </tbody>
                  </table>
                )}
              </>
            ) : (
              <span className="block text-caution">
                {motor.refusal?.detail} <span className="text-soft">{motor.refusal?.hint}</span>
              </span>
            )}
          </span>
          <span className="text-sm">
            {motor.answer === "can" ? (
              motor.moves.length > 0 ? (
                <ul className="grid grid-cols-2 gap-x-3 font-mono">
                  {motor.moves.map((move) => (
                    <li key={move}>{move}</li>
                  ))}
                </ul>
              ) : (
                convertWords.noConnectionChanges
              )
            ) : (
              <>
                <ul className="list-disc pl-4">
                  {motor.ways_out.map((way) => (
                    <li key={way}>{way}</li>
                  ))}
                </ul>
                {motor.load_kva && (
                  <span className="block font-mono">
                    {convertWords.kvaOwnTransformer(motor.load_kva)}
                  </span>
                )}
              </>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}
