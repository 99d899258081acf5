import type { Schemas } from "../../api/client";
import { auditWords as w } from "../../words/audit";
import type { Chosen } from "./useAudit";

const MOST = 12;

/** Beside the lines: what the unknown facts cost, and where it stands by machine and panel. */
export function Beside({
  audit,
  chosen,
  onChoose,
}: {
  audit: Schemas["AuditOut"];
  chosen: Chosen;
  onChoose: (change: Partial<Chosen>) => void;
}) {
  const isOnePanel = audit.panels.length === 1 && audit.panels[0]?.name === "";
  return (
    <aside className="space-y-5">
      {audit.needs.length > 0 && (
        <section aria-label={w.needs} data-testid="needs">
          <h2 className="stamp">{w.needs}</h2>
          <ol>
            {audit.needs.slice(0, MOST).map((need) => (
              <li key={need.fact} className="border-t border-hair py-1.5">
                <p>{need.said}</p>
                <p className="text-sm text-soft">
                  {w.cost(need.withheld, need.assumed)}{" "}
                  <button
                    type="button"
                    className="ask"
                    aria-pressed={chosen.fact === need.fact}
                    onClick={() => onChoose({ fact: need.fact })}
                  >
                    {w.inMotors(need.jobs)}
                  </button>
                </p>
              </li>
            ))}
          </ol>
        </section>
      )}
      <Places
        title={w.machines}
        places={audit.machines}
        chosen={chosen.machine}
        onChoose={(machine) => onChoose({ machine })}
      />
      {!isOnePanel && (
        <Places
          title={w.panels}
          places={audit.panels}
          chosen={chosen.panel}
          onChoose={(panel) => onChoose({ panel })}
        />
      )}
    </aside>
  );
}

function Places({
  title,
  places,
  chosen,
  onChoose,
}: {
  title: string;
  places: Schemas["AuditPlaceOut"][];
  chosen: string;
  onChoose: (name: string) => void;
}) {
  return (
    <section aria-label={title}>
      <h2 className="stamp">{title}</h2>
      <ul>
        {places.map((place) => (
          <li key={place.name} className="border-t border-hair py-1.5">
            {place.name ? (
              <button
                type="button"
                className="ask"
                aria-pressed={chosen === place.name}
                onClick={() => onChoose(place.name)}
              >
                {place.name}
              </button>
            ) : (
              <span>{w.noPanel}</span>
            )}
            <p className="text-sm text-soft">
              {w.placeSays(place.fails, place.doubt, place.open, place.total)}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
