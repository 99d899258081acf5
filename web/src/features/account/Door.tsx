import { type ReactNode, useEffect } from "react";
import { Link } from "react-router";
import { Shout } from "../../components/shapes";
import { frameWords } from "../../words/frame";

/** A page for whoever is not signed in yet: the name of the tool, one thing to do. */
export function Door({ title, children }: { title: string; children: ReactNode }) {
  useEffect(() => {
    document.title = frameWords.pageTitle(title);
  }, [title]);
  return (
    <main className="mx-auto max-w-xl space-y-4 px-4 py-10">
      <Link
        to="/"
        className="font-headline text-2xl font-bold tracking-wide text-plum uppercase no-underline"
      >
        {frameWords.evenCoil}
      </Link>
      <Shout>{title}</Shout>
      {children}
    </main>
  );
}
