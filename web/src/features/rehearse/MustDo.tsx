import { rehearseWords } from "../../words/rehearse";
import type { Hand } from "./hands";
import type { SimEvent } from "./timeline";

export interface MustDoProps {
  events: readonly SimEvent[];
  hands: readonly Hand[];
}

/** What a rehearsal should show: each button by its effect, power back, a lost phase under load. */
export function MustDo({ events, hands }: MustDoProps) {
  const acts = events.filter((event) => event.what === "hand");
  const did = (verb: RegExp, on?: string) =>
    acts.some(
      (event) =>
        event.effect && verb.test(event.value) && (on === undefined || event.device === on),
    );
  const lost = acts.find((event) => event.effect && event.value === "off");
  const items = [
    ...hands
      .filter((hand) => hand.kind === "hold" || hand.kind === "latch")
      .map((hand) => ({ label: hand.label, isDone: did(/^press/, hand.device.id) })),
    ...hands
      .filter((hand) => hand.kind === "reset")
      .flatMap((hand) => [
        {
          label: rehearseWords.trips(hand.device.tag),
          isDone: did(/^trip/, hand.device.id),
        },
        { label: hand.label, isDone: did(/^reset/, hand.device.id) },
      ]),
    {
      label: rehearseWords.powerBack,
      isDone: lost !== undefined && acts.some((event) => event.value === "on" && event.t > lost.t),
    },
    { label: rehearseWords.lostPhase, isDone: did(/^lose/) },
  ];
  const done = items.filter((item) => item.isDone).length;
  return (
    <section aria-labelledby="must-do">
      <h2 id="must-do" className="stamp mb-1 text-soft">
        {rehearseWords.rehearsed(done, items.length)}
      </h2>
      <p className="text-sm text-soft">{rehearseWords.tickedByEffect}</p>
      <ul className="flex flex-wrap gap-x-4 gap-y-1 text-sm" data-testid="must-do">
        {items.map((item) => (
          <li key={item.label} data-done={item.isDone} className="data-[done=true]:text-proven">
            <span aria-hidden="true">{item.isDone ? "■" : "□"}</span> {item.label}
            <span className="sr-only">
              {item.isDone ? rehearseWords.done : rehearseWords.notYet}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
