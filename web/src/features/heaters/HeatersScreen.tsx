import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useId, useState } from "react";
import { Link, useParams } from "react-router";
import { api, Refused, type Schemas, told } from "../../api/client";
import { Failure, Waiting } from "../../components/Edges";
import { Reading, Words } from "../../components/inputs";
import { ProblemSlab, Shout } from "../../components/shapes";
import { TopBar } from "../../components/TopBar";
import { useSession } from "../../state/session";
import { heatersWords } from "../../words/heaters";

type Look = Schemas["LookOut"];
type Made = Schemas["HeatersOut"];

/** Which heater charts does this works have, and how does another one come in? */
export function HeatersScreen() {
  const { works = "" } = useParams();
  const session = useSession();
  const client = useQueryClient();
  const charts = useQuery({
    queryKey: ["heaters", works],
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/heaters", { params: { path: { works } }, signal })),
  });
  useEffect(() => {
    document.title = heatersWords.heaterChartsEven;
  }, []);
  if (charts.error) return <Failure error={charts.error} />;
  if (!charts.data) return <Waiting />;
  const drop = async (name: string) => {
    await told(api.DELETE("/api/w/{works}/heaters/{name}", { params: { path: { works, name } } }));
    await client.invalidateQueries({ queryKey: ["heaters", works] });
  };
  return (
    <>
      <TopBar
        crumbs={[
          { name: heatersWords.motors, to: `/w/${works}` },
          { name: heatersWords.heaterCharts },
        ]}
        who={session.data?.display_name ?? ""}
        onHelp={() => undefined}
      />
      <main className="mx-auto max-w-[1080px] space-y-6 px-4 pt-4 pb-24">
        <Shout>{heatersWords.heaterChartsPlant}</Shout>
        <p className="max-w-prose">{heatersWords.heaterCodeMeans}</p>
        <Import
          works={works}
          onMade={() => client.invalidateQueries({ queryKey: ["heaters", works] })}
        />
        {charts.data.map((chart) => (
          <section
            key={chart.name}
            aria-label={chart.name}
            className="border-2 border-ink bg-sheet px-4 py-3"
          >
            <div className="flex flex-wrap items-baseline justify-between gap-x-4">
              <h2 className="font-headline text-xl font-bold">{chart.name}</h2>
              <span className="text-sm text-soft">
                {heatersWords.heatersBelowService(
                  chart.source,
                  chart.by,
                  chart.rows.length,
                  chart.factor,
                )}
              </span>
              <button type="button" className="ask text-sm" onClick={() => void drop(chart.name)}>
                {heatersWords.removeChart}
              </button>
            </div>
            <section
              aria-label={heatersWords.rows(chart.name)}
              // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keyboard must reach it
              tabIndex={0}
              className="max-h-72 overflow-auto"
            >
              <table className="w-full font-mono text-sm">
                <thead className="text-soft">
                  <tr>
                    {[
                      heatersWords.relay,
                      heatersWords.size,
                      heatersWords.elements,
                      heatersWords.ambient,
                      heatersWords.heater,
                      heatersWords.from,
                      "To A",
                    ].map((name) => (
                      <th key={name} scope="col" className="text-left font-normal">
                        {name}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {chart.rows.map((row) => (
                    <tr
                      key={`${row.relay_type} ${row.starter_size} ${row.elements} ${row.basis} ${row.code}`}
                      className="border-t border-hair"
                    >
                      <td>{row.relay_type}</td>
                      <td>{row.starter_size}</td>
                      <td>{row.elements}</td>
                      <td>{row.basis}</td>
                      <td className="font-semibold">{row.code}</td>
                      <td>{row.low_a}</td>
                      <td>{row.high_a}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </section>
          </section>
        ))}
        <Link className="control" to={`/w/${works}`}>
          {heatersWords.motors}
        </Link>
      </main>
    </>
  );
}

function Import({ works, onMade }: { works: string; onMade: () => Promise<unknown> }) {
  const textId = useId();
  const [text, setText] = useState("");
  const [look, setLook] = useState<Look | null>(null);
  const [columns, setColumns] = useState<Record<string, string>>({});
  const [fixed, setFixed] = useState<Record<string, string>>({});
  const [name, setName] = useState("");
  const [source, setSource] = useState("");
  const [factor, setFactor] = useState<string | null>("1");
  const [made, setMade] = useState<Made | null>(null);
  const [refusal, setRefusal] = useState<Refused | null>(null);
  const asked = async (work: () => Promise<void>) => {
    try {
      await work();
      setRefusal(null);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      setRefusal(error);
    }
  };
  const seen = (next: string) => {
    setText(next);
    setMade(null);
    if (!next.trim()) {
      setLook(null);
      return;
    }
    void asked(async () => {
      const found = await told(
        api.POST("/api/w/{works}/heaters/look", {
          params: { path: { works } },
          body: { text: next },
        }),
      );
      setLook(found);
      setColumns(Object.fromEntries(found.fields.map((field) => [field.field, field.guess])));
    });
  };
  const take = () =>
    void asked(async () => {
      const done = await told(
        api.POST("/api/w/{works}/heaters", {
          params: { path: { works } },
          body: {
            text,
            columns: Object.fromEntries(Object.entries(columns).filter(([, heading]) => heading)),
            fixed: Object.fromEntries(Object.entries(fixed).filter(([, value]) => value.trim())),
            name: name.trim() || heatersWords.chart,
            source,
            factor: factor ?? "1",
          },
        }),
      );
      setMade(done);
      await onMade();
    });
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
            {heatersWords.heatersImported(made.chart.rows.length)}
            {made.bad.length > 0 && heatersWords.linesSkipped(made.bad.length)}.
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
