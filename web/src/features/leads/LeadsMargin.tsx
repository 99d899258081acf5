import type { Schemas } from "../../api/client";
import { Drawer } from "../../components/inputs";
import { useWorks } from "../../state/session";
import type { Given, Place } from "../../state/useJob";
import { leadsWords } from "../../words/leads";
import { Checks } from "../plate/Checks";
import { Accessories } from "./Accessories";
import { Answer, Rotation } from "./Answer";
import { MakerDiagrams } from "./MakerDiagrams";
import { Marks } from "./Marks";
import { OtherConnections } from "./OtherConnections";

export interface LeadsMarginProps {
  place: Place;
  box: Schemas["BoxOut"];
  given: Given;
  isTaken: boolean;
  onTake: () => void;
  onLeadsChange: (change: Partial<Given["leads"]>) => void;
}

/** Beside the picture: the derived answer, and what else is known of the box. */
export function LeadsMargin({
  place,
  box,
  given,
  isTaken,
  onTake,
  onLeadsChange,
}: LeadsMarginProps) {
  const works = useWorks(place.works);
  return (
    <div className="space-y-4">
      {box.verdict === "right" && <Checks findings={box.findings} />}
      <Answer box={box} isTaken={isTaken} onTake={onTake} />
      <Drawer
        name={leadsWords.makersDiagram}
        isOpen={box.is_disputed}
        hint={diagramHint(given.leads)}
      >
        <MakerDiagrams
          place={place}
          box={box}
          leads={given.leads}
          joints={given.leads.joints ?? []}
          onLeadsChange={onLeadsChange}
        />
      </Drawer>
      <Drawer name={leadsWords.rotation}>
        <Rotation box={box} pair={works?.swap_lines ?? "L1-L3"} />
      </Drawer>
      <Drawer name={leadsWords.auxiliaryLeads} hint={leadsWords.heaterThermostatSensor}>
        <Accessories
          items={given.leads.accessories ?? []}
          told={box.accessories}
          onItemsChange={(accessories) => onLeadsChange({ accessories })}
        />
      </Drawer>
      <Drawer name={leadsWords.leadMarkings}>
        <Marks box={box} leads={given.leads} onLeadsChange={onLeadsChange} />
      </Drawer>
      <Drawer name={leadsWords.otherConnections} hint={leadsWords.someInsideMotor}>
        <OtherConnections works={place.works} given={given} />
      </Drawer>
    </div>
  );
}

function diagramHint(leads: { maker?: unknown[] }): string {
  return leads.maker?.length ? "" : leadsWords.notEntered;
}
