import { Slider } from "radix-ui";
import { rehearseWords } from "../../words/rehearse";
import type { Rehearsal } from "./useRehearsal";

/** A time of the rehearsal [us] as seconds. */
export const clock = (us: number) => `${(us / 1e6).toFixed(2)} s`;

/** Pause, go back, go to an event, slower and faster. */
export function TimeControls({ rehearsal }: { rehearsal: Rehearsal }) {
  const { now, line } = rehearsal;
  return (
    <section aria-label={rehearseWords.time} className="space-y-2">
      <div className="flex flex-wrap items-center gap-2">
        <span className="min-w-20 font-mono text-lg font-semibold" data-testid="clock">
          {clock(now)}
        </span>
        <button
          type="button"
          className="control"
          onClick={() => (rehearsal.isRunning ? rehearsal.freeze() : rehearsal.goOn())}
        >
          {rehearsal.isRunning ? rehearseWords.pause : rehearseWords.continue}
        </button>
        <button type="button" className="control" onClick={() => rehearsal.seek(now - 2e6)}>
          {rehearseWords.rewindS}
        </button>
        <button type="button" className="control" onClick={() => rehearsal.step(-1)}>
          {rehearseWords.previousEvent}
        </button>
        <button type="button" className="control" onClick={() => rehearsal.step(1)}>
          {rehearseWords.nextEvent}
        </button>
        <button type="button" className="control" onClick={() => rehearsal.restart()}>
          {rehearseWords.fromStart}
        </button>
        <button type="button" className="control" onClick={() => rehearsal.faster(-1)}>
          {rehearseWords.slower}
        </button>
        <span className="font-mono">×{rehearsal.speed}</span>
        <button type="button" className="control" onClick={() => rehearsal.faster(1)}>
          {rehearseWords.faster}
        </button>
      </div>
      <Slider.Root
        className="relative flex h-8 w-full touch-none items-center"
        value={[Math.min(now, line.until)]}
        max={Math.max(line.until, 1)}
        step={1000}
        onValueChange={([to]) => to !== undefined && rehearsal.seek(to)}
      >
        <Slider.Track className="relative h-2 grow rounded-full bg-sunk">
          <Slider.Range className="absolute h-full rounded-full bg-plum" />
        </Slider.Track>
        <Slider.Thumb
          className="block size-6 rounded-full border-2 border-plum bg-sheet"
          aria-label={rehearseWords.timeRehearsal}
          aria-valuetext={clock(now)}
        />
      </Slider.Root>
    </section>
  );
}
