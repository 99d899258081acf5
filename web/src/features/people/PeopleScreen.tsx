import { useState } from "react";
import { Link, useParams } from "react-router";
import { Failure, Waiting } from "../../components/Edges";
import { PlantPage } from "../../components/PlantPage";
import { Select } from "../../components/Select";
import { Sure } from "../../components/Sure";
import { ProblemSlab } from "../../components/shapes";
import { useWorks } from "../../state/session";
import { accountWords as a } from "../../words/account";
import { peopleWords as w } from "../../words/people";
import { HandOver } from "./HandOver";
import { Invitations } from "./Invitations";
import { PlantData } from "./PlantData";
import { type People, type Role, usePeople } from "./usePeople";

const ROLES = w.roles.map((name) => [name, w.role(name)] as const);

/** Who belongs to a plant, as what; for an administrator, everything about it. */
export function PeopleScreen() {
  const { works = "" } = useParams();
  const plant = useWorks(works);
  const room = usePeople(works);
  if (room.list.error) return <Failure error={room.list.error} />;
  if (!room.list.data) return <Waiting />;
  const { members, invites } = room.list.data;
  const isAdmin = plant?.role === "admin";
  return (
    <PlantPage
      works={works}
      title={w.title}
      headline={w.headline(members.length)}
      className="space-y-6"
    >
      {room.problem && <ProblemSlab problem={room.problem} />}
      <section aria-labelledby="members" className="space-y-2">
        <h2 id="members" className="stamp">
          {w.members}
        </h2>
        <p className="max-w-3xl text-soft">{w.rolesSay}</p>
        <ul className="max-w-4xl divide-y divide-hair border-y border-hair" data-testid="members">
          {members.map((one) => (
            <Member
              key={one.username}
              one={one}
              isAdmin={isAdmin}
              isBusy={room.isBusy}
              onRole={(role) => void room.setRole(one.username, role)}
              onRemove={() => void room.remove(one.username)}
            />
          ))}
        </ul>
      </section>
      {isAdmin && (
        <>
          <Invitations
            invites={invites}
            made={room.made}
            isBusy={room.isBusy}
            onInvite={(body) => void room.invite(body)}
            onTakeBack={(n) => void room.takeBack(n)}
          />
          <Programs
            tokens={room.list.data.tokens}
            isBusy={room.isBusy}
            onEnd={(n) => void room.endToken(n)}
          />
          <p>
            <Link className="control inline-flex" to={`/w/${works}/log`}>
              {w.logOf}
            </Link>
          </p>
          <HandOver
            members={members}
            isBusy={room.isBusy}
            onHandOver={(username, role) => void room.handOver(username, role)}
          />
          <PlantData works={works} name={plant.name} />
        </>
      )}
    </PlantPage>
  );
}

/** What programs are let in, and by whom: an administrator may end any. */
function Programs({
  tokens,
  isBusy,
  onEnd,
}: {
  tokens: People["tokens"];
  isBusy: boolean;
  onEnd: (n: number) => void;
}) {
  if (tokens.length === 0) return null;
  return (
    <section aria-labelledby="programs" className="max-w-4xl space-y-2">
      <h2 id="programs" className="stamp">
        {w.programs}
      </h2>
      <ul className="divide-y divide-hair border-y border-hair" data-testid="programs">
        {tokens.map((one) => (
          <li key={one.n} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
            <span className="min-w-48 flex-1">
              <span className="font-semibold">{one.name}</span>{" "}
              <span className="text-soft">{[w.by(one.by), ...a.tokenSays(one)].join(" · ")}</span>
            </span>
            <button
              type="button"
              className="control"
              disabled={isBusy}
              onClick={() => onEnd(one.n)}
            >
              {a.end}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Member({
  one,
  isAdmin,
  isBusy,
  onRole,
  onRemove,
}: {
  one: People["members"][number];
  isAdmin: boolean;
  isBusy: boolean;
  onRole: (role: Role) => void;
  onRemove: () => void;
}) {
  const [isAsked, setAsked] = useState(false);
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-2 py-2">
      <span className="min-w-48 flex-1">
        <span className="font-semibold">{one.display_name}</span>{" "}
        <span className="text-soft">{one.is_me ? w.you : one.username}</span>
      </span>
      {isAdmin ? (
        <>
          <label htmlFor={`role-${one.username}`} className="sr-only">
            {w.roleOf(one.display_name)}
          </label>
          <Select
            id={`role-${one.username}`}
            value={one.role}
            options={ROLES}
            wide="w-44!"
            onPick={(role) => onRole(role as Role)}
          />
          <button
            type="button"
            className={`control ${one.is_me ? "invisible" : ""}`}
            aria-expanded={isAsked}
            onClick={() => setAsked(!isAsked)}
          >
            {w.remove}
          </button>
        </>
      ) : (
        <span>{w.role(one.role)}</span>
      )}
      {isAsked && (
        <Sure
          question={w.removeSure(one.display_name)}
          says={w.removeSays}
          yes={w.yes}
          no={w.no}
          isBusy={isBusy}
          onAnswer={(isSure) => {
            setAsked(false);
            if (isSure) onRemove();
          }}
        />
      )}
    </li>
  );
}
