import { useId } from "react";
import { Link } from "react-router";
import { Words } from "../../components/inputs";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { Stop } from "../../components/shapes";
import type { Given } from "../../state/useJob";
import { words } from "../../words/common";
import { replaceWords } from "../../words/replace";
import { OldConductors } from "./OldConductors";
import { Rotation } from "./Rotation";
import { useReplaced } from "./useReplaced";

type Record = Given["replace"];

const SHOUTS = {
  equal: replaceWords.rotationVerifiedSame,
  different: replaceWords.turnsOtherWay,
  unproven: replaceWords.recordFirstThen,
};

/** A motor replaced: what came off, what the new one changes, and that it turns the same way. */
export function ReplaceScreen() {
  const { place, state } = useRoom();
  const { given } = state;
  const plateId = useId();
  const settingsId = useId();
  const record = given?.replace;
  const set = (change: Partial<Record>) => {
    if (record) state.change("replace", { ...record, ...change });
  };
  const { found, slab } = useReplaced(place.works, given);
  const conductors = record?.conductors ?? [];
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  return (
    <JobFrame
      place={place}
      step="replace"
      state={state}
      keys={[]}
      headline={SHOUTS[found?.rotation ?? "unproven"]}
      margin={
        found && (
          <div className="space-y-4">
            {found.open_points.length > 0 && (
              <Stop strength="hold" title={replaceWords.stillOpen}>
                <ul className="list-disc pl-5">
                  {found.open_points.map((point) => (
                    <li key={point}>{point}</li>
                  ))}
                </ul>
              </Stop>
            )}
            {found.takes_down.length > 0 && (
              <section aria-labelledby="down" className="space-y-1">
                <h2 id="down" className="stamp">
                  {replaceWords.whatChangeAffects}
                </h2>
                <ul className="flex flex-wrap gap-2">
                  {found.takes_down.map((step) => (
                    <li key={step}>
                      {words.steps[step] ? (
                        <Link className="control" to={`${base}/${step}`}>
                          {words.steps[step]}
                        </Link>
                      ) : (
                        <span>
                          {step === "supply"
                            ? replaceWords.supply
                            : replaceWords.drivenMachinesSpeed}
                        </span>
                      )}
                    </li>
                  ))}
                </ul>
              </section>
            )}
          </div>
        )
      }
      primary={
        <Link to={`${base}/leads`} className="control md:w-auto!" data-primary="true">
          {replaceWords.leads}
        </Link>
      }
      others={null}
    >
      {record && (
        <div className="space-y-5">
          {slab}
          <div className="metal px-5 pt-4 pb-3">
            <label htmlFor={plateId} className="stamp absolute -top-3 left-5 bg-ground px-2">
              {replaceWords.nameplateOldMotor}
            </label>
            <textarea
              id={plateId}
              className="field min-h-20 text-lg"
              value={record.old_plate ?? ""}
              spellCheck={false}
              onChange={(event) => set({ old_plate: event.target.value })}
              onBlur={() => void state.keep()}
            />
          </div>
          {found && found.lines.length > 0 && (
            <table className="w-full" data-testid="plates">
              <thead>
                <tr className="text-left text-sm text-soft">
                  <th scope="col">{replaceWords.field}</th>
                  <th scope="col">{replaceWords.old}</th>
                  <th scope="col">{replaceWords.newWord}</th>
                  <th scope="col">{replaceWords.affects}</th>
                </tr>
              </thead>
              <tbody>
                {found.lines.map((line) => (
                  <tr
                    key={line.field}
                    className={`border-t border-hair ${line.is_same ? "" : "bg-caution-wash font-semibold"}`}
                  >
                    <td>{line.label}</td>
                    <td className="font-mono">{line.old || "—"}</td>
                    <td className="font-mono">{line.new || "—"}</td>
                    <td className="text-sm">
                      {line.is_same
                        ? replaceWords.same
                        : line.takes_down.join(", ") || replaceWords.nothing}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <OldConductors
            conductors={conductors}
            onConductorsChange={(next) => set({ conductors: next })}
          />
          <Rotation record={record} onRecordChange={set} />
          <div className="grid gap-3 sm:grid-cols-2">
            <Words
              label={replaceWords.heatersOverloadFound}
              value={record.heater}
              onValueChange={(heater) => set({ heater })}
            />
            <label htmlFor={settingsId} className="block">
              <span className="block text-sm text-soft">{replaceWords.settingsDialsTimers}</span>
              <textarea
                id={settingsId}
                className="field"
                value={record.settings ?? ""}
                onChange={(event) => set({ settings: event.target.value })}
              />
            </label>
          </div>
        </div>
      )}
    </JobFrame>
  );
}
