import { Sheet } from "../../components/Sheet";
import { Diagram } from "../../diagram/Diagram";
import { usePicture } from "../../diagram/usePicture";
import { starterWords } from "../../words/starter";
import { type Choice, Measures, Verdict } from "./Compare";

export interface Compared {
  id: string;
  title: string;
  choice: Choice | undefined;
}

/** Two starters for this motor: drawings, wires, devices, line current, torque, hazards. */
export function SideBySide({
  works,
  style,
  pair,
  onChoose,
  onClose,
}: {
  works: string;
  style: "nema" | "iec";
  pair: readonly Compared[];
  onChoose: (id: string) => void;
  onClose: () => void;
}) {
  const [one, other] = pair;
  const first = usePicture(works, one?.id ?? "", style).data;
  const second = usePicture(works, other?.id ?? "", style).data;
  if (!one || !other) return null;
  const drawn = [
    { ...one, picture: first, lacks: second },
    { ...other, picture: second, lacks: first },
  ];
  return (
    <Sheet
      title={starterWords.compareTwo(one.id, other.id)}
      isOpen
      isWide
      onOpenChange={(isOpen) => !isOpen && onClose()}
    >
      <div className="grid gap-4 md:grid-cols-2" data-testid="side-by-side">
        {drawn.map(({ id, title, choice, picture, lacks }) => (
          <section key={id} aria-label={title} className="min-w-0 space-y-3">
            <h3 className="font-headline text-lg font-bold">{title}</h3>
            {choice && (
              <>
                <Verdict choice={choice} />
                <Measures choice={choice} />
              </>
            )}
            {picture && (
              <>
                <p>
                  <b className="font-mono">{starterWords.wires(picture.wires)}</b>
                  {lacks && picture.wires !== lacks.wires && (
                    <span className="text-soft">
                      {" "}
                      {starterWords.moreWires(picture.wires - lacks.wires)}
                    </span>
                  )}
                </p>
                <ul className="text-sm">
                  {picture.devices.map((device) => (
                    <li
                      key={device}
                      className={lacks?.devices.includes(device) ? "text-soft" : "font-semibold"}
                    >
                      {device}
                    </li>
                  ))}
                </ul>
                {picture.ladder.shapes.length > 0 && (
                  <div className="border border-hair bg-sheet p-1">
                    <Diagram picture={picture.ladder} label={starterWords.ladderOf(title)} />
                  </div>
                )}
                <div className="border border-hair bg-sheet p-1">
                  <Diagram picture={picture.power} label={starterWords.powerOf(title)} />
                </div>
              </>
            )}
            <button type="button" className="control" onClick={() => onChoose(id)}>
              {starterWords.choose(id)}
            </button>
          </section>
        ))}
      </div>
    </Sheet>
  );
}
