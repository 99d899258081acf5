import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, told } from "../../api/client";

/** Which lines of a log. */
export interface Asked {
  by: string;
  action: string;
  q: string;
  page: number;
}

/** A page of what was done in a plant, or of what was opened. */
export function useLog(works: string, isSeen: boolean, asked: Asked) {
  const path = { works };
  const done = useQuery({
    queryKey: ["log", works, asked],
    enabled: !isSeen,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/log", { params: { path, query: asked }, signal })),
  });
  const { by, q, page } = asked;
  const seen = useQuery({
    queryKey: ["seen", works, by, q, page],
    enabled: isSeen,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/seen", { params: { path, query: { by, q, page } }, signal })),
  });
  const people = useQuery({
    queryKey: ["people", works],
    queryFn: ({ signal }) => told(api.GET("/api/w/{works}/people", { params: { path }, signal })),
  });
  return {
    done: done.data,
    seen: seen.data,
    people: people.data?.members ?? [],
    error: done.error ?? seen.error,
  };
}
