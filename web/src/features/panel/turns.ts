import { panelWords as w } from "../../words/panel";

/** From which end a shaft is looked at, and which way it turns. */
export const ENDS = [
  { value: "shaft end", label: w.shaftEnd },
  { value: "opposite end", label: w.otherEnd },
];
export const TURNS = [
  { value: "clockwise", label: w.clockwise },
  { value: "counterclockwise", label: w.counterclockwise },
];
