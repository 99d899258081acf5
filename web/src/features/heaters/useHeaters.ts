import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, told } from "../../api/client";
import { renew } from "../../state/renew";

/** The heater charts of a plant, and how one is removed. */
export function useHeaters(works: string) {
  const client = useQueryClient();
  const charts = useQuery({
    queryKey: ["heaters", works],
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/heaters", { params: { path: { works } }, signal })),
  });
  const again = () => renew(client, ["heaters", works]);
  const drop = async (name: string) => {
    await told(api.DELETE("/api/w/{works}/heaters/{name}", { params: { path: { works, name } } }));
    await again();
  };
  return { charts, drop, again };
}
