import type { Schemas } from "../../api/client";
import { Choice, Words } from "../../components/inputs";
import type { Given } from "../../state/useJob";
import { leadsWords } from "../../words/leads";

type Leads = Given["leads"];

/** What stands on the leads; T numbers stay behind it for ever. */
export function Marks({
  box,
  leads,
  onLeadsChange,
}: {
  box: Schemas["BoxOut"];
  leads: Leads;
  onLeadsChange: (change: Partial<Leads>) => void;
}) {
  const names = leads.names ?? {};
  return (
    <div className="space-y-3">
      <Choice
        options={[
          { value: "T", label: "T1 T2 T3" },
          { value: "UVW", label: "U1 V1 W1" },
          { value: "UVWXYZ", label: "U V W X Y Z" },
          { value: "custom", label: leadsWords.otherMarkings },
        ]}
        value={leads.style ?? "T"}
        onValueChange={(style) => onLeadsChange({ style, names: style === "custom" ? names : {} })}
      />
      {leads.style === "custom" && (
        <div className="grid grid-cols-3 gap-2">
          {box.leads.map((lead) => (
            <Words
              key={lead}
              label={leadsWords.is(lead)}
              value={names[lead] ?? ""}
              onValueChange={(text) => onLeadsChange({ names: { ...names, [lead]: text } })}
              placeholder={lead}
            />
          ))}
        </div>
      )}
    </div>
  );
}
