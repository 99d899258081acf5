import { Outlet, useOutletContext, useParams } from "react-router";
import { Refused } from "../api/client";
import { type JobState, type Place, useJob } from "../state/useJob";
import { NotHere } from "./Edges";
import { Repair } from "./Repair";

export interface Room {
  place: Place;
  state: JobState;
}

/** One motor's job; its steps share one state, so a step left in a hurry loses nothing. */
export function JobRoom() {
  const { works = "", tag = "", number = "" } = useParams();
  if (!/^\d{1,7}$/.test(number)) return <NotHere />;
  const place = { works, tag, number: Number(number) };
  return <JobInside key={`${works} ${tag} ${number}`} place={place} />;
}

function JobInside({ place }: { place: Place }) {
  const state = useJob(place);
  if (state.error instanceof Refused && state.error.problem.code === "needs_repair") {
    return <Repair place={place} refused={state.error} onRepaired={() => void state.again()} />;
  }
  return <Outlet context={{ place, state } satisfies Room} />;
}

export function useRoom(): Room {
  return useOutletContext<Room>();
}
