import { Reading } from "../../components/inputs";
import { checkWords } from "../../words/check";
import type { Check, Taken } from "./useDeadCheck";

/** One reading: where the probes go, what a right circuit reads, what the meter said. */
export function CheckRow({
  check,
  reading,
  holds,
  onTake,
  onRest,
}: {
  check: Check;
  reading: Taken | undefined;
  holds: boolean | undefined;
  onTake: (ohms: string | null | undefined) => void;
  onRest: () => void;
}) {
  const ohms = reading?.ohms;
  const isZero = reading !== undefined && ohms !== null && Number(ohms) === 0;
  const isOpen = reading !== undefined && ohms === null;
  const name = checkWords.to(check.start_said, check.end_said);
  const tone = { true: "border-proven", false: "border-live" }[String(holds)] ?? "border-edge";
  return (
    <li
      className={`grid items-center gap-x-4 gap-y-1.5 border-l-8 bg-sheet px-4 py-2 sm:grid-cols-[minmax(0,1fr)_auto] ${tone}`}
      data-testid={`check-${check.start_said}-${check.end_said}`}
    >
      <span>
        <b className="font-mono text-lg">
          {check.start_said} – {check.end_said}
        </b>{" "}
        <span className="whitespace-nowrap">
          {checkWords.shouldRead} <b>{check.expects}</b>
        </span>
        <details className="text-sm text-soft">
          <summary>
            {check.wires.length > 0 && checkWords.checksCountWire(check.wires.length)}
            {check.wires.length > 0 && check.guards.length > 0 && ", "}
            {check.guards.length > 0 && checkWords.alsoRulesOut}
          </summary>
          <span className="font-mono">{check.wires.join(" · ")}</span>
          <ul>
            {check.guards.map((text) => (
              <li key={text}>{checkWords.notDrawn(text)}</li>
            ))}
          </ul>
        </details>
      </span>
      <fieldset
        className="flex flex-wrap items-end gap-1.5"
        aria-label={checkWords.meterReading(name)}
      >
        <button
          type="button"
          className="control px-2.5 text-sm"
          aria-pressed={isZero}
          onClick={() => onTake(isZero ? undefined : "0")}
        >
          {checkWords.nearZero}
        </button>
        <Reading
          label={checkWords.reads}
          unit="Ω"
          value={reading && !isZero && !isOpen ? ohms : ""}
          onValueChange={(value) => onTake(value ?? undefined)}
          onRest={onRest}
          className="w-20"
        />
        <button
          type="button"
          className="control px-2.5 text-sm"
          aria-pressed={isOpen}
          onClick={() => onTake(isOpen ? undefined : null)}
        >
          {checkWords.open}
        </button>
        <b
          role="status"
          className={`stamp min-w-20 ${holds === false ? "text-live" : "text-proven"}`}
        >
          {holds === undefined ? "" : holds ? checkWords.drawn : "differs"}
        </b>
      </fieldset>
    </li>
  );
}
