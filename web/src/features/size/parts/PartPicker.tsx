import type { Worked } from "../../../api/client";
import { sizePartsWords } from "../../../words/sizeParts";
import { failsOf, figuresOf, PARTS, type PartId, withheldOf } from "./parts";

/** Which part of the sheet is open; each tells what fails in it without being opened. */
export function PartPicker({
  worked,
  part,
  onPartChange,
}: {
  worked: Worked;
  part: PartId;
  onPartChange: (part: PartId) => void;
}) {
  return (
    <nav aria-label={sizePartsWords.partsSheet} className="flex flex-wrap gap-1.5">
      {PARTS.map(({ id, name }) => {
        const fails = failsOf(worked, id);
        const withheld = id === "branch" ? 0 : withheldOf(worked, id);
        const isAsked = id !== "branch" && id !== "time" && figuresOf(worked, id).length > 0;
        return (
          <button
            key={id}
            type="button"
            className="control px-2.5 text-sm"
            aria-current={part === id ? "page" : undefined}
            aria-pressed={part === id}
            data-testid={`part-${id}`}
            onClick={() => onPartChange(id)}
          >
            {name}
            {fails > 0 ? (
              <b className="ml-1.5 bg-live px-1 text-on-live">
                {sizePartsWords.failsFailsFail(fails)}
              </b>
            ) : withheld > 0 ? (
              <b className="ml-1.5 text-caution">{sizePartsWords.withheld(withheld)}</b>
            ) : (
              isAsked && <span className="ml-1.5 font-normal">{sizePartsWords.entered}</span>
            )}
          </button>
        );
      })}
    </nav>
  );
}
