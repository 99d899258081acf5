import { useEffect } from "react";
import { Link, useParams } from "react-router";
import { Failure, Waiting } from "../../components/Edges";
import { Shout } from "../../components/shapes";
import { TopBar } from "../../components/TopBar";
import { useSession } from "../../state/session";
import { heatersWords } from "../../words/heaters";
import { Import } from "./ImportChart";
import { useHeaters } from "./useHeaters";

/** Which heater charts does this works have, and how does another one come in? */
export function HeatersScreen() {
  const { works = "" } = useParams();
  const session = useSession();
  const { charts, drop, again } = useHeaters(works);
  useEffect(() => {
    document.title = heatersWords.heaterChartsEven;
  }, []);
  if (charts.error) return <Failure error={charts.error} />;
  if (!charts.data) return <Waiting />;
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
        <Import works={works} onMade={again} />
        {charts.data.map((chart) => (
          <section
            key={chart.name}
            aria-label={chart.name}
            className="border-2 border-ink bg-sheet px-4 py-3"
          >
            <div className="flex flex-wrap items-baseline justify-between gap-x-4">
              <h2 className="font-headline text-xl font-bold">{chart.name}</h2>
              <span className="text-sm text-soft">
                {heatersWords.countedRowsHeater(
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
