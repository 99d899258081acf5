import { Link } from "react-router";
import { helpWords } from "../../words/help";

/** An empty plant: the ways in. */
export function FirstRun({
  demo,
  mayAdd,
  onAdd,
  onImport,
}: {
  /** Where the demo is, if this installation has one. */
  demo: string;
  mayAdd: boolean;
  onAdd: () => void;
  onImport: () => void;
}) {
  const way = "metal flex flex-col items-start gap-3 px-5 py-5";
  return (
    <section aria-labelledby="three-ways" className="space-y-3" data-testid="first-run">
      <h2 id="three-ways" className="stamp text-soft">
        {helpWords.threeWays}
      </h2>
      <div className="grid gap-4 md:grid-cols-3">
        {mayAdd && (
          <div className={way}>
            <p className="flex-1">{helpWords.typePlateHow}</p>
            <button type="button" className="control" data-primary="true" onClick={onAdd}>
              {helpWords.typePlate}
            </button>
          </div>
        )}
        {mayAdd && (
          <div className={way}>
            <p className="flex-1">{helpWords.importListHow}</p>
            <button type="button" className="control" onClick={onImport}>
              {helpWords.importList}
            </button>
          </div>
        )}
        {demo && (
          <div className={way}>
            <p className="flex-1">{helpWords.openDemoHow}</p>
            <Link className="control" to={demo}>
              {helpWords.openDemo}
            </Link>
          </div>
        )}
      </div>
    </section>
  );
}
