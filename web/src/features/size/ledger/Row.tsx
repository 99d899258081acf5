import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Figure, Step } from "../../../api/client";
import { Stop } from "../../../components/shapes";
import { frameWords } from "../../../words/frame";
import { sizeWords } from "../../../words/size";
import { Marks, Verdict } from "../Stamps";

const PLATE_FIELDS = new Set(["supply.text", "power_hp", "volts_v", "amps_a", "rated_load_amps_a"]);
/** Signs of a value that stands in large letters. */
const MOST_LARGE = 11;

/** A row of the ledger: name, value, what decides it, rule, Why. */
function Frame({
  name,
  value,
  children,
  tail,
  ...more
}: {
  name: ReactNode;
  value: ReactNode;
  children?: ReactNode;
  tail?: ReactNode;
  "data-testid"?: string;
  "data-verdict"?: string | undefined;
  "data-moved"?: boolean;
  "data-open"?: boolean;
}) {
  return (
    <li className="ledger-row" {...more}>
      <span className="text-sm text-soft">{name}</span>
      <span className="min-w-0">{value}</span>
      <div className="flex min-w-0 flex-wrap items-center gap-1.5">{children}</div>
      <span className="flex flex-wrap items-baseline justify-end">{tail}</span>
    </li>
  );
}

export interface RowProps {
  step: Step;
  isOpen: boolean;
  /** The value before the last change, where that moved it. */
  before: string | null;
  /** What decides it, to be changed in place. */
  children?: ReactNode;
  onWhy: (id: string) => void;
}

/** A figure with its rule; the old value struck beside the new where the last change moved it. */
export function Row({ step, isOpen, before, children, onWhy }: RowProps) {
  return (
    <Frame
      data-testid={`slip-${step.id}`}
      data-verdict={step.verdict || undefined}
      data-moved={before !== null}
      data-open={isOpen}
      name={step.label}
      value={
        <>
          <span
            className={`block font-mono font-semibold ${step.said.length > MOST_LARGE ? "text-sm" : "text-lg"}`}
          >
            {step.said}
          </span>
          {before !== null && (
            <span className="flex flex-wrap items-baseline gap-x-2">
              {before !== "" && (
                <del className="font-mono text-sm whitespace-nowrap text-soft" data-testid="ghost">
                  <span className="sr-only">{frameWords.was} </span>
                  {before}
                </del>
              )}
              <b className="stamp text-plum">{sizeWords.moved}</b>
            </span>
          )}
        </>
      }
      tail={
        <>
          <span className="mr-2 font-mono text-xs whitespace-nowrap text-plum">
            {step.rule?.section}
          </span>
          <button
            type="button"
            id={step.id}
            className="ask min-h-6 text-sm"
            aria-expanded={isOpen}
            aria-label={sizeWords.whyOf(step.label)}
            data-testid={`why-of-${step.id}`}
            onClick={() => onWhy(step.id)}
          >
            {sizeWords.why2}
          </button>
        </>
      }
    >
      <Verdict step={step} />
      {step.verdict && <span className="text-sm">{step.working}</span>}
      <Marks step={step} />
      {children}
      {step.rating_rules && <span className="font-mono text-xs">{`< ${step.rating_rules} >`}</span>}
    </Frame>
  );
}

/** Inputs that belong to no figure yet. */
export function InputRow({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Frame name={name} value="">
      {children}
    </Frame>
  );
}

/** A figure that is withheld: the row wears the reason and the next step. */
export function WithheldRow({
  figure,
  base,
  children,
}: {
  figure: Figure;
  base: string;
  children?: ReactNode;
}) {
  const refusal = figure.refusal;
  if (!refusal) return null;
  const isPlate = PLATE_FIELDS.has(refusal.field);
  if (refusal.code !== "missing") {
    return (
      <li className="py-2">
        <Stop strength={refusal.code === "not_in_table" ? "hold" : "stop"} title={refusal.detail}>
          <p>{refusal.hint}</p>
          <div className="flex flex-wrap items-center gap-3">
            {isPlate && (
              <Link className="control" to={`${base}/plate`}>
                {sizeWords.nameplate}
              </Link>
            )}
            {children}
          </div>
        </Stop>
      </li>
    );
  }
  return (
    <li className="ledger-row" data-testid={`withheld-${figure.id}`}>
      <span className="text-sm text-soft">{figure.label}</span>
      <span className="font-semibold">{refusal.detail}</span>
      <div className="flex min-w-0 flex-wrap items-center gap-1.5">
        <span className="text-sm text-soft">{refusal.hint}</span>
        {children}
      </div>
      {isPlate && (
        <Link className="ask text-sm" to={`${base}/plate`}>
          {sizeWords.nameplate}
        </Link>
      )}
    </li>
  );
}
