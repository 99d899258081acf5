import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, told } from "../../api/client";
import { renew } from "../../state/renew";

export type ListedMotor = Schemas["MotorOut"];

/** One page of the plant's motors; asked again while some are being calculated anew. */
export interface Asked {
  page: number;
  q: string;
  /** Of one machine only; empty for all. */
  machine: string;
  /** Only what needs attention. */
  needs: boolean;
  /** Supply between lines [V]; 0 for any. */
  volts: number;
  size: "" | "to_5" | "to_25" | "to_100" | "over_100";
  /** The step that waits; empty for any. */
  step: string;
}

export function useMotors(works: string, asked: Asked) {
  const client = useQueryClient();
  const yard = useQuery({
    queryKey: ["yard", works, asked],
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/yard", {
          params: { path: { works }, query: asked },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    refetchInterval: (query) =>
      query.state.data?.motors.some((motor) => motor.is_old) ? 2000 : false,
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
