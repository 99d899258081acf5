import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, signInAgain, told } from "../../api/client";
import { put } from "../../state/renew";
import { useTried } from "../../state/useTried";

export type People = Schemas["PeopleOut"];
export type Role = Schemas["RoleIn"]["role"];
export type InviteIn = Schemas["InviteIn"];

/** A link as it was made: whom it is for, and its address, known only here and now. */
export interface Made {
  whom: string;
  role: string;
  link: string;
  mailedTo: string;
}

/** Everybody of a plant, and what an administrator does about them. */
export function usePeople(works: string) {
  const client = useQueryClient();
  const { problem, isBusy, tried } = useTried();
  const [made, setMade] = useState<Made | null>(null);
  const key = ["people", works];
  const path = { works };
  const list = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => told(api.GET("/api/w/{works}/people", { params: { path }, signal })),
  });
  const keep = async (asked: () => Promise<People>) => {
    const now = await tried(asked);
    if (!now) return false;
    await put(client, key, now);
    // a role of one's own decides what every screen offers
    await client.invalidateQueries({ queryKey: ["session"] });
    return true;
  };
  const of = (username: string) => ({ params: { path: { works, username } } });
  return {
    list,
    problem,
    isBusy,
    made,
    setRole: (username: string, role: Role) =>
      keep(() =>
        told(api.PUT("/api/w/{works}/people/{username}", { ...of(username), body: { role } })),
      ),
    remove: (username: string) =>
      keep(() => told(api.DELETE("/api/w/{works}/people/{username}", of(username)))),
    takeBack: (n: number) =>
      keep(() =>
        told(api.DELETE("/api/w/{works}/invites/{n}", { params: { path: { works, n } } })),
      ),
    endToken: async (n: number) => {
      const now = await tried(() =>
        told(api.DELETE("/api/w/{works}/tokens/{n}", { params: { path: { works, n } } })),
      );
      if (now) await client.invalidateQueries({ queryKey: key });
    },
    handOver: (username: string, ownRole: Schemas["HandOverIn"]["own_role"]) =>
      keep(() =>
        told(
          api.POST("/api/w/{works}/hand-over", {
            params: { path },
            body: { username, own_role: ownRole },
          }),
        ),
      ),
    invite: async (body: InviteIn) => {
      const found = await tried(() =>
        told(api.POST("/api/w/{works}/invites", { params: { path }, body })),
      );
      if (!found) return;
      setMade({
        whom: body.whom || body.email || "",
        role: body.role,
        link: `${window.location.origin}/join#${found.token}`,
        mailedTo: found.mailed_to,
      });
      await client.invalidateQueries({ queryKey: key });
    },
  };
}

const LOOKS_MS = 1000;

/** A plant's data as one file, and erasing the plant. */
export function usePlantData(works: string) {
  const client = useQueryClient();
  const { problem, isBusy, tried } = useTried();
  const key = ["takeouts", works];
  const path = { works };
  const files = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => told(api.GET("/api/w/{works}/takeouts", { params: { path }, signal })),
    refetchInterval: (query) =>
      query.state.data?.some((one) => one.state === "running") ? LOOKS_MS : false,
  });
  return {
    files: files.data ?? [],
    problem,
    isBusy,
    make: async () => {
      await tried(() => told(api.POST("/api/w/{works}/takeouts", { params: { path } })));
      await client.invalidateQueries({ queryKey: key });
    },
    /** Whether the plant is gone. */
    erase: async (name: string, password: string) => {
      const gone = await tried(async () => {
        await signInAgain(password);
        await told(
          api.POST("/api/w/{works}/erase", { params: { path }, body: { name } }).then((answer) => ({
            ...answer,
            // an answer without a body is an answer
            data: answer.response.ok ? true : undefined,
          })),
        );
        return true;
      });
      return gone === true;
    },
  };
}
