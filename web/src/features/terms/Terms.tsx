import { useEffect, useState } from "react";
import nomenclature from "../../../../docs/nomenclature.md?raw";
import { Shout } from "../../components/shapes";
import { TopBar } from "../../components/TopBar";
import { useSession } from "../../state/session";
import { helpWords } from "../../words/help";
import { found, termsOf } from "./terms";

const TERMS = termsOf(nomenclature);

/** What the words of this application mean. */
export function Terms() {
  const session = useSession();
  const [text, setText] = useState("");
  const shown = found(TERMS, text);
  useEffect(() => {
    document.title = `${helpWords.termsTitle} · Even Coil`;
  }, []);
  return (
    <>
      <TopBar
        crumbs={[{ name: helpWords.termsTitle }]}
        who={session.data?.display_name ?? ""}
        onHelp={() => document.getElementById("find-term")?.focus()}
      />
      <main className="mx-auto max-w-[1280px] space-y-4 px-4 pt-4 pb-24">
        <Shout>{helpWords.termsTitle}</Shout>
        <label className="block max-w-md">
          <span className="block text-sm text-soft">{helpWords.findTerm}</span>
          <input
            id="find-term"
            type="search"
            className="field"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <p role="status">{shown.length === 0 ? helpWords.noTerm(text) : ""}</p>
        <dl className="grid gap-x-6 gap-y-3 md:grid-cols-[minmax(14rem,1fr)_2fr]">
          {shown.map((term) => (
            <div key={term.name} className="contents">
              <dt className="font-mono font-semibold [overflow-wrap:anywhere]">{term.name}</dt>
              <dd className="border-b border-hair pb-2">
                {term.meaning}
                {term.not && (
                  <span className="block text-sm text-soft">
                    {helpWords.not}: {term.not}
                  </span>
                )}
              </dd>
            </div>
          ))}
        </dl>
      </main>
    </>
  );
}
