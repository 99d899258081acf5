import { type FormEvent, useId, useState } from "react";
import { CopyLine } from "../../components/CopyLine";
import { Words } from "../../components/inputs";
import { Select } from "../../components/Select";
import { Plate } from "../../components/shapes";
import { peopleWords as w } from "../../words/people";
import type { InviteIn, Made, People, Role } from "./usePeople";

const ROLES = w.roles.map((name) => [name, w.role(name)] as const);
const MOST_DAYS = 30;

/** Links that let one person in, once: made, shown, taken back. */
export function Invitations({
  invites,
  made,
  isBusy,
  onInvite,
  onTakeBack,
}: {
  invites: People["invites"];
  made: Made | null;
  isBusy: boolean;
  onInvite: (body: InviteIn) => void;
  onTakeBack: (n: number) => void;
}) {
  const roleId = useId();
  const [role, setRole] = useState<Role>("electrician");
  const [whom, setWhom] = useState("");
  const [email, setEmail] = useState("");
  const [days, setDays] = useState("7");
  const holds = Number(days);
  const isDays = Number.isInteger(holds) && holds >= 1 && holds <= MOST_DAYS;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (isDays) onInvite({ role, whom: whom.trim(), email: email.trim(), days: holds });
  };
  return (
    <section aria-labelledby="invite" className="max-w-4xl space-y-3">
      <h2 id="invite" className="stamp">
        {w.invite}
      </h2>
      <p className="text-soft">{w.inviteSays}</p>
      <form className="flex flex-wrap items-end gap-3" onSubmit={submit}>
        <Words label={w.whom} value={whom} onValueChange={setWhom} className="w-52" />
        <div>
          <label htmlFor={roleId} className="block text-sm text-soft">
            {w.as}
          </label>
          <Select
            id={roleId}
            value={role}
            options={ROLES}
            wide="w-44!"
            onPick={(next) => setRole(next as Role)}
          />
        </div>
        <Words label={w.mail} value={email} onValueChange={setEmail} className="w-60" />
        <Words label={w.days} value={days} isNumber onValueChange={setDays} className="w-28" />
        <button type="submit" className="control" disabled={isBusy || !isDays}>
          {w.makeLink}
        </button>
      </form>
      {made && (
        <Plate>
          <p className="font-semibold">{w.linkFor(made.whom, w.role(made.role))}</p>
          <CopyLine
            key={made.link}
            label={w.linkFor(made.whom, w.role(made.role))}
            text={made.link}
            copy={w.copy}
            copied={w.copied}
          />
          <p className="text-soft">
            {w.linkOnce} {made.mailedTo && w.mailed(made.mailedTo)}
          </p>
        </Plate>
      )}
      {invites.length > 0 && (
        <>
          <h3 className="stamp">{w.invitations}</h3>
          <ul className="divide-y divide-hair border-y border-hair" data-testid="invites">
            {invites.map((one) => (
              <li key={one.n} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
                <span className="min-w-48 flex-1">
                  <span className="font-semibold">{one.whom || w.somebody}</span>{" "}
                  <span className="text-soft">
                    {[
                      w.role(one.role),
                      one.by && w.by(one.by),
                      one.state === "used" ? w.usedBy(one.used_by) : w.until(one.ends),
                    ]
                      .filter(Boolean)
                      .join(" · ")}
                  </span>
                </span>
                <span>{w.stateOf[one.state]}</span>
                {one.state === "open" && (
                  <button
                    type="button"
                    className="control"
                    disabled={isBusy}
                    onClick={() => onTakeBack(one.n)}
                  >
                    {w.takeBack}
                  </button>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
