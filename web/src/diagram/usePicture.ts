import { useQuery } from "@tanstack/react-query";
import { api, told } from "../api/client";

/** A standard circuit of the catalogue, drawn with its usual options. */
export function usePicture(works: string, circuit: string, style: "nema" | "iec") {
  return useQuery({
    queryKey: ["picture", works, circuit, style],
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/catalogue/{circuit}/picture", {
          params: { path: { works, circuit }, query: { style } },
          signal,
        }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });
}
