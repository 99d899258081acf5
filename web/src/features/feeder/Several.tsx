import { Choice, Reading } from "../../components/inputs";
import { ProblemSlab } from "../../components/shapes";
import { feederWords } from "../../words/feeder";
import type { FeederAnswer, FeederGiven } from "./useFeeder";

/** Several motors behind one fuse or breaker, or behind one disconnect. */
export function Several({
  asked,
  found,
  onAskedChange,
}: {
  asked: FeederGiven;
  found: FeederAnswer;
  onAskedChange: (change: Partial<FeederGiven>) => void;
}) {
  const { small_group: group, disconnect } = asked;
  const setDisconnect = (change: Partial<NonNullable<typeof disconnect>>) =>
    onAskedChange({ disconnect: { reason: "", ...disconnect, ...change } });
  return (
    <section aria-labelledby="several" className="space-y-3" data-testid="several">
      <h2 id="several" className="stamp text-soft">
        {feederWords.severalMotors}
      </h2>
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <Reading
          label={feederWords.smallMotorsDevice}
          unit="A"
          value={group?.device_a}
          onValueChange={(device_a) =>
            onAskedChange({ small_group: device_a ? { ...group, device_a } : null })
          }
          className="w-20"
        />
        {group && (
          <Reading
            label={feederWords.controllersMarked}
            unit="A"
            value={group.controllers_a}
            onValueChange={(controllers_a) =>
              onAskedChange({ small_group: { ...group, controllers_a } })
            }
            className="w-20"
          />
        )}
      </div>
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <Choice
          label={feederWords.oneDisconnect}
          options={[
            { value: null, label: feederWords.eachItsOwn },
            { value: "machine", label: feederWords.oneMachine },
            { value: "room", label: feederWords.oneRoom },
            { value: "small_group", label: feederWords.smallMotors },
          ]}
          value={disconnect?.reason || null}
          onValueChange={(reason) =>
            reason ? setDisconnect({ reason }) : onAskedChange({ disconnect: null })
          }
        />
        {disconnect && (
          <>
            <Reading
              label={feederWords.marked}
              unit="A"
              value={disconnect.amps_a}
              onValueChange={(amps_a) => setDisconnect({ amps_a })}
              className="w-20"
            />
            <Reading
              label={feederWords.marked}
              unit="hp"
              value={disconnect.rated_hp}
              onValueChange={(rated_hp) => setDisconnect({ rated_hp })}
              className="w-20"
            />
          </>
        )}
      </div>
      {found.several_refusal && <ProblemSlab problem={found.several_refusal} />}
      <ul className="space-y-2">
        {found.several.map((step) => (
          <li
            key={step.id}
            data-verdict={step.verdict}
            className="border-l-4 border-edge pl-3 data-[verdict=fails]:border-live"
          >
            <b>{step.label}</b> <b className="font-mono">{step.said}</b>{" "}
            {step.verdict && <b className="stamp">{feederWords.verdict[step.verdict]}</b>}
            <span className="block text-sm">
              {step.working} <span className="text-soft">{step.rule?.section}</span>
            </span>
            {step.marks.map((mark) => (
              <span key={mark.text} className="block text-sm text-caution">
                {mark.text}
              </span>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}
