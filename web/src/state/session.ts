import { useQuery } from "@tanstack/react-query";
import { api, isLeaving, signOut, told } from "../api/client";

/** Who is signed in, and the works that they belong to. */
export function useSession() {
  return useQuery({
    queryKey: ["session"],
    queryFn: async ({ signal }) => {
      // signed out here, though the server does not know it yet
      if (isLeaving()) await signOut();
      if (isLeaving()) return { is_signed_in: false, username: "", display_name: "", works: [] };
      return told(api.GET("/api/session", { signal }));
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
