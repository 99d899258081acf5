import { Link } from "react-router";
import { feederWords } from "../../words/feeder";
import type { FeederAnswer } from "./useFeeder";

/** The feeder as one line: its device, its bus, and every motor with what it counts. */
export function OneFeeder({ works, found }: { works: string; found: FeederAnswer }) {
  return (
    <div className="border-2 border-ink bg-sheet px-5 py-4" data-testid="feeder">
      <svg viewBox="0 0 90 46" className="block h-12" aria-hidden="true">
        <path d="M10 0V12M10 32V46M10 32L24 12" stroke="var(--ink)" strokeWidth="3" fill="none" />
      </svg>
      <ul className="grid gap-x-4 gap-y-2 border-t-4 border-ink pt-2 sm:grid-cols-2">
        {found.motors.map((motor) => (
          <li
            key={motor.tag}
            data-largest={motor.is_largest}
            className="border-l-4 border-edge pl-3 data-[largest=true]:border-plum"
          >
            <Link
              className="font-headline text-xl font-bold text-ink"
              to={`/w/${works}/m/${encodeURIComponent(motor.tag)}/j/${motor.job}/size`}
            >
              {motor.tag}
            </Link>{" "}
            {motor.name}
            {motor.is_largest && (
              <b className="stamp ml-2 text-plum">{feederWords.highestRatedMotor}</b>
            )}
            {motor.refusal ? (
              <span className="block text-caution">
                {feederWords.notCountedYet(motor.refusal.detail)}
              </span>
            ) : (
              <span className="block font-mono">
                {motor.flc_a}&nbsp;A{motor.duty_a && feederWords.duty(motor.duty_a)}
                {motor.is_largest && feederWords.counts(motor.share_a)}{" "}
                {feederWords.device(motor.device_a)}
              </span>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
