import { useEffect, useRef, useState } from "react";
import type { Step } from "../../api/client";
import { Ghosted } from "../../components/Ghost";
import { Notches } from "../../components/shapes";
import { sizeWords } from "../../words/size";
import { Marks, Verdict } from "./Stamps";

/** True from a change of the figure until its Why is opened. */
function useMoved(value: string, isOpen: boolean): boolean {
  const seen = useRef(value);
  const [hasMoved, setMoved] = useState(false);
  useEffect(() => {
    if (seen.current !== value) {
      seen.current = value;
      setMoved(true);
    }
  }, [value]);
  useEffect(() => {
    if (isOpen) setMoved(false);
  }, [isOpen]);
  return hasMoved && !isOpen;
}

export interface SlipProps {
  step: Step;
  isOpen: boolean;
  isLarge?: boolean;
  onWhy: (id: string) => void;
}

/** Worked out by a rule: rule number in the corner, always opens Why. */
export function Slip({ step, isOpen, isLarge = false, onWhy }: SlipProps) {
  const hasMoved = useMoved(step.said, isOpen);
  const isGuess = step.marks.some((mark) => mark.kind === "assumed");
  const value = step.said;
  return (
    <button
      type="button"
      id={step.id}
      aria-expanded={isOpen}
      data-guess={isGuess}
      data-verdict={step.verdict || undefined}
      data-testid={`slip-${step.id}`}
      onClick={() => onWhy(step.id)}
      className={`relative mb-2 block w-full border-[1.5px] border-b-0 border-ink bg-sheet text-left text-ink hover:bg-sunk data-[verdict=fails]:border-l-8 data-[verdict=fails]:border-live data-[guess=true]:border-dashed data-[guess=true]:border-caution aria-expanded:outline-3 aria-expanded:outline-plum ${isLarge ? "px-5 pt-3 pb-4" : "px-4 pt-2 pb-3"}`}
    >
      <span className="flex flex-wrap items-start justify-between gap-x-3">
        <span className={isLarge ? "text-soft" : "text-sm text-soft"}>{step.label}</span>
        <span className="font-mono text-xs whitespace-nowrap text-plum">{step.rule?.section}</span>
      </span>
      {step.verdict && <span className="block text-sm">{step.working}</span>}
      <Ghosted
        value={value}
        className={`block font-mono font-semibold ${isLarge && !step.verdict ? "text-[2.1rem] leading-tight" : "text-xl"}`}
      />
      <span className="mt-0.5 flex items-center gap-2 text-sm">
        <Verdict step={step} />
        <Marks step={step} />
        {hasMoved && <b className="stamp text-plum">{sizeWords.moved}</b>}
        {step.rating_rules && (
          <span className="font-mono text-xs">{`< ${step.rating_rules} >`}</span>
        )}
        <span className="ml-auto font-semibold text-plum underline underline-offset-3">
          {sizeWords.why2}
        </span>
      </span>
      <Notches />
    </button>
  );
}
