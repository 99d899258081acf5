import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, type Schemas, told } from "../../api/client";
import { useTried } from "../../state/useTried";

export type Drill = Schemas["DrillOut"];
export type Verdict = Schemas["DrillVerdictOut"];
export type Setting = "exam" | "field";

const EXAM_S = 30 * 60;

/** A person's practice at a works: what is due, and one question after another. */
export function usePractice(works: string) {
  const client = useQueryClient();
  const [queue, setQueue] = useState<Drill[]>([]);
  const [place, setPlace] = useState(0);
  const [verdict, setVerdict] = useState<Verdict | null>(null);
  const [right, setRight] = useState(0);
  const [ends, setEnds] = useState(0);
  const [now, setNow] = useState(() => Date.now());
  const { problem, tried } = useTried();
  const isExam = queue.length > 1;
  const left = isExam ? Math.max(0, Math.round((ends - now) / 1000)) : 0;
  const isDone = isExam && place >= queue.length;
  // what was answered before the time was over may still be read
  const isLate = isExam && !isDone && left === 0 && !verdict;
  useEffect(() => {
    if (!isExam || isDone) return;
    const timer = window.setInterval(() => setNow(Date.now()), 1000);
    return () => window.clearInterval(timer);
  }, [isExam, isDone]);
  const path = { works };
  const own = useQuery({
    queryKey: ["practice", works],
    queryFn: ({ signal }) => told(api.GET("/api/w/{works}/practice", { params: { path }, signal })),
  });
  const begin = (drills: Drill[] | null) => {
    if (!drills) return;
    setNow(Date.now());
    setEnds(Date.now() + EXAM_S * 1000);
    setQueue(drills);
    setPlace(0);
    setRight(0);
    setVerdict(null);
  };
  return {
    own: own.data,
    problem,
    drill: isLate ? undefined : queue[place],
    left,
    place,
    count: queue.length,
    right,
    verdict,
    isLate,
    isOver: isDone || isLate,
    ask: async (kind: string, setting: Setting) =>
      begin(
        await tried(async () => [
          await told(
            api.GET("/api/w/{works}/practice/next", {
              params: { path, query: { kind, setting } },
            }),
          ),
        ]),
      ),
    exam: async (setting: Setting) =>
      begin(
        await tried(() =>
          told(
            api.GET("/api/w/{works}/practice/exam", {
              params: { path, query: { count: 10, setting } },
            }),
          ),
        ),
      ),
    open: async (kind: string, seed: number, setting: Setting) =>
      begin(
        await tried(async () => [
          await told(
            api.GET("/api/w/{works}/practice/drill", {
              params: { path, query: { kind, seed, setting } },
            }),
          ),
        ]),
      ),
    answer: async (drill: Drill, given: string, section: string) => {
      const made = await tried(() =>
        told(
          api.POST("/api/w/{works}/practice/answers", {
            params: { path },
            body: {
              kind: drill.kind,
              seed: drill.seed,
              setting: drill.setting as Setting,
              given,
              section,
            },
          }),
        ),
      );
      if (!made) return;
      setVerdict(made);
      if (made.is_right) setRight((known) => known + 1);
      await client.invalidateQueries({ queryKey: ["practice", works] });
    },
    goOn: () => {
      setVerdict(null);
      setPlace((known) => known + 1);
    },
    leave: () => setQueue([]),
    share: async (isShared: boolean) => {
      await tried(() =>
        told(
          api.POST("/api/w/{works}/practice/share", {
            params: { path },
            body: { is_shared: isShared },
          }),
        ),
      );
      await client.invalidateQueries({ queryKey: ["practice", works] });
    },
    setFor: async (kind: string, setting: Setting) => {
      await tried(() =>
        told(
          api.POST("/api/w/{works}/practice/set", {
            params: { path },
            body: { kind, setting, note: "" },
          }),
        ),
      );
      await client.invalidateQueries({ queryKey: ["practice", works] });
    },
  };
}
