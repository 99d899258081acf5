import { Link } from "react-router";
import { WindingMark } from "../../components/Winding";
import { yardWords } from "../../words/yard";
import { OneLine } from "./OneLine";
import type { ListedMotor } from "./useMotors";

/** The motors of a machine on this page, with the place of each in the whole list. */
export interface Group {
  machine: string;
  motors: { motor: ListedMotor; place: number }[];
}

/** Motors by their machine, in the order in which the server sends them. */
export function groupsOf(motors: readonly ListedMotor[]): Group[] {
  const groups: Group[] = [];
  motors.forEach((motor, place) => {
    const last = groups.at(-1);
    if (last?.machine === motor.machine) last.motors.push({ motor, place });
    else groups.push({ machine: motor.machine, motors: [{ motor, place }] });
  });
  return groups;
}

/** A machine: its one-line, what can be done with it as a whole, its motors. */
export function Machine({
  works,
  group,
  to,
  onFocus,
}: {
  works: string;
  group: Group;
  to: (motor: ListedMotor) => string;
  onFocus: (place: number) => void;
}) {
  const { machine, motors } = group;
  const name = encodeURIComponent(machine);
  return (
    <section aria-label={machine} className="space-y-2" data-testid="machine">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h2 className="font-headline text-xl font-bold">{machine}</h2>
        <span className="text-sm text-soft">{yardWords.motorsHere(motors.length)}</span>
        <span className="ml-auto flex gap-4">
          <Link
            className="ask"
            to={`/w/${works}/convert/${name}`}
            aria-label={yardWords.convert(machine)}
          >
            {yardWords.convertIt}
          </Link>
          <Link
            className="ask"
            to={`/w/${works}/feeder/${name}`}
            aria-label={yardWords.feeder(machine)}
          >
            {yardWords.feederIt}
          </Link>
        </span>
      </div>
      <div className="max-md:hidden">
        <OneLine motors={motors.map((one) => one.motor)} to={to} />
      </div>
      <ul className="space-y-2" aria-label={yardWords.motors}>
        {motors.map(({ motor, place }) => (
          <li key={motor.tag}>
            <Link
              id={`motor-${place}`}
              to={to(motor)}
              onFocus={() => onFocus(place)}
              className="grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-1 border-[1.5px] border-edge bg-sheet px-3 py-2.5 text-ink no-underline hover:border-plum md:grid-cols-[5.2rem_minmax(0,1fr)_auto]"
            >
              <span className="font-headline text-2xl leading-none font-bold">{motor.tag}</span>
              <span className="min-w-0">
                <b className="block">{motor.name || yardWords.notNamed}</b>
                <span className="block truncate font-mono text-sm text-soft">
                  {motor.arches[0]?.state === "open" ? yardWords.noNameplateYet : motor.headline}
                  {motor.supply && yardWords.on(motor.supply)}
                </span>
                {motor.wants && <span className="block text-caution">{motor.wants}</span>}
                {motor.is_old && <span className="block text-soft">{yardWords.workingOut}</span>}
              </span>
              <span className="col-span-2 md:col-span-1">
                <WindingMark arches={motor.arches} />
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
