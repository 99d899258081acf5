import { rehearseWords } from "../../words/rehearse";

const SHOWN = 60;

export interface EventsProps {
  events: readonly { n: number; t: number; tag: string; what: string; value: unknown }[];
  /** Microseconds since the rehearsal began; later events are not shown. */
  now: number;
}

/** The newest events of a rehearsal, in seconds. */
export function Events({ events, now }: EventsProps) {
  return (
    <details>
      <summary className="ask">{rehearseWords.events}</summary>
      <ol className="max-h-72 space-y-0.5 overflow-y-auto font-mono text-sm" data-testid="events">
        {events
          .filter((event) => event.t <= now)
          .slice(-SHOWN)
          .map((event) => (
            <li key={event.n}>
              {(event.t / 1e6).toFixed(3)} {event.tag} {event.what} {String(event.value)}
            </li>
          ))}
      </ol>
    </details>
  );
}
