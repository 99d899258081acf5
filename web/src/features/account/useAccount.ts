import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import {
  addPasskey,
  canHavePasskeys,
  changePassword,
  dropPasskey,
  endSessions,
  passkeys,
  sessions,
} from "../../api/account";
import { api, Refused, type Schemas, signInAgain, told } from "../../api/client";
import { put } from "../../state/renew";
import { useTried } from "../../state/useTried";
import { accountWords as w } from "../../words/account";

export type Me = Schemas["MeOut"];
const ME = ["me"];

/** What a device says when it gives no passkey, as a refusal of ours. */
export function asRefused(lost: unknown): Refused {
  if (lost instanceof Refused) return lost;
  return new Refused(
    { code: "no_passkey", detail: w.passkeyFailed, field: "passkey", hint: w.passkeyHint },
    0,
  );
}

/** One's own account: name, address, password, passkeys, sessions, plants, tokens. */
export function useAccount() {
  const client = useQueryClient();
  const { problem, isBusy, tried } = useTried();
  const [done, setDone] = useState("");
  const [token, setToken] = useState("");
  const hasPasskeys = canHavePasskeys();
  const me = useQuery({
    queryKey: ME,
    queryFn: ({ signal }) => told(api.GET("/api/me", { signal })),
  });
  const open = useQuery({ queryKey: ["sessions"], queryFn: sessions });
  const keys = useQuery({ queryKey: ["passkeys"], enabled: hasPasskeys, queryFn: passkeys });
  const doing = async (asked: () => Promise<unknown>, said = "") => {
    setDone("");
    const answer = await tried(async () => {
      await asked();
      return true;
    });
    if (answer) setDone(said);
    return answer === true;
  };
  return {
    me,
    open: open.data ?? [],
    keys: keys.data ?? [],
    hasPasskeys,
    problem,
    isBusy,
    done,
    token,
    keep: (body: Schemas["MeIn"]) =>
      doing(async () => {
        await put(client, ME, await told(api.PATCH("/api/me", { body })));
        await client.invalidateQueries({ queryKey: ["session"] });
      }, w.kept),
    changePassword: (current: string, next: string) =>
      doing(async () => {
        await changePassword(current, next);
        await client.invalidateQueries({ queryKey: ["sessions"] });
      }, w.changed),
    addPasskey: (name: string, password: string) =>
      doing(async () => {
        await signInAgain(password);
        await addPasskey(name).catch((lost: unknown) => {
          throw asRefused(lost);
        });
        await client.invalidateQueries({ queryKey: ["passkeys"] });
      }),
    dropPasskey: (id: number, password: string) =>
      doing(async () => {
        await signInAgain(password);
        await dropPasskey(id);
        await client.invalidateQueries({ queryKey: ["passkeys"] });
      }),
    endSessions: (ids: number[]) =>
      doing(async () => {
        await endSessions(ids);
        await client.invalidateQueries({ queryKey: ["sessions"] });
      }),
    leave: (works: string) =>
      doing(async () => {
        const answer = await api.POST("/api/w/{works}/leave", { params: { path: { works } } });
        if (!answer.response.ok) await told(Promise.resolve({ ...answer, data: undefined }));
        await client.invalidateQueries();
      }),
    makeToken: (works: string, body: Schemas["AccessTokenIn"]) =>
      doing(async () => {
        const made = await told(
          api.POST("/api/w/{works}/tokens", { params: { path: { works } }, body }),
        );
        setToken(made.token);
        await client.invalidateQueries({ queryKey: ME });
      }),
    endToken: (works: string, n: number) =>
      doing(async () => {
        const now = await told(
          api.DELETE("/api/w/{works}/tokens/{n}", { params: { path: { works, n } } }),
        );
        await put(client, ME, now);
      }),
  };
}

export type Room = ReturnType<typeof useAccount>;
