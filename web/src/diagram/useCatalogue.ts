import { useQuery } from "@tanstack/react-query";
import { api, told } from "../api/client";

/** Every starter of the catalogue, and the device library. */
export function useCatalogue(works: string) {
  return useQuery({
    queryKey: ["catalogue", works],
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/catalogue", { params: { path: { works } }, signal })),
    staleTime: Number.POSITIVE_INFINITY,
  });
}
