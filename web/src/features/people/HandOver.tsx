import { useId, useState } from "react";
import { Drawer } from "../../components/inputs";
import { Select } from "../../components/Select";
import { peopleWords as w } from "../../words/people";
import type { People } from "./usePeople";

type Own = "apprentice" | "electrician" | "reviewer";
const OWN = (["reviewer", "electrician", "apprentice"] as const).map(
  (name) => [name, w.role(name)] as const,
);

/** Another member becomes administrator, and the one who was takes another role. */
export function HandOver({
  members,
  isBusy,
  onHandOver,
}: {
  members: People["members"];
  isBusy: boolean;
  onHandOver: (username: string, role: Own) => void;
}) {
  const [toId, thenId] = [useId(), useId()];
  const others = members.filter((one) => !one.is_me);
  const [to, setTo] = useState("");
  const [own, setOwn] = useState<Own>("reviewer");
  const chosen = others.some((one) => one.username === to) ? to : (others[0]?.username ?? "");
  return (
    <Drawer name={w.handOver}>
      <p className="text-soft">{w.handOverSays}</p>
      <div className="flex flex-wrap items-end gap-3">
        <div>
          <label htmlFor={toId} className="block text-sm text-soft">
            {w.to}
          </label>
          <Select
            id={toId}
            value={chosen}
            options={others.map((one) => [one.username, one.display_name])}
            wide="w-56!"
            onPick={setTo}
          />
        </div>
        <div>
          <label htmlFor={thenId} className="block text-sm text-soft">
            {w.afterwards}
          </label>
          <Select
            id={thenId}
            value={own}
            options={OWN}
            wide="w-44!"
            onPick={(role) => setOwn(role as Own)}
          />
        </div>
        <button
          type="button"
          className="control"
          disabled={isBusy || !chosen}
          onClick={() => onHandOver(chosen, own)}
        >
          {w.handOverNow}
        </button>
      </div>
    </Drawer>
  );
}
