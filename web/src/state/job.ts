import { hashKey } from "@tanstack/react-query";
import type { Conflict, Job, Schemas } from "../api/client";
import type { paths } from "../api/schema.gen";

/** A motor's job in a works: its address. */
export interface Place {
  works: string;
  tag: string;
  number: number;
}

/** Everything entered for a motor; its steps are the fields of the core's own model. */
export type Given = Schemas["JobInputs"];
export type Part = keyof Given;

/** The address at which one step is saved; a step without one does not compile. */
export type SaveAddress<P extends Part> = `/api/w/{works}/m/{tag}/j/{number}/${P}` & keyof paths;

/** What the bar says of saving. */
export type Line =
  | { state: "saved"; version: Schemas["VersionOut"] | undefined }
  | { state: "typing" }
  | { state: "saving" }
  | { state: "refused"; problem: Conflict | Schemas["ProblemOut"] };

/** A second version of the same step, from somebody else. */
export interface Clash {
  part: Part;
  theirs: Conflict["theirs"];
  body: Given[Part];
}

/** The steps of a job, as the server names them: no list of them stands here. */
export const partsOf = (job: Job): readonly Part[] => Object.keys(job.versions) as Part[];

/** The inputs of a job without what comes out of them. */
export function givenOf(job: Job): Given {
  return Object.fromEntries(partsOf(job).map((part) => [part, job[part]])) as unknown as Given;
}

/**
 * Whether two values say the same, in whatever order their members stand: a saved step comes back
 * in the order of the database, and the query client keeps the older of two that are equal.
 */
export const same = (one: unknown, other: unknown) => hashKey([one]) === hashKey([other]);

/** The first step whose draft is not what is saved. */
export function unsaved(job: Job, draft: Given): Part | undefined {
  return partsOf(job).find((part) => !same(draft[part], job[part]));
}
