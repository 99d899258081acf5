import type { Schemas, Worked } from "../../../api/client";
import { sizePartsWords } from "../../../words/sizeParts";

export type Size = Schemas["SizeInputs"];

/** The parts of the Size sheet, in the order in which a circuit is walked. */
export const PARTS = [
  { id: "branch", name: sizePartsWords.branchCircuit, groups: ["branch", "drop"] },
  { id: "motor", name: sizePartsWords.dutySpeedsRotor, groups: ["speeds", "rotor", "start"] },
  { id: "overload", name: sizePartsWords.overloadHeaters, groups: ["overload"] },
  { id: "run", name: sizePartsWords.raceway, groups: ["run"] },
  { id: "fault", name: sizePartsWords.faultCurrent, groups: ["fault"] },
  { id: "place", name: sizePartsWords.disconnects, groups: ["place"] },
  { id: "control", name: sizePartsWords.controlPower, groups: ["control"] },
  { id: "drive", name: sizePartsWords.drive, groups: ["drive"] },
  { id: "existing", name: sizePartsWords.existingInstallation, groups: ["existing"] },
  { id: "time", name: sizePartsWords.timeCurrentCurve2, groups: [] },
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
