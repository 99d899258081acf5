import createClient, { type Middleware } from "openapi-fetch";
import { noteAnswer } from "../state/asLastTold";
import { frameWords } from "../words/frame";
import type { components, paths } from "./schema.gen";

export type Schemas = components["schemas"];
export type Problem = Schemas["ProblemOut"];
export type Conflict = Schemas["ConflictOut"];
export type Job = Schemas["JobOut"];
export type Worked = Schemas["WorkedOut"];
export type Step = Schemas["StepOut"];
export type Figure = Schemas["FigureOut"];

/** The code of a problem that is no answer: the server was not reached. */
export const NO_LINE = "no_line";

const LINE_DOWN: Problem = {
  code: NO_LINE,
  detail: frameWords.serverDoesNot,
  field: "",
  hint: frameWords.yourEntriesStay,
};

/** A refusal in the one problem shape, or a lost line. */
export class Refused extends Error {
  constructor(
    readonly problem: Problem & Partial<Conflict> & { step?: string; n?: number },
    readonly status: number,
  ) {
    super(problem.detail);
  }
}

function token(): string {
  const found = document.cookie.split("; ").find((part) => part.startsWith("csrftoken="));
  return found ? decodeURIComponent(found.slice("csrftoken=".length)) : "";
}

const carryToken: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", token());
    return request;
  },
  onResponse({ response }) {
    noteAnswer(response.headers);
    return response;
  },
};

export const api = createClient<paths>({
  baseUrl: window.location.origin,
  // looked up at each call, so that a test can answer in its place
  fetch: (request) => fetch(request),
});
api.use(carryToken);

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** Return the data of an answer, or throw what was refused. */
export async function told<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asked;
  } catch (lost) {
    if (lost instanceof DOMException && lost.name === "AbortError") throw lost;
    throw new Refused(LINE_DOWN, 0);
  }
  if (answer.data !== undefined && answer.response.ok) return answer.data;
  const problem = answer.error as Problem | undefined;
  throw new Refused(problem?.detail ? problem : LINE_DOWN, answer.response.status);
}

/** Ask the sign-in package at its own address; 401 after a change there means signed out. */
export async function askAccount<T = void>(
  path: string,
  method: "GET" | "POST" | "DELETE" = "GET",
  body?: unknown,
): Promise<T> {
  const response = await fetch(`/api/auth/browser/v1/${path}`, {
    method,
    headers: { "Content-Type": "application/json", "X-CSRFToken": token() },
    body: body === undefined ? null : JSON.stringify(body),
  }).catch(() => {
    throw new Refused(LINE_DOWN, 0);
  });
  if (!response.ok) throw new Refused((await response.json()) as Problem, response.status);
  return (await response.json()) as T;
}

/** Sign in with name and password. */
export async function signIn(username: string, password: string): Promise<void> {
  await askAccount("auth/login", "POST", { username, password });
}

/** Give the password again: a signature asks for it. */
export async function signInAgain(password: string): Promise<void> {
  await askAccount("auth/reauthenticate", "POST", { password });
}

const LEAVING = "even-coil.leaving";

/** True while a sign-out waits for the server: nobody is signed in here until it was told. */
export const isLeaving = () => window.localStorage.getItem(LEAVING) !== null;

export async function signOut(): Promise<void> {
  window.localStorage.setItem(LEAVING, "1");
  try {
    // 401 is this address's way to say "signed out now"
    await fetch("/api/auth/browser/v1/auth/session", {
      method: "DELETE",
      headers: { "X-CSRFToken": token() },
    });
  } catch {
    // without a network: the server is told when there is one
    return;
  }
  window.localStorage.removeItem(LEAVING);
}
