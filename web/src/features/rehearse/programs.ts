import type { Frame, Timeline } from "./timeline";

/** What a program shows at an instant. */
export interface Shown {
  run: boolean;
  values: Readonly<Record<string, string>>;
  flows: Readonly<Record<string, string>>;
}

const NOTHING: Shown = { run: false, values: {}, flows: {} };

/** What a frame changes of what was shown before it; a program that starts or stops is told whole. */
function after(before: Shown, frame: Frame, relay: string): Shown {
  const told = frame.programs[relay];
  if (!told) return before;
  const kept = told.run === before.run ? before : NOTHING;
  return {
    run: told.run,
    values: { ...kept.values, ...told.values },
    flows: { ...kept.flows, ...told.flows },
  };
}

/** What a program shows at a time, put together from its frames. */
export function programAt(line: Timeline, time: number, relay: string): Shown {
  let found = NOTHING;
  for (const frame of line.frames) {
    if (frame.t > time) break;
    found = after(found, frame, relay);
  }
  return found;
}

/** When a name of a program changed, and to what; empty while the program does not run. */
export function changesOf(
  line: Timeline,
  relay: string,
  name: string,
): readonly { t: number; value: string }[] {
  const found: { t: number; value: string }[] = [];
  let is = "";
  for (const frame of line.frames) {
    const told = frame.programs[relay];
    if (!told) continue;
    const value = told.run ? (told.values[name] ?? is) : "";
    if (value !== is) found.push({ t: frame.t, value });
    is = value;
  }
  return found;
}
