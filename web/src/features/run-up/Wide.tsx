import type { ReactNode } from "react";
import { runUpWords } from "../../words/runUp";

/** A table that may be wider than a phone: moved sideways by finger or arrow keys. */
export function Wide({ name, children }: { name: string; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what is wider than the screen is moved by arrow keys
    <section className="overflow-x-auto" aria-label={runUpWords.table(name)} tabIndex={0}>
      {children}
    </section>
  );
}
