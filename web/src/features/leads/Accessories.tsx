import type { Schemas } from "../../api/client";
import { Choice, Reading, Words } from "../../components/inputs";
import type { Given } from "../../state/useJob";
import { leadsWords } from "../../words/leads";
import { lastingId } from "./joints";

type Item = NonNullable<Given["leads"]["accessories"]>[number];

const KINDS = [
  ["space_heater", "heater"],
  ["thermostat", "thermostat"],
  ["thermistor", "thermistor"],
  ["rtd", "RTD"],
  ["protector", "protector"],
  ["capacitor", "capacitor"],
  ["start_switch", leadsWords.startSwitch],
  ["relay", leadsWords.startRelay],
  ["unknown", leadsWords.notKnown],
] as const;

export interface AccessoriesProps {
  items: readonly Item[];
  told: readonly Schemas["AccessoryOut"][];
  onItemsChange: (items: Item[]) => void;
}

/** Leads in the same box that are no winding: told apart by wires and ohms, never on a line. */
export function Accessories({ items, told, onItemsChange }: AccessoriesProps) {
  const set = (id: string, change: Partial<Item>) =>
    onItemsChange(items.map((item) => (item.id === id ? { ...item, ...change } : item)));
  return (
    <div className="space-y-3">
      {items.map((item) => {
        const found = told.find((other) => other.id === item.id);
        return (
          <div key={item.id} className="metal space-y-2 px-4 py-3" data-testid="accessory">
            <div className="flex flex-wrap items-end gap-3">
              <Words
                label={leadsWords.marksSpaces}
                value={(item.marks ?? []).join(" ")}
                onValueChange={(text) =>
                  set(item.id, {
                    marks: text.toUpperCase().split(/\s+/).filter(Boolean).slice(0, 6),
                  })
                }
                placeholder="P1 P2"
                className="w-32"
              />
              <Reading
                label={leadsWords.cold}
                unit="Ω"
                value={item.ohms}
                onValueChange={(ohms) => set(item.id, { ohms, is_open: false })}
                className="w-20"
              />
              <button
                type="button"
                className="control"
                aria-pressed={item.is_open}
                onClick={() => set(item.id, { is_open: !item.is_open, ohms: null })}
              >
                {leadsWords.ol}
              </button>
            </div>
            {found?.text && <p>{found.text}</p>}
            {found?.settles && <p className="text-sm text-soft">{found.settles}</p>}
            <Choice
              options={KINDS.map(([value, label]) => ({ value, label }))}
              value={item.kind ?? "unknown"}
              onValueChange={(kind) => set(item.id, { kind })}
            />
            <button
              type="button"
              className="ask"
              onClick={() => onItemsChange(items.filter((other) => other.id !== item.id))}
            >
              {leadsWords.remove}
            </button>
          </div>
        );
      })}
      <button
        type="button"
        className="control"
        onClick={() =>
          onItemsChange([
            ...items,
            { id: lastingId(), marks: [], ohms: null, is_open: false, kind: "unknown" },
          ])
        }
      >
        {leadsWords.addAuxiliaryLeads}
      </button>
      <p className="text-sm text-soft">{leadsWords.noMoreThan}</p>
    </div>
  );
}
