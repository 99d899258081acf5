import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useId } from "react";
import { Link } from "react-router";
import { api, told } from "../../api/client";
import { Choice, Words } from "../../components/inputs";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { Stop } from "../../components/shapes";
import { useAnswer } from "../../components/useAnswer";
import type { Given } from "../../state/useJob";
import { words } from "../../words/en";

type Record = Given["replace"];
type Conductor = NonNullable<Record["conductors"]>[number];

const TURNS = [
  { value: "clockwise", label: "Clockwise" },
  { value: "counter-clockwise", label: "Counter-clockwise" },
  { value: "unknown", label: "Not seen" },
] as const;
const SIDES = [
  { value: "shaft", label: "shaft end" },
  { value: "fan", label: "fan end" },
] as const;
const SHOUTS = {
  equal: "Rotation proven equal",
  different: "It turns the other way",
  unproven: "Record first, then disconnect",
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
  const query = useQuery({
    queryKey: ["replaced", place.works, record, given?.plate],
    enabled: Boolean(record && given),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/replaced", {
          params: { path: { works: place.works } },
          body: { replace: record as Record, plate: given?.plate as Given["plate"] },
          signal,
        }),
      ),
  });
  const { data: found, slab } = useAnswer(query);
  const conductors = record?.conductors ?? [];
  const setConductor = (at: number, change: Partial<Conductor>) =>
    set({
      conductors: conductors.map((item, place) => (place === at ? { ...item, ...change } : item)),
    });
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
              <Stop strength="hold" title="Still open">
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
                  What the change takes down
                </h2>
                <ul className="flex flex-wrap gap-2">
                  {found.takes_down.map((step) => (
                    <li key={step}>
                      {words.steps[step] ? (
                        <Link className="control" to={`${base}/${step}`}>
                          {words.steps[step]}
                        </Link>
                      ) : (
                        <span>{step === "supply" ? "Supply" : "The driven machine’s speed"}</span>
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
          To the leads
        </Link>
      }
      others={null}
    >
      {record && (
        <div className="space-y-5">
          {slab}
          <div className="metal px-5 pt-4 pb-3">
            <label htmlFor={plateId} className="stamp absolute -top-3 left-5 bg-ground px-2">
              Plate of the old motor
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
                  <th scope="col">Field</th>
                  <th scope="col">Old</th>
                  <th scope="col">New</th>
                  <th scope="col">Takes down</th>
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
                      {line.is_same ? "same" : line.takes_down.join(", ") || "nothing"}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <section aria-labelledby="conductors" className="space-y-2">
            <h2 id="conductors" className="stamp">
              Every conductor before it is moved
            </h2>
            {conductors.map((item, at) => (
              <div
                // biome-ignore lint/suspicious/noArrayIndexKey: rows are edited in place
                key={at}
                className="grid grid-cols-2 gap-2 md:grid-cols-[1fr_1fr_1fr_1fr_auto]"
              >
                <Words
                  label="Conductor"
                  value={item.conductor}
                  onValueChange={(conductor) => setConductor(at, { conductor })}
                />
                <Words
                  label="Was on"
                  value={item.terminal}
                  onValueChange={(terminal) => setConductor(at, { terminal })}
                />
                <Words
                  label="Tag"
                  value={item.tag}
                  onValueChange={(tag) => setConductor(at, { tag })}
                />
                <Words
                  label="Colour"
                  value={item.colour}
                  onValueChange={(colour) => setConductor(at, { colour })}
                />
                <button
                  type="button"
                  className="ask self-end"
                  onClick={() => set({ conductors: conductors.filter((_, other) => other !== at) })}
                >
                  Take out
                </button>
              </div>
            ))}
            <button
              type="button"
              className="control"
              onClick={() =>
                set({
                  conductors: [
                    ...conductors,
                    {
                      conductor: `L${Math.min(conductors.length + 1, 3)}`,
                      terminal: "",
                      tag: "",
                      colour: "",
                    },
                  ],
                })
              }
            >
              Add a conductor
            </button>
          </section>
          <section aria-labelledby="turned" className="space-y-2">
            <h2 id="turned" className="stamp">
              Rotation
            </h2>
            <div className="flex flex-wrap gap-x-6 gap-y-2">
              <Choice
                label="Old motor"
                options={TURNS}
                value={record.rotation ?? "unknown"}
                onValueChange={(rotation) => set({ rotation })}
              />
              <Choice
                label="seen from"
                options={SIDES}
                value={record.seen_from as "shaft" | "fan" | null}
                onValueChange={(seen_from) => set({ seen_from })}
              />
            </div>
            <div className="flex flex-wrap gap-x-6 gap-y-2">
              <Choice
                label="New motor"
                options={TURNS}
                value={record.rotation_after ?? "unknown"}
                onValueChange={(rotation_after) => set({ rotation_after })}
              />
              <Choice
                label="seen from"
                options={SIDES}
                value={record.seen_from_after as "shaft" | "fan" | null}
                onValueChange={(seen_from_after) => set({ seen_from_after })}
              />
            </div>
          </section>
          <div className="grid gap-3 sm:grid-cols-2">
            <Words
              label="Heaters or overload as found"
              value={record.heater}
              onValueChange={(heater) => set({ heater })}
            />
            <label htmlFor={settingsId} className="block">
              <span className="block text-sm text-soft">Settings: dials, timers, relays</span>
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
