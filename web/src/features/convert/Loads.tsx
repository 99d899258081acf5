import type { Schemas } from "../../api/client";
import { Reading, Words } from "../../components/inputs";
import { RowList } from "../../components/RowList";
import { convertWords } from "../../words/convert";

const LOADS = [
  "lamp",
  "coil",
  "solenoid",
  "brake",
  "rectifier",
  "dc_drive",
  "timer",
  "phase_monitor",
  "capacitor",
  "heater",
] as const;

const ACTIONS: Record<string, string> = {
  keep: "text-proven",
  refeed: "text-caution",
  replace: "text-live",
  open: "text-caution",
};

type Load = Schemas["MachineLoad"];

/** Whatever else hangs on the machine: what feeds it, and what becomes of it. */
export function Loads({
  loads,
  answers,
  feeds,
  onLoadsChange,
}: {
  loads: readonly Load[];
  answers: readonly Schemas["LoadOut"][];
  feeds: readonly string[];
  onLoadsChange: (loads: Load[]) => void;
}) {
  return (
    <section aria-labelledby="loads" className="space-y-3">
      <h2 id="loads" className="stamp">
        {convertWords.lampsCoilsRectifiers}
      </h2>
      <RowList
        rows={loads}
        onRowsChange={onLoadsChange}
        add={convertWords.addLoad}
        remove={convertWords.remove}
        testIdOf={(item) => `load-${item.tag}`}
        newRow={() => ({
          tag: `LT${loads.length + 1}`,
          kind: "lamp" as const,
          rated_v: "120",
          fed_from: feeds[0] ?? "",
        })}
      >
        {(item, change) => {
          const answer = answers.find((other) => other.tag === item.tag);
          return (
            <>
              <Words
                label={convertWords.tag}
                value={item.tag}
                onValueChange={(tag) => tag && change({ tag })}
                className="w-24"
              />
              <label className="block">
                <span className="block text-sm text-soft">{convertWords.type}</span>
                <select
                  className="field font-semibold"
                  value={item.kind}
                  onChange={(event) => {
                    const kind = LOADS.find((name) => name === event.target.value);
                    if (kind) change({ kind });
                  }}
                >
                  {LOADS.map((name) => (
                    <option key={name} value={name}>
                      {name.replace("_", " ")}
                    </option>
                  ))}
                </select>
              </label>
              <Reading
                label={convertWords.ratedVoltage}
                unit="V"
                value={item.rated_v}
                onValueChange={(rated_v) => rated_v && change({ rated_v })}
              />
              <label className="block">
                <span className="block text-sm text-soft">{convertWords.fedFrom}</span>
                <select
                  className="field font-semibold"
                  value={item.fed_from ?? ""}
                  onChange={(event) => change({ fed_from: event.target.value })}
                >
                  <option value="">{convertWords.line}</option>
                  {feeds.map((name) => (
                    <option key={name} value={name}>
                      {name}
                    </option>
                  ))}
                </select>
              </label>
              <p className="min-w-60 flex-1">
                {answer && (
                  <>
                    <b className={`stamp ${ACTIONS[answer.action] ?? ""}`}>{answer.action}</b>{" "}
                    {answer.text}
                  </>
                )}
              </p>
            </>
          );
        }}
      </RowList>
    </section>
  );
}
