import { type FormEvent, useId, useState } from "react";
import type { Schemas } from "../../api/client";
import { CopyLine } from "../../components/CopyLine";
import { Tick, Words } from "../../components/inputs";
import { Select } from "../../components/Select";
import { Plate } from "../../components/shapes";
import { accountWords as w } from "../../words/account";
import type { Me, Room } from "./useAccount";

const MOST_DAYS = 366;

/** What lets programs in as oneself: made, shown once, ended. */
export function Tokens({
  room,
  me,
  works,
}: {
  room: Room;
  me: Me;
  works: readonly Schemas["WorksOut"][];
}) {
  const id = useId();
  const [name, setName] = useState("");
  const [plant, setPlant] = useState(works[0]?.slug ?? "");
  const [isWriting, setWriting] = useState(false);
  const [days, setDays] = useState("90");
  const holds = Number(days);
  const isGood = name.trim() && Number.isInteger(holds) && holds >= 1 && holds <= MOST_DAYS;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (isGood)
      void room.makeToken(plant, { name: name.trim(), is_writing: isWriting, days: holds });
  };
  return (
    <section aria-labelledby="tokens" className="space-y-2">
      <h2 id="tokens" className="stamp">
        {w.tokens}
      </h2>
      <p className="text-soft">
        {w.tokensSay}{" "}
        <a className="ask" href="/api/docs">
          {w.apiPage}
        </a>
      </p>
      {me.tokens.length > 0 && (
        <ul className="divide-y divide-hair border-y border-hair" data-testid="tokens">
          {me.tokens.map((one) => (
            <li key={one.n} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
              <span className="min-w-48 flex-1">
                <span className="font-semibold">{one.name}</span>{" "}
                <span className="text-soft">{[one.works, ...w.tokenSays(one)].join(" · ")}</span>
              </span>
              <button
                type="button"
                className="control"
                disabled={room.isBusy}
                onClick={() => void room.endToken(one.slug, one.n)}
              >
                {w.end}
              </button>
            </li>
          ))}
        </ul>
      )}
      {room.token && (
        <Plate>
          <p className="font-semibold">{w.tokenOnce}</p>
          <CopyLine
            key={room.token}
            label={w.tokenOnce}
            text={room.token}
            copy={w.copy}
            copied={w.copied}
          />
        </Plate>
      )}
      <form className="flex flex-wrap items-end gap-3" onSubmit={submit}>
        <Words label={w.tokenName} value={name} onValueChange={setName} className="w-52" />
        <div>
          <label htmlFor={id} className="block text-sm text-soft">
            {w.plant}
          </label>
          <Select
            id={id}
            value={plant}
            options={works.map((one) => [one.slug, one.name])}
            wide="w-56!"
            onPick={setPlant}
          />
        </div>
        <Words label={w.holds} value={days} isNumber onValueChange={setDays} className="w-28" />
        <Tick isOn={isWriting} onChange={setWriting} className="pb-2">
          <span>{w.mayChange}</span>
        </Tick>
        <button type="submit" className="control" disabled={room.isBusy || !isGood}>
          {w.makeToken}
        </button>
      </form>
    </section>
  );
}
