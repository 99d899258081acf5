import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, told } from "../api/client";
import type { Place } from "../state/useJob";
import { panelWords as w } from "../words/panel";

/** Whose locks are on at a job's panel. */
export function useStrip({ works, tag, number }: Place) {
  return useQuery({
    queryKey: ["strip", works, tag, number],
    staleTime: 10_000,
    retry: false,
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/m/{tag}/j/{number}/panel/strip", {
          params: { path: { works, tag, number } },
          signal,
        }),
      ),
  });
}

/** On every screen of a job while a lock is on: whose, and how the panel stands. */
export function LockStrip({
  place,
  query,
}: {
  place: Place;
  /** Asked by the frame: asked here once more, a lost server would be asked for ever. */
  query: ReturnType<typeof useStrip>;
}) {
  const { works, tag, number } = place;
  const strip = query.data;
  // not asked is not the same as none
  const isUnknown = query.isError && !strip;
  if (!strip?.state && !isUnknown) return null;
  return (
    <section aria-label={w.locksHere}>
      <Link
        to={`/w/${works}/m/${encodeURIComponent(tag)}/j/${number}/panel`}
        className="block bg-ink px-4 py-1 font-semibold text-ground"
        data-testid="lock-strip"
      >
        {strip?.state
          ? `${w.locksOn(strip.locks.join(", "))} · ${w.states[strip.state] ?? strip.state}`
          : w.locksUnknown}
      </Link>
    </section>
  );
}
