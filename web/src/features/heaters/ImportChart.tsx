import { useId } from "react";
import { Reading, Words } from "../../components/inputs";
import { ProblemSlab } from "../../components/shapes";
import { heatersWords } from "../../words/heaters";
import { useChartImport } from "./useChartImport";

/** Paste or choose a chart, say which column is which, and import it. */
export function Import({ works, onMade }: { works: string; onMade: () => Promise<unknown> }) {
  const textId = useId();
  const chart = useChartImport(works, onMade);
  const { text, look, columns, fixed, name, source, factor, made, refusal, seen, take } = chart;
  const { setColumns, setFixed, setName, setSource, setFactor } = chart;
  return (
    <section aria-labelledby="import" className="space-y-3">
      <h2 id="import" className="stamp">
        {heatersWords.anotherChart}
      </h2>
      <div className="metal px-4 pt-4 pb-3">
        <label htmlFor={textId} className="stamp absolute -top-3 left-4 bg-ground px-1.5">
          {heatersWords.pasteCsvChoose}
        </label>
        <textarea
          id={textId}
          className="field block resize-y font-mono text-sm leading-snug"
          rows={4}
          value={text}
          spellCheck={false}
          placeholder={heatersWords.relaySizeElements}
          onChange={(event) => seen(event.target.value)}
        />
        <input
          type="file"
          accept=".csv,text/csv,text/plain"
          aria-label={heatersWords.chartFile}
          className="mt-2 block text-sm"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) void file.text().then(seen);
          }}
        />
      </div>
      {refusal && <ProblemSlab problem={refusal.problem} />}
      {look && (
        <>
          <div className="grid gap-x-4 gap-y-2 sm:grid-cols-2 md:grid-cols-3">
            {look.fields.map((field) => (
              <div key={field.field} className="border-l-4 border-edge pl-3">
                <Heading
                  label={field.label}
                  headings={look.headings}
                  value={columns[field.field] ?? ""}
                  onValueChange={(heading) => setColumns({ ...columns, [field.field]: heading })}
                />
                {!columns[field.field] && (
                  <Words
                    label={heatersWords.sameEveryRow(field.label)}
                    value={fixed[field.field]}
                    onValueChange={(value) => setFixed({ ...fixed, [field.field]: value })}
                  />
                )}
              </div>
            ))}
          </div>
          <div className="flex flex-wrap items-end gap-4">
            <Words
              label={heatersWords.name}
              value={name}
              onValueChange={setName}
              className="w-56"
            />
            <Words
              label={heatersWords.copiedFrom}
              value={source}
              onValueChange={setSource}
              className="w-56"
            />
            <Reading
              label={heatersWords.ownFactorSf}
              unit="×"
              value={factor}
              onValueChange={setFactor}
              className="w-20"
            />
            <button type="button" className="control" data-primary="true" onClick={take}>
              {heatersWords.importChart}
            </button>
          </div>
        </>
      )}
      {made && (
        <div role="status" data-testid="taken-in" className="border-l-4 border-proven pl-4">
          <p className="font-semibold">
            {heatersWords.countedRowsHeaterImported(made.chart.rows.length)}
            {made.bad.length > 0 && heatersWords.countedBadLine(made.bad.length)}.
          </p>
          {made.bad.length > 0 && (
            <ul className="text-caution">
              {made.bad.map((line) => (
                <li key={line.line}>
                  {heatersWords.line(line.line, line.reason)}{" "}
                  <span className="font-mono text-sm">{line.text}</span>
                </li>
              ))}
            </ul>
          )}
        </div>
      )}
    </section>
  );
}

/** Under which heading a field stands, or under none. */
function Heading({
  label,
  headings,
  value,
  onValueChange,
}: {
  label: string;
  headings: readonly string[];
  value: string;
  onValueChange: (value: string) => void;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block text-sm text-soft">
        {heatersWords.column(label)}
      </label>
      <select
        id={id}
        className="field font-semibold"
        value={value}
        onChange={(event) => onValueChange(event.target.value)}
      >
        <option value="">{heatersWords.noColumn}</option>
        {headings.map((heading) => (
          <option key={heading} value={heading}>
            {heading}
          </option>
        ))}
      </select>
    </div>
  );
}
