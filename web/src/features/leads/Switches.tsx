import type { Schemas } from "../../api/client";
import { Choice } from "../../components/inputs";
import type { Given } from "../../state/useJob";
import { leadsWords } from "../../words/leads";

type Box = Schemas["BoxOut"];
type Leads = Given["leads"];

const STARTS: Record<string, readonly string[]> = {
  "6": ["wye_delta"],
  "12": ["wye_delta", "part_winding"],
  "9-wye": ["part_winding"],
  "part-winding": ["part_winding"],
};
const START_WORDS: Record<string, string> = {
  full_voltage: leadsWords.fullVoltage,
  wye_delta: leadsWords.wyeDelta,
  part_winding: leadsWords.partWinding,
};

export interface SwitchesProps {
  box: Box;
  leads: Leads;
  onLeadsChange: (change: Partial<Leads>) => void;
  onTry: (joints: Box["known"][number]["joints"]) => void;
}

/** How it is to run, and every named joining of this winding to be tried on the picture. */
export function Switches({ box, leads, onLeadsChange, onTry }: SwitchesProps) {
  const starts = STARTS[box.kind] ?? [];
  const isTwoSpeed = box.kind.startsWith("2-speed");
  return (
    <div className="space-y-2">
      {box.known.length > 1 && (
        <fieldset className="flex flex-wrap items-center gap-1.5">
          <legend className="float-left mr-2 text-sm text-soft">{leadsWords.show}</legend>
          {box.known.map((known) => (
            <button
              key={`${known.name} ${known.joints.length}`}
              type="button"
              className="control px-2.5 text-sm"
              data-stamped={known.is_stamped}
              onClick={() => onTry(known.joints)}
            >
              <span>
                {known.said}
                {known.volts && <span className="font-mono"> {known.volts} V</span>}
              </span>
            </button>
          ))}
        </fieldset>
      )}
      <div className="flex flex-wrap gap-x-5 gap-y-2">
        {starts.length > 0 && (
          <Choice
            label={leadsWords.startingMethod}
            options={["full_voltage", ...starts].map((name) => ({
              value: name as NonNullable<Leads["start_method"]>,
              label: START_WORDS[name] ?? name,
            }))}
            value={leads.start_method ?? "full_voltage"}
            onValueChange={(start_method) => onLeadsChange({ start_method })}
          />
        )}
        {isTwoSpeed && (
          <Choice
            label={leadsWords.speed}
            options={[
              { value: "low", label: leadsWords.low },
              { value: "high", label: leadsWords.high },
            ]}
            value={leads.speed || "low"}
            onValueChange={(speed) => onLeadsChange({ speed })}
          />
        )}
        <Choice
          label={leadsWords.direction}
          options={[
            { value: "forward", label: leadsWords.asIs },
            { value: "reverse", label: leadsWords.otherWay },
          ]}
          value={leads.direction ?? "forward"}
          onValueChange={(direction) => onLeadsChange({ direction })}
        />
        {box.kind === "12" && (
          <Choice
            label={leadsWords.runsConnected}
            options={[
              { value: "wye", label: leadsWords.wye },
              { value: "delta", label: leadsWords.delta },
            ]}
            value={leads.run_shape ?? null}
            onValueChange={(run_shape) => onLeadsChange({ run_shape })}
          />
        )}
      </div>
    </div>
  );
}

/** Which winding it is: those with as many leads, what rules each out, and how each rings. */
export function Kinds({
  box,
  leads,
  onLeadsChange,
}: {
  box: Box;
  leads: Leads;
  onLeadsChange: (change: Partial<Leads>) => void;
}) {
  if (box.kinds.length < 2) return null;
  const patterns = [...new Set(box.kinds.map((kind) => kind.groups.join(" + ")))];
  const rung = (leads.groups ?? []).join(" + ");
  return (
    <section aria-label={leadsWords.windingType} className="space-y-2">
      {patterns.length > 1 && (
        <Choice
          label={leadsWords.groupsContinuity}
          options={[
            ...patterns.map((text) => ({ value: text, label: text })),
            { value: "", label: leadsWords.notMeasured },
          ]}
          value={rung}
          onValueChange={(text) =>
            onLeadsChange({ groups: text ? text.split(" + ").map(Number) : [], winding: null })
          }
        />
      )}
      <ul className="grid gap-1.5 sm:grid-cols-2" data-testid="kinds">
        {box.kinds.map((kind) => (
          <li key={kind.kind}>
            <button
              type="button"
              className="control w-full flex-col items-start! gap-0! py-1 text-left"
              aria-pressed={box.kind === kind.kind}
              onClick={() =>
                onLeadsChange({
                  winding:
                    leads.winding === kind.kind
                      ? null
                      : (kind.kind as NonNullable<Leads["winding"]>),
                })
              }
            >
              <span>{kind.name}</span>
              <span className={`text-sm font-normal ${kind.reason ? "line-through" : ""}`}>
                {kind.groups.join(" + ")}
              </span>
              {kind.reason && (
                <span className="text-sm font-normal">{leadsWords.excluded(kind.reason)}</span>
              )}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
