import { useEffect } from "react";
import { Link, Navigate, useLocation, useRouteError } from "react-router";
import { NO_LINE, Refused } from "../api/client";
import type { Question } from "../api/question";
import { useSession } from "../state/session";
import { frameWords } from "../words/frame";
import { HowFar } from "./HowFar";
import { AskAgain, ProblemSlab, Shout, Stop } from "./shapes";
import { useLong } from "./useLong";

/** While the first screen loads: its frame at once, words for who does not see it, no spinner. */
export function Waiting() {
  return (
    <main aria-busy="true">
      <p role="status" className="sr-only">
        {frameWords.opening}
      </p>
      <div aria-hidden="true" data-testid="skeleton">
        <div className="h-[58px] border-b-2 border-ink bg-sheet" />
        <div className="h-16 border-b border-hair" />
        <div className="mx-auto max-w-[1280px] space-y-4 px-4 pt-4">
          <div className="h-9 w-2/3 bg-sunk" />
          {[1, 2, 3, 4, 5, 6].map((row) => (
            <div key={row} className="h-16 border border-hair bg-sheet" />
          ))}
        </div>
      </div>
    </main>
  );
}

/** Room for what is still coming: what stands below keeps out of sight until it is there. */
export function Coming() {
  return <div className="h-dvh" aria-hidden="true" />;
}

interface WorkingProps {
  query: { error: Error | null; refetch: () => unknown; fetchStatus: string };
  /** A heavy one: told how far it is, and can be stopped. */
  question?: Question;
}

/** While a part of a screen is calculated; if it cannot be, why, and a way to ask again. */
export function Working({ query, question }: WorkingProps) {
  const isLong = useLong(query.fetchStatus === "fetching");
  if (query.error instanceof Refused) {
    return (
      <ProblemSlab problem={query.error.problem}>
        <AskAgain query={query} />
      </ProblemSlab>
    );
  }
  if (question && query.fetchStatus === "idle") {
    return (
      <p className="flex flex-wrap items-center gap-3" role="status">
        {frameWords.stoppedCalculating}
        <AskAgain query={query} />
      </p>
    );
  }
  if (question && isLong) return <HowFar question={question} />;
  return <p role="status">{frameWords.calculating}</p>;
}

/** To the first works of whoever is signed in, else to the sign-in. */
export function Home() {
  const session = useSession();
  if (session.isPending) return <Waiting />;
  if (session.error) return <Failure error={session.error} />;
  const first = session.data.works[0];
  if (!session.data.is_signed_in) return <Navigate to="/sign-in" replace />;
  if (!first) {
    return (
      <main className="mx-auto max-w-3xl p-6">
        <Shout>{frameWords.youNotMember}</Shout>
        <p>{frameWords.askAdministratorYour}</p>
      </main>
    );
  }
  return <Navigate to={`/w/${first.slug}`} replace />;
}

export function NotHere() {
  return (
    <main className="mx-auto max-w-3xl space-y-3 p-6">
      <Shout>{frameWords.thereNothingAddress}</Shout>
      <Link to="/" className="ask">
        {frameWords.backMotors}
      </Link>
    </main>
  );
}

/** What a screen shows when what it needs was refused; signed-out people go to sign in. */
export function Failure({ error }: { error: unknown }) {
  const location = useLocation();
  const problem = error instanceof Refused ? error.problem : null;
  if (problem?.code === "sign_in") {
    return <Navigate to="/sign-in" replace state={{ from: location.pathname }} />;
  }
  return (
    <main className="mx-auto max-w-3xl space-y-3 p-6">
      {problem?.code === NO_LINE ? (
        <ProblemSlab problem={{ ...problem, hint: frameWords.lineDownHint }}>
          <button type="button" className="control" onClick={() => window.location.reload()}>
            {frameWords.tryAgain}
          </button>
        </ProblemSlab>
      ) : problem ? (
        <ProblemSlab problem={problem} />
      ) : (
        <Stop strength="hold" title={frameWords.screenBroke}>
          <p>{frameWords.reloadPageWhat}</p>
        </Stop>
      )}
      <Link to="/" className="ask">
        {frameWords.backMotors}
      </Link>
    </main>
  );
}

export function Broken() {
  const error = useRouteError();
  useEffect(() => {
    document.title = frameWords.evenCoil;
  }, []);
  return <Failure error={error} />;
}
