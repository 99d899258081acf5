import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { expect, it } from "vitest";
import { put, renew } from "./renew";

it("gives up a first answer that was asked before the change", async () => {
  const client = new QueryClient();
  const answers: ((rows: string[]) => void)[] = [];
  const list = new QueryObserver(client, {
    queryKey: ["issues", "IC-2"],
    queryFn: () => new Promise<string[]>((answer) => answers.push(answer)),
  });
  const stop = list.subscribe(() => {});
  await expect.poll(() => answers.length).toBe(1);

  const renewed = renew(client, ["issues", "IC-2"]);
  await expect.poll(() => answers.length).toBe(2);
  answers[0]?.([]);
  answers[1]?.(["issue 1"]);
  await renewed;

  expect(list.getCurrentResult().data).toEqual(["issue 1"]);
  stop();
});

it("leaves other lists as they are", async () => {
  const client = new QueryClient();
  client.setQueryData(["issues", "IC-2"], ["issue 1"]);
  client.setQueryData(["issues", "KF-1"], ["issue 4"]);

  await renew(client, ["issues", "IC-2"]);

  expect(client.getQueryState(["issues", "IC-2"])?.isInvalidated).toBe(true);
  expect(client.getQueryState(["issues", "KF-1"])?.isInvalidated).toBe(false);
});

it("does not let an answer asked before a change take it back", async () => {
  const client = new QueryClient();
  const answers: ((rev: number) => void)[] = [];
  const hunt = new QueryObserver(client, {
    queryKey: ["hunt", 1],
    queryFn: () => new Promise<number>((answer) => answers.push(answer)),
  });
  const stop = hunt.subscribe(() => {});
  await expect.poll(() => answers.length).toBe(1);

  await put(client, ["hunt", 1], 1);
  answers[0]?.(0);
  await new Promise((on) => setTimeout(on, 20));

  expect(hunt.getCurrentResult().data).toBe(1);
  stop();
});
