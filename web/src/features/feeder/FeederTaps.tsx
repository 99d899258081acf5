import { Choice, Reading } from "../../components/inputs";
import { feederWords } from "../../words/feeder";
import type { FeederAnswer, FeederGiven } from "./useFeeder";

/** The wire from the feeder to each motor, by its length, and one device in front of all. */
export function Taps({
  asked,
  found,
  onAskedChange,
}: {
  asked: FeederGiven;
  found: FeederAnswer;
  onAskedChange: (change: Partial<FeederGiven>) => void;
}) {
  const taps = asked.taps ?? [];
  return (
    <section aria-labelledby="taps" className="space-y-3">
      <h2 id="taps" className="stamp text-soft">
        {feederWords.taps}
      </h2>
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <Choice
          label={feederWords.eachTap}
          options={[
            { value: false, label: feederWords.ownFuseBreaker },
            { value: true, label: feederWords.oneFuseBreaker },
          ]}
          value={asked.is_group}
          onValueChange={(is_group) => onAskedChange({ is_group })}
        />
        {asked.is_group && (
          <>
            <Reading
              label={feederWords.groupFuseBreaker}
              unit="A"
              value={asked.group_device_a}
              onValueChange={(group_device_a) => onAskedChange({ group_device_a })}
              className="w-20"
            />
            <Reading
              label={feederWords.startersListedGroup}
              unit="A"
              value={asked.group_listed_a}
              onValueChange={(group_listed_a) => onAskedChange({ group_listed_a })}
              className="w-20"
            />
          </>
        )}
      </div>
      <ul className="space-y-2">
        {found.motors
          .filter((motor) => !motor.refusal)
          .map((motor) => {
            const tap = taps.find((item) => item.tag === motor.tag);
            const rest = taps.filter((item) => item.tag !== motor.tag);
            const sized = found.taps.find((item) => item.tag === motor.tag);
            const wire = sized?.steps.find((step) => step.id === "tap_conductor_size");
            const least = sized?.steps.find((step) => step.id === "tap_least_a");
            return (
              <li
                key={motor.tag}
                className="flex flex-wrap items-end gap-x-5 gap-y-1 border-l-4 border-edge pl-3"
              >
                <b className="font-headline text-xl">{motor.tag}</b>
                <Reading
                  label={feederWords.tap(motor.tag)}
                  unit={feederWords.ft}
                  value={tap?.length_ft}
                  onValueChange={(length_ft) =>
                    onAskedChange({
                      taps: length_ft
                        ? [
                            ...rest,
                            {
                              is_protected: tap?.is_protected ?? true,
                              to: tap?.to ?? "overload",
                              tag: motor.tag,
                              length_ft,
                            },
                          ]
                        : rest,
                    })
                  }
                  className="w-20"
                />
                {tap && (
                  <Choice
                    options={[
                      { value: true, label: feederWords.raceway },
                      { value: false, label: feederWords.open },
                    ]}
                    value={tap.is_protected}
                    onValueChange={(is_protected) =>
                      onAskedChange({ taps: [...rest, { ...tap, is_protected }] })
                    }
                  />
                )}
                {wire && least && (
                  <span className="min-w-0">
                    <b className="font-mono text-xl">{wire.shown}</b>{" "}
                    <span className="text-sm">{least.working}</span>
                  </span>
                )}
              </li>
            );
          })}
      </ul>
    </section>
  );
}
