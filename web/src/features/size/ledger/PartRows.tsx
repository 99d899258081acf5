import type { Worked } from "../../../api/client";
import { figuresOf, type PartId } from "../parts/parts";
import { Row, WithheldRow } from "./Row";

/** The figures of a further section. */
export function PartRows({
  part,
  worked,
  base,
  shown,
  moved,
  onWhy,
}: {
  part: PartId;
  worked: Worked;
  base: string;
  shown: string | undefined;
  moved: ReadonlyMap<string, string>;
  onWhy: (id: string) => void;
}) {
  const figures = figuresOf(worked, part);
  if (figures.length === 0) return null;
  const steps = new Map(worked.steps.map((step) => [step.id, step]));
  return (
    <ul>
      {figures.map((figure) => {
        const step = figure.step ? steps.get(figure.step) : undefined;
        return step ? (
          <Row
            key={figure.id}
            step={step}
            isOpen={shown === step.id}
            before={moved.get(step.id) ?? null}
            onWhy={onWhy}
          />
        ) : (
          <WithheldRow key={figure.id} figure={figure} base={base} />
        );
      })}
    </ul>
  );
}
