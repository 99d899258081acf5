import { useState } from "react";
import { Choice, Drawer, Reading, Tick } from "../../components/inputs";
import { auditWords as w } from "../../words/audit";
import type { WhatIf } from "./useAudit";

const EDITIONS = [2017, 2020, 2023] as const;
/** Nothing is supposed. */
export const AS_IT_IS: WhatIf = {
  edition: null,
  breakers: false,
  fault_times: null,
  ambient_c: null,
};

/** What is supposed of the plant, and the audit of it. */
export function Suppose({
  isBusy,
  onBegin,
}: {
  isBusy: boolean;
  onBegin: (given: WhatIf) => void;
}) {
  const [given, setGiven] = useState(AS_IT_IS);
  const set = (change: Partial<WhatIf>) => setGiven({ ...given, ...change });
  const isAsked = JSON.stringify(given) !== JSON.stringify(AS_IT_IS);
  return (
    <Drawer name={w.if} hint={w.ifSays}>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        <Choice
          label={w.edition}
          options={[
            { value: 0, label: w.asIs },
            ...EDITIONS.map((one) => ({ value: one as number, label: String(one) })),
          ]}
          value={given.edition ?? 0}
          onValueChange={(edition) =>
            set({ edition: EDITIONS.find((one) => one === edition) ?? null })
          }
        />
        <Tick isOn={given.breakers ?? false} onChange={(breakers) => set({ breakers })}>
          {w.breakers}
        </Tick>
        <Reading
          label={w.faultTimes}
          unit="×"
          value={given.fault_times === null ? null : String(given.fault_times)}
          onValueChange={(fault_times) => set({ fault_times })}
        />
        <Reading
          label={w.ambient}
          unit="°C"
          value={given.ambient_c === null ? null : String(given.ambient_c)}
          onValueChange={(ambient_c) => set({ ambient_c })}
        />
        <button
          type="button"
          className="control"
          disabled={isBusy || !isAsked}
          onClick={() => onBegin(given)}
        >
          {w.beginIf}
        </button>
      </div>
    </Drawer>
  );
}
