import { Link, useLocation, useSearchParams } from "react-router";
import { helpWords } from "../words/help";

/** The stops of the tour, in the order of the work. */
const STOPS = ["plate", "leads", "size", "starter", "drawings", "rehearse"] as const;

/** Where the tour stands, over the screen it is at; it can be left at any stop. */
export function Tour({ base, step }: { base: string; step: string }) {
  const [asked] = useSearchParams();
  const { pathname } = useLocation();
  const at = STOPS.indexOf(step as (typeof STOPS)[number]);
  if (!asked.has("tour") || at < 0) return null;
  const stop = (place: number) => `${base}/${STOPS[place]}?tour`;
  return (
    <section
      aria-label={helpWords.tour}
      className="border-b-2 border-plum bg-sheet print:hidden"
      data-testid="tour"
    >
      <div className="mx-auto flex max-w-[1280px] flex-wrap items-center gap-x-4 gap-y-2 px-4 py-2">
        <b className="stamp text-plum">{helpWords.tourStop(at + 1, STOPS.length)}</b>
        <p className="min-w-60 flex-1">{helpWords.tourSays[step]}</p>
        {at > 0 && (
          <Link className="ask" to={stop(at - 1)}>
            {helpWords.tourBack}
          </Link>
        )}
        {at + 1 < STOPS.length && (
          <Link className="control" to={stop(at + 1)}>
            {helpWords.tourNext}
          </Link>
        )}
        <Link className="ask" to={pathname}>
          {helpWords.tourLeave}
        </Link>
      </div>
    </section>
  );
}
