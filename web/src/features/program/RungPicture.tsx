import type { ReactNode } from "react";
import { programWords as w } from "../../words/program";
import type { Path, Rung, When } from "./rungTree";

const said = (value: unknown) => String(value ?? "");

/** At the height of the symbols, which stand below their names. */
export function Wire() {
  return <span aria-hidden="true" className="mb-[9px] min-w-3 grow border-t-2 border-ink" />;
}

/** Contacts in series and parallel; how one is drawn is told by who draws them. */
export function Part({
  when,
  path = [],
  contact,
}: {
  when: When;
  path?: Path;
  contact: (when: When, path: Path) => ReactNode;
}) {
  const parts = (when.series ?? when.parallel) as When[] | undefined;
  if (parts) {
    const isRow = "series" in when;
    return (
      <div
        className={
          isRow
            ? "flex items-end"
            : "flex flex-col items-stretch border-x-2 border-ink divide-y-0 gap-1"
        }
      >
        {parts.map((part, place) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a part is its place
          <div key={place} className="flex items-end">
            <Part when={part} path={[...path, place]} contact={contact} />
            {!isRow && <Wire />}
          </div>
        ))}
      </div>
    );
  }
  return contact(when, path);
}

/** The name over a contact, and how it is read out. */
export function contactOf(when: When): { name: string; edge: string; said: string } {
  const compare = when.cmp as string[] | undefined;
  const edge = "rise" in when ? w.rise : "fall" in when ? w.fall : "";
  const name =
    "always" in when
      ? w.always
      : compare
        ? `${compare[1]} ${compare[0]} ${compare[2]}`
        : said(when.no ?? when.nc ?? when.rise ?? when.fall ?? "");
  return { name, edge, said: `${"nc" in when ? "NOT " : ""}${name}${edge ? ` ${edge}` : ""}` };
}

/** A contact: its name above, its symbol in the wire, what it is worth below. */
export function Contact({
  when,
  worth,
  className = "",
}: {
  when: When;
  worth?: string | undefined;
  className?: string;
}) {
  const { name, edge } = contactOf(when);
  return (
    <span className={`flex flex-col items-stretch font-mono ${className}`}>
      <span className="px-2 text-center leading-tight">
        {name}
        {worth && <b className="ml-1">{worth}</b>}
        {edge && <span className="block text-xs">{edge}</span>}
      </span>
      <span aria-hidden="true" className="flex items-center">
        <span className="min-w-3 grow border-t-2 border-current" />
        {!("always" in when) && (
          <svg
            aria-hidden="true"
            viewBox="0 0 20 20"
            className="h-5 w-5"
            fill="none"
            stroke="currentColor"
          >
            <path d="M0 10H5M15 10H20M5 1V19M15 1V19" strokeWidth="2" />
            {"nc" in when && <path d="M2 18L18 2" strokeWidth="2" />}
          </svg>
        )}
        <span className="min-w-3 grow border-t-2 border-current" />
      </span>
    </span>
  );
}

/** The coil of a rung, or its block with its other inputs. */
export function End({
  rung,
  worth,
  className = "",
}: {
  rung: Rung;
  worth?: ((name: string) => string | undefined) | undefined;
  className?: string;
}) {
  if ("call" in rung) {
    const others = Object.entries((rung.with ?? {}) as Record<string, string>);
    return (
      <span className={`border-2 border-ink px-3 py-1 font-mono ${className}`}>
        <b>{said(rung.call)}</b> {said(rung.input)}
        {others.map(([pin, value]) => (
          <span key={pin} className="block text-sm">
            {pin} {value}
          </span>
        ))}
      </span>
    );
  }
  const [kind, name] = ["coil", "negated", "set", "reset"]
    .filter((word) => word in rung)
    .map((word) => [word, said(rung[word])] as const)[0] ?? ["coil", ""];
  const mark = { coil: "", negated: "/", set: "S", reset: "R" }[kind] ?? "";
  return (
    <span className="flex items-center">
      <span className={`rounded-full border-2 border-ink px-4 py-1 font-mono ${className}`}>
        {mark && <sup className="mr-1">{mark}</sup>}
        {name}
        {worth && <b className="ml-1">{worth(name)}</b>}
      </span>
      <span aria-hidden="true" className="ml-3 self-stretch border-l-4 border-ink" />
    </span>
  );
}
