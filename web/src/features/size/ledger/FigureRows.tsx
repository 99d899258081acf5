import type { ReactNode } from "react";
import type { Worked } from "../../../api/client";
import { figuresOf, type PartId } from "../parts/parts";
import { Row, WithheldRow } from "./Row";

export interface FigureRowsProps {
  part: PartId;
  worked: Worked;
  base: string;
  shown: string | undefined;
  moved: ReadonlyMap<string, string>;
  onWhy: (id: string) => void;
  /** What decides a figure, by its id. */
  inputs?: Readonly<Record<string, ReactNode>>;
  /** Figures that are withheld are not told: another list asks for them. */
  isKnownOnly?: boolean;
}

/** A row for each figure of a section. */
export function FigureRows({
  part,
  worked,
  base,
  shown,
  moved,
  onWhy,
  inputs = {},
  isKnownOnly = false,
}: FigureRowsProps) {
  const steps = new Map(worked.steps.map((step) => [step.id, step]));
  return figuresOf(worked, part).map((figure) => {
    const step = figure.step ? steps.get(figure.step) : undefined;
    if (step) {
      return (
        <Row
          key={figure.id}
          step={step}
          isOpen={shown === step.id}
          before={moved.get(step.id) ?? null}
          onWhy={onWhy}
        >
          {inputs[figure.id]}
        </Row>
      );
    }
    return isKnownOnly ? null : (
      <WithheldRow key={figure.id} figure={figure} base={base}>
        {inputs[figure.id]}
      </WithheldRow>
    );
  });
}
