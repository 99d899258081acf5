import { Reading } from "../../../components/inputs";
import { sizePartsWords } from "../../../words/sizeParts";
import { Box, YesNo } from "./Box";
import type { PartProps } from "./parts";

/** A drive in front of the motor. */
export function DrivePart({ size, onSizeChange, onRest }: PartProps) {
  const set = (drive: typeof size.drive) => onSizeChange({ ...size, drive: drive ?? null });
  const { drive } = size;
  return (
    <Box name={sizePartsWords.drive}>
      <Reading
        label={sizePartsWords.ratedInputCurrent}
        unit="A"
        value={drive?.input_a}
        onValueChange={(input_a) =>
          set(
            input_a
              ? { has_bypass: false, has_overload: true, output_v: null, ...drive, input_a }
              : null,
          )
        }
        onRest={onRest}
      />
      {drive ? (
        <>
          <YesNo
            label={sizePartsWords.bypassAround}
            value={drive.has_bypass ?? false}
            onValueChange={(has_bypass) => set({ ...drive, has_bypass })}
          />
          <YesNo
            label={sizePartsWords.listedMotorOverload}
            value={drive.has_overload ?? true}
            onValueChange={(has_overload) => set({ ...drive, has_overload })}
          />
          <Reading
            label={sizePartsWords.outputCurrentSet}
            unit="V"
            value={drive.output_v}
            onValueChange={(output_v) => set({ ...drive, output_v })}
            onRest={onRest}
          />
        </>
      ) : (
        <p className="text-soft">{sizePartsWords.drivesInputCurrent}</p>
      )}
    </Box>
  );
}
