import { type FormEvent, useId, useState } from "react";
import { useNavigate } from "react-router";
import { Refused } from "../../api/client";
import { Sheet } from "../../components/Sheet";
import { ProblemSlab } from "../../components/shapes";
import { yardWords } from "../../words/yard";
import type { useMotors } from "./useMotors";

export interface IntakeProps {
  works: string;
  machines: readonly string[];
  yard: ReturnType<typeof useMotors>;
  mode: "add" | "import" | null;
  onClose: () => void;
}

function placeUrl(place: { works: string; tag: string; job: number }) {
  return `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.job}/plate`;
}

/** A motor comes in: by its tag, or as a job file. */
export function Intake({ works, machines, yard, mode, onClose }: IntakeProps) {
  const navigate = useNavigate();
  const [tagId, nameId, machineId, panelId, fileId, newTagId, listId] = [
    useId(),
    useId(),
    useId(),
    useId(),
    useId(),
    useId(),
    useId(),
  ];
  const [file, setFile] = useState("");
  const [asTag, setAsTag] = useState("");
  const { add, takeOver } = yard;
  const close = () => {
    add.reset();
    takeOver.reset();
    setFile("");
    setAsTag("");
    onClose();
  };
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const machine = String(form.get("machine")).trim();
    add.mutate(
      {
        tag: String(form.get("tag")).trim(),
        name: String(form.get("name")).trim(),
        machine: machine || yardWords.notPlacedYet,
        panel: String(form.get("panel")).trim(),
      },
      { onSuccess: (place) => navigate(placeUrl(place)) },
    );
  };
  const send = (text: string, tag: string) =>
    takeOver.mutate(
      { file: text, as_tag: tag || null },
      { onSuccess: (place) => navigate(placeUrl(place)) },
    );
  const problem = (error: unknown) => (error instanceof Refused ? error.problem : null);
  const wrong = problem(mode === "add" ? add.error : takeOver.error);
  return (
    <Sheet
      isOpen={mode !== null}
      onOpenChange={(isOpen) => !isOpen && close()}
      title={mode === "import" ? yardWords.importJobFile : yardWords.newMotor}
    >
      <div className="space-y-4" data-works={works}>
        {wrong && (
          <ProblemSlab problem={wrong}>
            {wrong.field && <p className="font-mono text-sm">{wrong.field}</p>}
          </ProblemSlab>
        )}
        {mode === "add" ? (
          <form className="space-y-3" onSubmit={submit}>
            <div>
              <label htmlFor={tagId} className="font-semibold">
                {yardWords.tagMotor}
              </label>
              <input
                id={tagId}
                name="tag"
                className="field text-lg"
                required
                maxLength={40}
                autoComplete="off"
              />
            </div>
            <div>
              <label htmlFor={nameId} className="font-semibold">
                {yardWords.whatDrives}
              </label>
              <input id={nameId} name="name" className="field" maxLength={200} autoComplete="off" />
            </div>
            <div>
              <label htmlFor={machineId} className="font-semibold">
                {yardWords.machineLine}
              </label>
              <input
                id={machineId}
                name="machine"
                className="field"
                maxLength={120}
                list={listId}
                autoComplete="off"
              />
              <datalist id={listId}>
                {machines.map((name) => (
                  <option key={name} value={name} />
                ))}
              </datalist>
            </div>
            <div>
              <label htmlFor={panelId} className="font-semibold">
                {yardWords.panelThatFeeds}
              </label>
              <input
                id={panelId}
                name="panel"
                className="field"
                maxLength={120}
                autoComplete="off"
              />
            </div>
            <button type="submit" className="control" data-primary="true">
              {yardWords.addReadNameplate}
            </button>
          </form>
        ) : (
          <div className="space-y-3">
            <label htmlFor={fileId} className="block font-semibold">
              {yardWords.jobFileJson}
            </label>
            <input
              id={fileId}
              type="file"
              accept="application/json,.json"
              className="field py-1.5"
              onChange={async (event) => {
                const chosen = event.target.files?.[0];
                if (!chosen) return;
                const text = await chosen.text();
                setFile(text);
                send(text, "");
              }}
            />
            {wrong?.code === "tag_taken" && (
              <div className="space-y-2">
                <label htmlFor={newTagId} className="block font-semibold">
                  {yardWords.importUnderAnother}
                </label>
                <input
                  id={newTagId}
                  className="field"
                  value={asTag}
                  onChange={(event) => setAsTag(event.target.value)}
                />
                <button type="button" className="control" onClick={() => send(file, asTag.trim())}>
                  {yardWords.importWord(asTag || "…")}
                </button>
              </div>
            )}
            <p className="text-soft">{yardWords.fileMotorAlready}</p>
          </div>
        )}
      </div>
    </Sheet>
  );
}
