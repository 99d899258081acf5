import { type FormEvent, useState } from "react";
import { Drawer, Words } from "../../components/inputs";
import { Progress } from "../../components/Progress";
import { Secret } from "../../components/Secret";
import { ProblemSlab, Stop } from "../../components/shapes";
import { erasePlants } from "../../state/onDevice";
import { peopleWords as w } from "../../words/people";
import { usePlantData } from "./usePeople";

const MEGABYTE = 1_000_000;

/** Everything of a plant as one file; and the plant erased, by its name and a password. */
export function PlantData({ works, name }: { works: string; name: string }) {
  const room = usePlantData(works);
  const file = room.files[0];
  return (
    <Drawer name={w.data}>
      <p className="max-w-3xl text-soft">{w.dataSays}</p>
      {room.problem && <ProblemSlab problem={room.problem} />}
      {file?.state === "running" ? (
        <Progress
          said={w.making(file.done, file.total)}
          done={file.done}
          total={Math.max(file.total, 1)}
        />
      ) : (
        <button
          type="button"
          className="control"
          disabled={room.isBusy}
          onClick={() => void room.make()}
        >
          {w.makeFile}
        </button>
      )}
      {file?.state === "failed" && <p className="text-caution">{w.failed}</p>}
      {file?.state === "done" && (
        <p className="flex flex-wrap items-center gap-3">
          <a
            className="control inline-flex"
            href={`/api/w/${works}/takeouts/${file.n}/data.zip`}
            download={`${works} data ${file.n}.zip`}
          >
            {w.download}
          </a>
          <span className="text-soft">
            {w.fileOf(file.by, file.at, (file.size / MEGABYTE).toFixed(1))}
          </span>
        </p>
      )}
      {file?.left.map((text) => (
        <p key={text} className="text-caution">
          {w.leftOut} {text}
        </p>
      ))}
      <Erase name={name} onErase={room.erase} isBusy={room.isBusy} />
    </Drawer>
  );
}

function Erase({
  name,
  isBusy,
  onErase,
}: {
  name: string;
  isBusy: boolean;
  onErase: (name: string, password: string) => Promise<boolean>;
}) {
  const [typed, setTyped] = useState("");
  const [password, setPassword] = useState("");
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const isGone = await onErase(typed, password);
    setPassword("");
    if (!isGone) return;
    await erasePlants();
    // a page of its own: nothing here asks for the plant once more
    window.location.assign("/");
  };
  return (
    <Stop title={w.erase}>
      <p>{w.eraseSays}</p>
      <form className="flex flex-wrap items-end gap-3" onSubmit={(event) => void submit(event)}>
        <Words label={w.eraseName(name)} value={typed} onValueChange={setTyped} className="w-72" />
        <Secret label={w.password} value={password} onValueChange={setPassword} />
        <button
          type="submit"
          className="control"
          disabled={isBusy || typed.trim() !== name || !password}
        >
          {w.eraseNow}
        </button>
      </form>
    </Stop>
  );
}
