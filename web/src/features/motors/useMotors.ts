import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, told } from "../../api/client";
import { renew } from "../../state/renew";

export type ListedMotor = Schemas["MotorOut"];

export function useMotors(works: string) {
  const client = useQueryClient();
  const yard = useQuery({
    queryKey: ["yard", works],
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/yard", { params: { path: { works } }, signal })),
  });
  const refresh = () => renew(client, ["yard", works]);
  const add = useMutation({
    mutationFn: (body: Schemas["MotorIn"]) =>
      told(api.POST("/api/w/{works}/motors", { params: { path: { works } }, body })),
    onSuccess: refresh,
  });
  const takeOver = useMutation({
    mutationFn: (body: Schemas["ImportIn"]) =>
      told(api.POST("/api/w/{works}/jobs/import", { params: { path: { works } }, body })),
    onSuccess: refresh,
  });
  return { yard, add, takeOver };
}
