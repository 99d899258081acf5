import { type ReactNode, useEffect } from "react";
import { useSession, useWorks } from "../state/session";
import { frameWords } from "../words/frame";
import { Shout } from "./shapes";
import { TopBar } from "./TopBar";

/** A page beside the jobs of a plant: its bar, its first line, its work. */
export function PlantPage({
  works,
  title,
  headline,
  className = "space-y-4",
  children,
}: {
  works: string;
  title: string;
  /** Said first instead of the title. */
  headline?: ReactNode;
  className?: string;
  children: ReactNode;
}) {
  const session = useSession();
  const plant = useWorks(works);
  useEffect(() => {
    document.title = frameWords.pageTitle(title);
  }, [title]);
  return (
    <>
      <TopBar
        crumbs={[{ name: plant?.name ?? works, to: `/w/${works}` }, { name: title }]}
        who={session.data?.display_name ?? ""}
        onHelp={() => undefined}
      />
      <main id="content" className={`mx-auto max-w-[1280px] px-4 pt-4 pb-24 ${className}`}>
        <Shout>{headline ?? title}</Shout>
        {children}
      </main>
    </>
  );
}
