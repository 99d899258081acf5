/** Contacts of a rung as the server has them: a tree of series and parallel. */
export type When = Record<string, unknown>;
export type Rung = Record<string, unknown>;
/** Where a part lies: the places on the way down. */
export type Path = readonly number[];

const GROUPS = ["series", "parallel"] as const;

const partsOf = (when: When): [(typeof GROUPS)[number], When[]] | null => {
  for (const word of GROUPS) {
    const parts = when[word];
    if (Array.isArray(parts)) return [word, parts as When[]];
  }
  return null;
};

/** The part at a path. */
export function at(when: When, path: Path): When {
  const [first, ...rest] = path;
  const group = partsOf(when);
  const part = first === undefined || !group ? undefined : group[1][first];
  return part ? at(part, rest) : when;
}

/** A group of one is its one part; a group in a group of its own kind is part of it. */
function plain(when: When): When {
  const group = partsOf(when);
  if (!group) return when;
  const [word, parts] = group;
  const flat = parts
    .map(plain)
    .flatMap((part) => (Array.isArray(part[word]) ? (part[word] as When[]) : [part]));
  const [only] = flat;
  return flat.length === 1 && only ? only : { [word]: flat };
}

/** The tree with the part at a path changed; undefined takes it out. */
function changed(
  when: When,
  path: Path,
  change: (part: When) => When | undefined,
): When | undefined {
  const [first, ...rest] = path;
  const group = partsOf(when);
  if (first === undefined || !group) return change(when);
  const [word, parts] = group;
  const next = parts.flatMap((part, place) => {
    if (place !== first) return [part];
    const made = changed(part, rest, change);
    return made ? [made] : [];
  });
  return next.length > 0 ? { [word]: next } : undefined;
}

const done = (when: When | undefined): When => plain(when ?? { always: true });

/** A contact behind the one at a path, in series. */
export const inSeries = (when: When, path: Path, part: When): When =>
  done(changed(when, path, (one) => ("always" in one ? part : { series: [one, part] })));

/** A contact beside the one at a path, in parallel. */
export const inParallel = (when: When, path: Path, part: When): When =>
  done(changed(when, path, (one) => ("always" in one ? part : { parallel: [one, part] })));

/** Without the part at a path; of the last one a plain wire is left. */
export const without = (when: When, path: Path): When => done(changed(when, path, () => undefined));

/** The contact at a path, open for closed. */
export const toggled = (when: When, path: Path): When =>
  done(
    changed(when, path, (one) => {
      if ("no" in one) return { nc: one.no };
      return "nc" in one ? { no: one.nc } : one;
    }),
  );

/** The contact at a path on another variable. */
export const renamed = (when: When, path: Path, name: string): When =>
  done(
    changed(when, path, (one) => {
      for (const kind of ["no", "nc", "rise", "fall"])
        if (kind in one) return { ...one, [kind]: name };
      return one;
    }),
  );

/** A list with one place moved up or down. */
export function moved<Item>(list: readonly Item[], place: number, by: number): Item[] {
  const next = [...list];
  const to = place + by;
  const one = next[place];
  if (one === undefined || to < 0 || to >= next.length) return next;
  next.splice(place, 1);
  next.splice(to, 0, one);
  return next;
}
