import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { api, Refused, told } from "../../api/client";
import { Coming } from "../../components/Edges";
import { ProblemSlab, Shout } from "../../components/shapes";
import { panelWords as w } from "../../words/panel";

/** What a motor's code opens: read only, and for a guest next to nothing. */
export function Card() {
  const { works = "", tag = "" } = useParams();
  const query = useQuery({
    queryKey: ["card", works, tag],
    retry: false,
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/m/{tag}/card", { params: { path: { works, tag } }, signal })),
  });
  const card = query.data;
  return (
    <main className="mx-auto max-w-2xl space-y-4 px-4 py-6" data-testid="card">
      {query.error instanceof Refused && <ProblemSlab problem={query.error.problem} />}
      {!card && !query.error && <Coming />}
      {card && (
        <>
          <p className="text-soft">{card.works}</p>
          <Shout>
            {card.tag} {card.name}
          </Shout>
          <p
            className={`font-headline text-2xl font-bold ${card.is_locked ? "text-live" : ""}`}
            data-testid="card-lock"
          >
            {card.is_locked ? w.cardLocked : w.cardNotLocked}
          </p>
          {card.locks.length > 0 && <p>{w.locksOn(card.locks.join(", "))}</p>}
          {card.state && <p>{w.states[card.state] ?? card.state}</p>}
          {card.wired && <p>{w.cardWired(card.wired)}</p>}
          {card.plate && <p className="font-mono">{card.plate}</p>}
          <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
            {card.lines.map((line) => (
              <div key={line.label} className="contents">
                <dt className="text-soft">{line.label}</dt>
                <dd className="font-mono font-bold">{line.said}</dd>
              </div>
            ))}
          </dl>
          {card.as_left && <p className="font-semibold">{w.cardAsLeft(card.as_left)}</p>}
          {!card.is_guest && (
            <p>
              <Link
                className="control"
                to={`/w/${works}/m/${encodeURIComponent(tag)}/j/${card.number}/panel`}
              >
                {w.cardToPanel}
              </Link>
            </p>
          )}
          <p className="text-sm text-soft">{w.cardSays}</p>
        </>
      )}
    </main>
  );
}
