import { drawingsWords } from "../../words/drawings";
import type { Touch } from "./useTouch";

/** Wires by touching, devices by name, back and again: beside every sheet. */
export function EditBar({
  touch,
  isAdding,
  nameOf,
  canUndo,
  canRedo,
  onTouch,
  onDevice,
  onUndo,
  onRedo,
}: {
  touch: Touch | null;
  isAdding: boolean;
  nameOf: (terminal: string) => string;
  canUndo: boolean;
  canRedo: boolean;
  onTouch: (touch: Touch | null) => void;
  onDevice: () => void;
  onUndo: () => void;
  onRedo: () => void;
}) {
  return (
    <div className="space-y-2">
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="control"
          aria-keyshortcuts="e"
          aria-pressed={touch?.kind === "wire"}
          onClick={() => onTouch(touch ? null : { kind: "wire", from: "" })}
        >
          {drawingsWords.touchWire}
        </button>
        <button
          type="button"
          className="control"
          aria-keyshortcuts="d"
          aria-pressed={isAdding}
          onClick={onDevice}
        >
          {drawingsWords.touchDevice}
        </button>
        <button
          type="button"
          className="control"
          aria-keyshortcuts="Control+z"
          aria-disabled={!canUndo}
          onClick={onUndo}
        >
          {drawingsWords.undoEdit}
        </button>
        <button
          type="button"
          className="control"
          aria-keyshortcuts="Control+y"
          aria-disabled={!canRedo}
          onClick={onRedo}
        >
          {drawingsWords.redo}
        </button>
      </div>
      {touch && (
        <p role="status" className="flex flex-wrap items-baseline gap-x-3">
          <span>
            {touch.kind === "move"
              ? drawingsWords.tapNewEnd(nameOf(touch.from))
              : touch.from
                ? drawingsWords.tapSecondTerminal(nameOf(touch.from))
                : drawingsWords.tapFirstTerminal}
          </span>
          <button type="button" className="ask" onClick={() => onTouch(null)}>
            {drawingsWords.stopEdit}
          </button>
        </p>
      )}
    </div>
  );
}
