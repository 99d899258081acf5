import { useQuery } from "@tanstack/react-query";
import { api, told } from "../../api/client";
import type { Given } from "../../state/useJob";

/** Every other connection of the coils, at the box or inside the motor. */
export function useInside(works: string, given: Given) {
  return useQuery({
    queryKey: ["inside", works, given.plate, given.supply, given.leads],
    queryFn: ({ signal }) =>
      told(api.POST("/api/w/{works}/inside", { params: { path: { works } }, body: given, signal })),
  });
}
