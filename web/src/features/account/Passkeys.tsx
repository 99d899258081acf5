import { useState } from "react";
import { Words } from "../../components/inputs";
import { Secret } from "../../components/Secret";
import { accountWords as w } from "../../words/account";
import type { Room } from "./useAccount";

const MS = 1000;

/** Keys on one's devices that sign in without a password. */
export function Passkeys({ room }: { room: Room }) {
  const [name, setName] = useState<string>(w.thisDevice);
  const [password, setPassword] = useState("");
  return (
    <section aria-labelledby="passkeys" className="space-y-2">
      <h2 id="passkeys" className="stamp">
        {w.passkeys}
      </h2>
      <p className="text-soft">{room.hasPasskeys ? w.passkeysSay : w.noPasskeys}</p>
      {room.keys.length > 0 && (
        <ul className="divide-y divide-hair border-y border-hair" data-testid="passkeys">
          {room.keys.map((one) => (
            <li key={one.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
              <span className="min-w-48 flex-1">
                <span className="font-semibold">{one.name}</span>{" "}
                <span className="text-soft">
                  {one.last_used_at
                    ? w.lastUsed(new Date(one.last_used_at * MS).toLocaleDateString("en-CA"))
                    : w.neverUsed}
                </span>
              </span>
              <button
                type="button"
                className="control"
                disabled={room.isBusy || !password}
                onClick={() => void room.dropPasskey(one.id, password)}
              >
                {w.drop}
              </button>
            </li>
          ))}
        </ul>
      )}
      {room.hasPasskeys && (
        <form
          className="flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            void room.addPasskey(name.trim() || w.thisDevice, password);
          }}
        >
          <Words label={w.passkeyName} value={name} onValueChange={setName} className="w-52" />
          <Secret label={w.again} value={password} onValueChange={setPassword} />
          <button type="submit" className="control" disabled={room.isBusy || !password}>
            {w.addPasskey}
          </button>
        </form>
      )}
    </section>
  );
}
