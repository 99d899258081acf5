import { Reading, Words } from "../../components/inputs";
import { sizeWords } from "../../words/size";
import type { Size } from "./parts/parts";

/** What raises or lowers the device: a recorded no-start, a limit printed by the maker. */
export function Limits({
  size,
  onSizeChange,
  onRest,
}: {
  size: Size;
  onSizeChange: (size: Size) => void;
  onRest: () => void;
}) {
  const set = (change: Partial<Size>) => onSizeChange({ ...size, ...change });
  const limit = size.maker_limit;
  return (
    <fieldset className="metal flex flex-wrap items-end gap-x-5 gap-y-2 px-4 pt-2 pb-3">
      <legend className="stamp bg-ground px-1.5">{sizeWords.limitsFuseBreaker}</legend>
      <Words
        label={sizeWords.willNotStart}
        value={size.no_start?.reason}
        placeholder={sizeWords.openedTwiceLoaded}
        onValueChange={(reason) =>
          set({ no_start: reason ? { by: "", at: "", ...size.no_start, reason } : null })
        }
        onRest={onRest}
        className="w-72"
      />
      <Reading
        label={sizeWords.makersMarkedMaximum}
        unit="A"
        value={limit?.amps_a}
        onValueChange={(amps_a) =>
          set({ maker_limit: amps_a ? { source: "label", ...limit, amps_a } : null })
        }
        onRest={onRest}
        className="w-20"
      />
      {limit && (
        <Words
          label={sizeWords.whereMarked}
          value={limit.source}
          onValueChange={(source) => source && set({ maker_limit: { ...limit, source } })}
          onRest={onRest}
          className="w-48"
        />
      )}
    </fieldset>
  );
}
