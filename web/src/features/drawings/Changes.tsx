import { useMutation, useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { api, Refused, type Schemas, told } from "../../api/client";
import { Working } from "../../components/Edges";
import { Words } from "../../components/inputs";
import { ProblemSlab, Tag } from "../../components/shapes";
import type { Circuit } from "../../diagram/useCircuit";
import type { Given } from "../../state/useJob";
import { drawingsWords } from "../../words/drawings";
import { type Edit, type Starter, withEdits, withoutEdit } from "./edits";
import { TerminalPicker } from "./TerminalPicker";

type Library = Schemas["DeviceTypeOut"];

/** Lead a new wire; in a panel as found one end may be unknown. */
function NewWire({
  circuit,
  onEdit,
}: {
  circuit: Circuit;
  onEdit: (edit: Partial<Edit>, why: string) => void;
}) {
  const [start, setStart] = useState("");
  const [end, setEnd] = useState("");
  const [number, setNumber] = useState("");
  const [why, setWhy] = useState("");
  return (
    <fieldset className="grid gap-2 sm:grid-cols-2">
      <legend className="stamp mb-1 text-soft">{drawingsWords.wire}</legend>
      <TerminalPicker
        circuit={circuit}
        label={drawingsWords.from}
        value={start}
        onValueChange={setStart}
      />
      <TerminalPicker
        circuit={circuit}
        label={drawingsWords.to}
        value={end}
        onValueChange={setEnd}
        unknown={drawingsWords.notTraced}
      />
      <Words label={drawingsWords.numberFerrule} value={number} onValueChange={setNumber} />
      <Words label={drawingsWords.reasonHowWas} value={why} onValueChange={setWhy} />
      <button
        type="button"
        className="control sm:col-span-2"
        onClick={() => {
          if (!start) return;
          onEdit({ kind: "add_wire", start, end, tag: number.trim() }, why);
          setEnd("");
          setNumber("");
        }}
      >
        {start ? drawingsWords.addWire : drawingsWords.addWireChoose}
      </button>
    </fieldset>
  );
}

/** One thing printed on a device: typed, or one of the words it takes. */
function Setting({
  setting,
  value,
  onValueChange,
}: {
  setting: Library["settings"][number];
  value: string;
  onValueChange: (value: string) => void;
}) {
  const id = useId();
  const label = `${setting.label}${setting.unit ? `, ${setting.unit}` : ""}`;
  if (!setting.form.includes("|")) {
    return (
      <Words
        label={label}
        value={value}
        onValueChange={onValueChange}
        placeholder={setting.default}
      />
    );
  }
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="block text-sm text-soft">
        {label}
      </label>
      <select
        id={id}
        className="field"
        value={value || setting.default}
        onChange={(event) => onValueChange(event.target.value)}
      >
        {setting.form.split("|").map((word) => (
          <option key={word} value={word}>
            {word}
          </option>
        ))}
      </select>
    </div>
  );
}

/** Put a device in, with what is printed on it. */
function NewDevice({
  library,
  onEdit,
}: {
  library: readonly Library[];
  onEdit: (edit: Partial<Edit>, why: string) => void;
}) {
  const id = useId();
  const [type, setType] = useState("contactor");
  const [tag, setTag] = useState("");
  const [given, setGiven] = useState<Record<string, string>>({});
  const kind = library.find((one) => one.type === type);
  return (
    <fieldset className="grid gap-2 sm:grid-cols-2">
      <legend className="stamp mb-1 text-soft">{drawingsWords.newDevice}</legend>
      <div className="min-w-0">
        <label htmlFor={id} className="block text-sm text-soft">
          {drawingsWords.type}
        </label>
        <select
          id={id}
          className="field"
          value={type}
          onChange={(event) => {
            setType(event.target.value);
            setGiven({});
          }}
        >
          {[...library]
            .sort((one, other) => one.label.localeCompare(other.label))
            .map((one) => (
              <option key={one.type} value={one.type}>
                {one.label}
              </option>
            ))}
        </select>
      </div>
      <Words
        label={drawingsWords.tag}
        value={tag}
        onValueChange={setTag}
        placeholder={kind ? `${kind.letters}1` : ""}
      />
      {kind?.settings
        .filter((one) => one.form !== "tag")
        .map((one) => (
          <Setting
            key={one.name}
            setting={one}
            value={given[one.name] ?? ""}
            onValueChange={(value) => setGiven((now) => ({ ...now, [one.name]: value }))}
          />
        ))}
      <button
        type="button"
        className="control sm:col-span-2"
        onClick={() => {
          const parameters = Object.fromEntries(
            Object.entries(given).filter(([, value]) => value.trim() !== ""),
          );
          onEdit(
            { kind: "add_device", type, tag: tag.trim() || `${kind?.letters}1`, parameters },
            "",
          );
          setTag("");
        }}
      >
        {drawingsWords.addDevice}
      </button>
    </fieldset>
  );
}

/** Another tag, a setting, or out of the drawing. */
function OldDevice({
  circuit,
  library,
  onEdit,
}: {
  circuit: Circuit;
  library: readonly Library[];
  onEdit: (edit: Partial<Edit>, why: string) => void;
}) {
  const [device, setDevice] = useState("");
  const [name, setName] = useState("");
  const [value, setValue] = useState("");
  const ids = [useId(), useId()];
  const chosen = circuit.devices.find((one) => one.id === device);
  const settings = library.find((one) => one.type === chosen?.type)?.settings ?? [];
  return (
    <fieldset className="grid gap-2 sm:grid-cols-2">
      <legend className="stamp mb-1 text-soft">{drawingsWords.existingDevice}</legend>
      <div className="min-w-0">
        <label htmlFor={ids[0]} className="block text-sm text-soft">
          {drawingsWords.device}
        </label>
        <select
          id={ids[0]}
          className="field font-mono"
          value={device}
          onChange={(event) => setDevice(event.target.value)}
        >
          <option value="">{drawingsWords.chooseDevice}</option>
          {circuit.devices.map((one) => (
            <option key={one.id} value={one.id}>
              {one.tag}
            </option>
          ))}
        </select>
      </div>
      <div className="min-w-0">
        <label htmlFor={ids[1]} className="block text-sm text-soft">
          {drawingsWords.setting}
        </label>
        <select
          id={ids[1]}
          className="field"
          value={name}
          onChange={(event) => setName(event.target.value)}
        >
          <option value="">{drawingsWords.tag2}</option>
          {settings.map((one) => (
            <option key={one.name} value={one.name}>
              {one.label}
              {one.unit && `, ${one.unit}`}
            </option>
          ))}
        </select>
      </div>
      <Words label={drawingsWords.newValue} value={value} onValueChange={setValue} />
      <div className="flex flex-wrap items-end gap-2">
        <button
          type="button"
          className="control"
          onClick={() => {
            if (!device || (!name && !value.trim())) return;
            onEdit(
              name
                ? { kind: "set", device, parameters: { [name]: value.trim() } }
                : { kind: "tag", device, tag: value.trim() },
              "",
            );
          }}
        >
          {drawingsWords.set}
        </button>
        <button
          type="button"
          className="control"
          onClick={() => device && onEdit({ kind: "remove_device", device }, "")}
        >
          {drawingsWords.removeDevice}
        </button>
      </div>
    </fieldset>
  );
}

/** Which circuit of the catalogue this is nearest to. */
function Nearest({ works, given }: { works: string; given: Given }) {
  const query = useQuery({
    queryKey: ["nearest", works, given],
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/nearest", { params: { path: { works } }, body: given, signal }),
      ),
  });
  if (!query.data) return <Working query={query} />;
  return (
    <ol className="space-y-2" data-testid="nearest">
      {query.data.map((one, place) => (
        <li key={one.id} className={`border-l-8 px-4 ${place ? "border-hair" : "border-plum"}`}>
          <p>
            <span className="font-mono text-soft">{one.id}</span> <b>{one.title}</b>{" "}
            <span className="stamp text-soft">
              {one.score === 0
                ? drawingsWords.sameCircuit
                : `${one.score} ${one.score === 1 ? "difference" : "differences"}`}
            </span>
          </p>
          {place === 0 && (
            <ul className="text-sm">
              {one.differences.map((text) => (
                <li key={text}>{text}</li>
              ))}
            </ul>
          )}
        </li>
      ))}
    </ol>
  );
}

/** A netlist written by hand or by another copy of this program, as changes of an empty panel. */
function FromText({ works, onTake }: { works: string; onTake: (edits: Partial<Edit>[]) => void }) {
  const id = useId();
  const [text, setText] = useState("");
  const read = useMutation({
    mutationFn: () =>
      told(api.POST("/api/w/{works}/netlist", { params: { path: { works } }, body: { text } })),
    onSuccess: (edits) => {
      onTake(edits as Partial<Edit>[]);
      setText("");
    },
  });
  return (
    <div className="space-y-2">
      <label htmlFor={id} className="stamp text-soft">
        {drawingsWords.pasteNetlist}
      </label>
      <textarea
        id={id}
        className="field h-32 w-full font-mono text-sm"
        value={text}
        placeholder={drawingsWords.devicesSPb}
        onChange={(event) => setText(event.target.value)}
      />
      {read.error instanceof Refused && <ProblemSlab problem={read.error.problem} />}
      <button type="button" className="control" onClick={() => text.trim() && read.mutate()}>
        {drawingsWords.useNetlist}
      </button>
    </div>
  );
}

/** What was changed by whom and why, what differs from the recipe, and every way to change more. */
export function Changes({
  works,
  given,
  circuit,
  library,
  onChange,
}: {
  works: string;
  given: Given;
  circuit: Circuit;
  library: readonly Library[];
  onChange: (starter: Starter) => void;
}) {
  const { starter } = given;
  const edits = starter.edits ?? [];
  const isFound = starter.recipe === "found";
  const stale = new Map(circuit.stale.map((one) => [one.id, one.reason]));
  const add = (edit: Partial<Edit>, why: string) => onChange(withEdits(starter, [edit], why));
  return (
    <div className="space-y-6" data-testid="changes">
      <section aria-labelledby="differs" className="space-y-2">
        <h2 id="differs" className="stamp text-soft">
          {isFound ? drawingsWords.tracedSoFar : drawingsWords.differencesFromStandard}
        </h2>
        {circuit.changes.length === 0 ? (
          <p>{isFound ? drawingsWords.nothingTracedYet : drawingsWords.drawnStandardCircuit}</p>
        ) : (
          <ul className="text-sm" data-testid="differences">
            {circuit.changes.map((one) => (
              <li key={`${one.what} ${one.on} ${one.text}`}>{one.text}</li>
            ))}
          </ul>
        )}
        {edits.length > 0 && (
          <>
            <div className="flex flex-wrap gap-2">
              <button
                type="button"
                className="control"
                onClick={() => onChange(withoutEdit(starter))}
              >
                {drawingsWords.undoLastEdit}
              </button>
              <button
                type="button"
                className="control"
                onClick={() => onChange({ ...starter, edits: [] })}
              >
                {isFound ? drawingsWords.startFromEmpty : drawingsWords.backStandardCircuit}
              </button>
            </div>
            <ol className="space-y-1">
              {edits.map((edit) => (
                <li key={edit.id} className="flex flex-wrap items-baseline gap-x-3">
                  <span className="font-mono text-sm">{edit.kind.replace("_", " ")}</span>
                  {edit.by && (
                    <Tag who={edit.by} when={(edit.at ?? "").slice(0, 16).replace("T", " ")} />
                  )}
                  {edit.why && <span>{edit.why}</span>}
                  {stale.has(edit.id) && (
                    <span className="text-caution">
                      {drawingsWords.noLongerApplies(stale.get(edit.id) ?? "")}
                    </span>
                  )}
                  <button
                    type="button"
                    className="ask"
                    onClick={() => onChange(withoutEdit(starter, edit.id))}
                  >
                    {drawingsWords.undo}
                  </button>
                </li>
              ))}
            </ol>
          </>
        )}
      </section>
      <NewWire circuit={circuit} onEdit={add} />
      <NewDevice library={library} onEdit={add} />
      <OldDevice circuit={circuit} library={library} onEdit={add} />
      {isFound && (
        <FromText
          works={works}
          onTake={(found) => onChange({ ...withEdits({ ...starter, edits: [] }, found) })}
        />
      )}
      {(isFound || edits.length > 0) && (
        <section aria-labelledby="nearest" className="space-y-2">
          <h2 id="nearest" className="stamp text-soft">
            {drawingsWords.nearestStandardCircuits}
          </h2>
          <Nearest works={works} given={given} />
        </section>
      )}
    </div>
  );
}
