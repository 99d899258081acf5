import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, type Schemas, told } from "../api/client";
import { renew } from "../state/renew";
import type { JobState, Place } from "../state/useJob";
import { frameWords } from "../words/frame";
import { Sheet } from "./Sheet";
import { ProblemSlab, Tag } from "./shapes";

export interface PrintSheetProps {
  place: Place;
  state: JobState;
  onClose: () => void;
}

/** An issue beside what is computed today: only what differs. */
function Compared({ place, n }: { place: Place; n: number }) {
  const { works, tag, number } = place;
  const query = useQuery({
    queryKey: ["issue", works, tag, number, n],
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/m/{tag}/j/{number}/issues/{n}", {
          params: { path: { works, tag, number, n } },
          signal,
        }),
      ),
    staleTime: 0,
  });
  if (query.error instanceof Refused) return <ProblemSlab problem={query.error.problem} />;
  const found = query.data;
  if (!found) return <p role="status">{frameWords.comparing}</p>;
  const why = [
    found.inputs_changed && frameWords.jobWasChanged,
    found.core_changed && frameWords.programsRulesDifferent,
    found.tables_changed.length > 0 &&
      frameWords.codeTablesChanged(found.tables_changed.join(", ")),
  ].filter(Boolean);
  return (
    <div className="mt-2 space-y-2">
      {why.length > 0 && <p className="text-caution">{frameWords.sinceThen(why.join("; "))}</p>}
      {found.differences.length === 0 ? (
        <p className="text-proven">{frameWords.noDifferencesTodays}</p>
      ) : (
        <table className="w-full text-sm">
          <thead>
            <tr className="text-left">
              <th scope="col">{frameWords.what}</th>
              <th scope="col">{frameWords.issued}</th>
              <th scope="col">{frameWords.calculatedToday}</th>
            </tr>
          </thead>
          <tbody>
            {found.differences.map((row) => (
              <tr
                key={`${row.what} ${row.issued} ${row.today}`}
                className="border-t border-hair align-top"
              >
                <th scope="row" className="pr-3 text-left">
                  {row.what}
                </th>
                <td className="pr-3 font-mono break-words">{row.issued || frameWords.missing}</td>
                <td className="font-mono break-words">{row.today || frameWords.missing}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="text-sm break-all text-soft">{frameWords.shaPdf(found.sha256)}</p>
    </div>
  );
}

/** Print the pack; every print is kept as it was, and held against today. */
export function PrintSheet({ place, state, onClose }: PrintSheetProps) {
  const { works, tag, number } = place;
  const client = useQueryClient();
  const [open, setOpen] = useState<number | null>(null);
  const key = ["issues", works, tag, number];
  const query = useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/m/{tag}/j/{number}/issues", {
          params: { path: { works, tag, number } },
          signal,
        }),
      ),
    staleTime: 0,
  });
  const issue = useMutation({
    mutationFn: async (isForWiring: boolean) => {
      await state.keep();
      return told(
        api.POST("/api/w/{works}/m/{tag}/j/{number}/issues", {
          params: { path: { works, tag, number } },
          body: { is_for_wiring: isForWiring },
        }),
      );
    },
    onSuccess: (made: Schemas["IssueOut"]) => {
      void renew(client, key);
      if (made.kind === "wiring") void state.reload();
    },
  });
  const paper = (n: number) =>
    `/api/w/${works}/m/${encodeURIComponent(tag)}/j/${number}/issues/${n}/pdf`;
  const made = issue.data;
  return (
    <Sheet isOpen onOpenChange={(isOpen) => !isOpen && onClose()} title={frameWords.printPack}>
      <p className="mb-3">{frameWords.coverNameplateLeads}</p>
      <div className="flex flex-wrap gap-3">
        <button
          type="button"
          className="control md:w-auto!"
          data-primary="true"
          aria-disabled={issue.isPending}
          onClick={() => !issue.isPending && issue.mutate(false)}
        >
          {issue.isPending ? frameWords.printing : frameWords.printNow}
        </button>
        <button
          type="button"
          className="control"
          aria-disabled={issue.isPending}
          onClick={() => !issue.isPending && issue.mutate(true)}
        >
          {frameWords.issueWiringFreezes}
        </button>
      </div>
      {issue.error instanceof Refused && (
        <div className="mt-3">
          <ProblemSlab problem={issue.error.problem} />
        </div>
      )}
      {made && (
        <p className="mt-3" role="status">
          <a className="ask" href={paper(made.n)} target="_blank" rel="noreferrer">
            {frameWords.openIssue(made.n)}
          </a>
        </p>
      )}
      <ol className="mt-4 space-y-2">
        {query.data?.map((row) => (
          <li key={row.n} className="border-t border-hair pt-2" data-testid="issue">
            <div className="flex flex-wrap items-center gap-3">
              <b className="font-mono">{row.n}</b>
              <Tag who={row.by} when={row.at} />
              {row.kind === "wiring" && <b className="text-signed">{frameWords.issuedWiring}</b>}
              <a className="ask" href={paper(row.n)} target="_blank" rel="noreferrer">
                {frameWords.open}
              </a>
              <button
                type="button"
                className="ask"
                aria-expanded={open === row.n}
                onClick={() => setOpen(open === row.n ? null : row.n)}
              >
                {frameWords.compareToday}
              </button>
            </div>
            {open === row.n && <Compared place={place} n={row.n} />}
          </li>
        ))}
      </ol>
    </Sheet>
  );
}
