import { Link } from "react-router";
import { useDevice } from "../state/device";
import type { Key } from "../state/keys";
import { frameWords } from "../words/frame";
import { helpWords } from "../words/help";
import { HelpPicture } from "./HelpPicture";
import { Sheet } from "./Sheet";

export interface KeySheetProps {
  keys: readonly Key[];
  isOpen: boolean;
  onOpenChange: (isOpen: boolean) => void;
  /** The screen it is of. */
  screen: string;
  /** Where the tour begins, if there is a motor to go round. */
  tour?: string | undefined;
}

/** What this screen answers, its picture, its keys, and the switch that turns single letters off. */
export function KeySheet({ keys, isOpen, onOpenChange, screen, tour }: KeySheetProps) {
  const { areKeysOn, onKeysChange } = useDevice();
  const answers = helpWords.answers[screen];
  return (
    <Sheet isOpen={isOpen} onOpenChange={onOpenChange} title={frameWords.keysScreen}>
      {answers && (
        <section
          aria-label={helpWords.whatItAnswers}
          className="mb-4 flex items-center gap-5"
          data-testid="help"
        >
          <HelpPicture screen={screen} />
          <div className="space-y-2">
            <p className="font-headline text-xl font-bold">{answers}</p>
            <p className="flex flex-wrap gap-x-4">
              <Link className="ask" to="/terms">
                {helpWords.terms}
              </Link>
              {tour && (
                <Link className="ask" to={tour} onClick={() => onOpenChange(false)}>
                  {helpWords.takeTour}
                </Link>
              )}
            </p>
          </div>
        </section>
      )}
      <table className="w-full" aria-label={helpWords.keys}>
        <tbody>
          {keys
            .filter((key) => key.press)
            .map((key) => (
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
