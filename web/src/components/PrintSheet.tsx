import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, type Schemas, told } from "../api/client";
import type { JobState, Place } from "../state/useJob";
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
  if (!found) return <p role="status">Comparing…</p>;
  const why = [
    found.inputs_changed && "the job was changed since",
    found.core_changed && "the rules of the program are another version",
    found.tables_changed.length > 0 && `code tables changed: ${found.tables_changed.join(", ")}`,
  ].filter(Boolean);
  return (
    <div className="mt-2 space-y-2">
      {why.length > 0 && <p className="text-caution">Since then {why.join("; ")}.</p>}
      {found.differences.length === 0 ? (
        <p className="text-proven">Nothing differs: as issued is as computed today.</p>
      ) : (
        <table className="w-full text-sm">
          <thead>
            <tr className="text-left">
              <th scope="col">What</th>
              <th scope="col">As issued</th>
              <th scope="col">Computed today</th>
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
                <td className="pr-3 font-mono break-words">{row.issued || "not there"}</td>
                <td className="font-mono break-words">{row.today || "not there"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="text-sm break-all text-soft">Seal of the paper: {found.sha256}</p>
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
      void client.invalidateQueries({ queryKey: key });
      if (made.kind === "wiring") void state.reload();
    },
  });
  const paper = (n: number) =>
    `/api/w/${works}/m/${encodeURIComponent(tag)}/j/${number}/issues/${n}/pdf`;
  const made = issue.data;
  return (
    <Sheet isOpen onOpenChange={(isOpen) => !isOpen && onClose()} title="Print the pack">
      <p className="mb-3">
        Cover, plate, leads, sizes with their Why, drawings, wire list with boxes to tick. What is
        printed is kept as it was.
      </p>
      <div className="flex flex-wrap gap-3">
        <button
          type="button"
          className="control md:w-auto!"
          data-primary="true"
          aria-disabled={issue.isPending}
          onClick={() => !issue.isPending && issue.mutate(false)}
        >
          {issue.isPending ? "Printing…" : "Print now"}
        </button>
        <button
          type="button"
          className="control"
          aria-disabled={issue.isPending}
          onClick={() => !issue.isPending && issue.mutate(true)}
        >
          Issue for wiring: freezes wire numbers
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
            Open issue {made.n}
          </a>
        </p>
      )}
      <ol className="mt-4 space-y-2">
        {query.data?.map((row) => (
          <li key={row.n} className="border-t border-hair pt-2" data-testid="issue">
            <div className="flex flex-wrap items-center gap-3">
              <b className="font-mono">{row.n}</b>
              <Tag who={row.by} when={row.at} />
              {row.kind === "wiring" && <b className="text-signed">issued for wiring</b>}
              <a className="ask" href={paper(row.n)} target="_blank" rel="noreferrer">
                Open
              </a>
              <button
                type="button"
                className="ask"
                aria-expanded={open === row.n}
                onClick={() => setOpen(open === row.n ? null : row.n)}
              >
                Compare with today
              </button>
            </div>
            {open === row.n && <Compared place={place} n={row.n} />}
          </li>
        ))}
      </ol>
    </Sheet>
  );
}
