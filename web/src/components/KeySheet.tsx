import { useDevice } from "../state/device";
import type { Key } from "../state/keys";
import { frameWords } from "../words/frame";
import { Sheet } from "./Sheet";

export interface KeySheetProps {
  keys: readonly Key[];
  isOpen: boolean;
  onOpenChange: (isOpen: boolean) => void;
}

/** The keys of this screen, and the switch that turns single letters off. */
export function KeySheet({ keys, isOpen, onOpenChange }: KeySheetProps) {
  const { areKeysOn, onKeysChange } = useDevice();
  return (
    <Sheet isOpen={isOpen} onOpenChange={onOpenChange} title={frameWords.keysScreen}>
      <table className="w-full">
        <tbody>
          {keys.map((key) => (
            <tr key={key.press} className="border-b border-hair">
              <th scope="row" className="w-28 py-1.5 text-left font-mono">
                {key.press}
              </th>
              <td>{key.does}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <label className="mt-3 flex min-h-11 items-center gap-3">
        <input
          type="checkbox"
          className="size-5 accent-plum"
          checked={areKeysOn}
          onChange={(event) => onKeysChange(event.target.checked)}
        />
        {frameWords.singleLetterKeys}
      </label>
      <p className="mt-2 text-soft">{frameWords.figuresFollowCodes}</p>
    </Sheet>
  );
}
