import { ControlPart } from "./ControlPart";
import { DisconnectPart } from "./DisconnectPart";
import { DrivePart } from "./DrivePart";
import { ExistingPart } from "./ExistingPart";
import { FaultPart } from "./FaultPart";
import { MotorPart } from "./MotorPart";
import { OverloadPart } from "./OverloadPart";
import type { PartId, PartProps } from "./parts";
import { RacewayPart } from "./RacewayPart";

/** The inputs of one further part of the sheet. */
export function PartInputs({ part, works, ...props }: PartProps & { part: PartId; works: string }) {
  switch (part) {
    case "motor":
      return <MotorPart {...props} />;
    case "overload":
      return <OverloadPart {...props} works={works} />;
    case "run":
      return <RacewayPart {...props} />;
    case "fault":
      return <FaultPart {...props} />;
    case "place":
      return <DisconnectPart {...props} />;
    case "control":
      return <ControlPart {...props} />;
    case "drive":
      return <DrivePart {...props} />;
    case "existing":
      return <ExistingPart {...props} />;
    default:
      return null;
  }
}
