import { useQuery } from "@tanstack/react-query";
import { api, isLeaving, Refused, signOut, told } from "../api/client";
import { hasSeal, keepSeal, sealOthers } from "./sealed";

/** What the signed-in person did is theirs to read; what others did here and never sent is not. */
async function keepApart(who: string | null): Promise<void> {
  if (!globalThis.crypto?.subtle) return;
  if (who !== null && !(await hasSeal(who))) {
    try {
      const { key } = await told(api.POST("/api/seal"));
      await keepSeal(who, key);
    } catch (lost) {
      // without the server: the key of the last time is there, or comes with the next answer
      if (!(lost instanceof Refused)) throw lost;
    }
  }
  await sealOthers(who);
}

/** Who is signed in, and the works that they belong to. */
export function useSession() {
  return useQuery({
    queryKey: ["session"],
    queryFn: async ({ signal }) => {
      // signed out here, though the server does not know it yet
      if (isLeaving()) await signOut();
      if (isLeaving()) return { is_signed_in: false, username: "", display_name: "", works: [] };
      const found = await told(api.GET("/api/session", { signal }));
      await keepApart(found.is_signed_in ? (found.username ?? "") : null);
      return found;
    },
    staleTime: 60_000,
  });
}

/** The works of that name as the signed-in person sees it, with its own rules. */
export function useWorks(slug: string) {
  const session = useSession();
  return session.data?.works?.find((works) => works.slug === slug);
}

/** Who plays in the demo, if this installation has one. */
export function useDemo() {
  return useQuery({
    queryKey: ["demo"],
    queryFn: ({ signal }) => told(api.GET("/api/demo", { signal })),
    staleTime: Number.POSITIVE_INFINITY,
  });
}
