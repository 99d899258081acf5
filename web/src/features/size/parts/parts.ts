import type { Schemas, Worked } from "../../../api/client";

export type Size = Schemas["SizeInputs"];

/** The parts of the Size sheet, in the order in which a circuit is walked. */
export const PARTS = [
  { id: "branch", name: "Branch circuit", groups: ["branch"] },
  { id: "motor", name: "Duty, speeds, rotor", groups: ["speeds", "rotor", "start"] },
  { id: "overload", name: "Overload, heaters", groups: ["overload"] },
  { id: "run", name: "Raceway", groups: ["run"] },
  { id: "fault", name: "Fault current", groups: ["fault"] },
  { id: "place", name: "Disconnects", groups: ["place"] },
  { id: "control", name: "Control power", groups: ["control"] },
  { id: "drive", name: "Drive", groups: ["drive"] },
  { id: "there", name: "What is there", groups: ["there"] },
  { id: "time", name: "Time and current", groups: [] },
] as const;

export type PartId = (typeof PARTS)[number]["id"];

export function isPart(text: string | null): text is PartId {
  return PARTS.some((part) => part.id === text);
}

/** The figures of a part with their steps. */
export function figuresOf(worked: Worked, id: PartId) {
  const groups: readonly string[] = PARTS.find((part) => part.id === id)?.groups ?? [];
  return worked.figures.filter((figure) => groups.includes(figure.group));
}

/** How many verdicts of a part fail. */
export function failsOf(worked: Worked, id: PartId): number {
  const steps = new Map(worked.steps.map((step) => [step.id, step]));
  return figuresOf(worked, id).filter(
    (figure) =>
      figure.id !== "weakest_part" && figure.step && steps.get(figure.step)?.verdict === "fails",
  ).length;
}

/** How many figures of a part are withheld. */
export function withheldOf(worked: Worked, id: PartId): number {
  return figuresOf(worked, id).filter((figure) => figure.refusal).length;
}

export interface PartProps {
  size: Size;
  worked: Worked;
  onSizeChange: (size: Size) => void;
  onRest: () => void;
}
