import type { Shown } from "./shown";

const motors = (count: Shown) => `${count} ${count === 1 ? "motor" : "motors"}`;

/** Words of an audit of a whole plant. */
export const auditWords = {
  title: "Audit",
  ask: "What in this plant does not hold?",
  says: "Every motor's newest job is held against the rules: wire, fuse or breaker, overload, disconnect, short-circuit rating, control power, and the starter, which is played. What nobody recorded is told as such: it is neither good nor bad.",
  begin: "Audit the plant",
  again: "Audit again",
  stop: "Stop",
  if: "What if",
  ifSays: "Asked of a copy: nothing that was entered changes.",
  beginIf: "Audit as if",
  edition: "Edition",
  asIs: "as it is",
  breakers: "A breaker of the same amps for each fuse",
  faultTimes: "Fault current, times",
  ambient: "Ambient",
  states: {
    running: "under way",
    done: "done",
    cancelled: "stopped",
  } as Record<string, string>,
  progress: (done: Shown, total: Shown) => `${done} of ${total} motors audited`,
  supposed: (what: string) => `Supposed: ${what}. Nothing of it is so.`,
  topics: "Motors by topic",
  count: (jobs: Shown, said: string) => `${jobs} ${said}`,
  lines: "What was found, worst first",
  linesOf: (found: Shown, jobs: number) =>
    `${found} ${found === 1 ? "line" : "lines"} in ${motors(jobs)}`,
  none: "Nothing of this kind was found.",
  found: "Fails or is doubtful",
  all: "With what was not recorded",
  assumed: "Assumed:",
  was: (before: string) => `before: ${before}`,
  new: "not found before",
  noPanel: "no panel named",
  changes: "Against audit",
  changeOf: {
    new: "new",
    gone: "no longer found",
    moved: "otherwise than before",
  } as Record<string, string>,
  needs: "Unknown facts, by what they cost",
  cost: (withheld: number, assumed: number) =>
    [withheld ? `${withheld} figures withheld` : "", assumed ? `${assumed} figures on a guess` : ""]
      .filter(Boolean)
      .join(", "),
  inMotors: (count: Shown) => `in ${motors(count)}`,
  machines: "By machine",
  panels: "By panel",
  placeSays: (fails: number, doubt: number, open: number, total: number) =>
    `${fails} of ${total} fail, ${doubt} in doubt; of ${open} something is not known`,
  unread: "Could not be calculated",
  before: "Audits before",
  old: "What it found is no longer kept.",
  asTable: "As a table",
  asWorkbook: "As a workbook",
  onPaper: "On paper",
  page: (page: Shown, pages: Shown) => `page ${page} of ${pages}`,
  earlier: "Worse ones",
  later: "Further ones",
  openJob: (tag: string, step: string) => `${tag}, ${step}`,
  defer: "Made from what was entered. It proves no wiring; local codes decide.",
};
