import { type FormEvent, useEffect, useState } from "react";
import { Link } from "react-router";
import { Failure, Waiting } from "../../components/Edges";
import { Words } from "../../components/inputs";
import { Secret } from "../../components/Secret";
import { Sure } from "../../components/Sure";
import { ProblemSlab, Shout } from "../../components/shapes";
import { TopBar } from "../../components/TopBar";
import { useSession } from "../../state/session";
import { accountWords as w } from "../../words/account";
import { frameWords } from "../../words/frame";
import { peopleWords } from "../../words/people";
import { Passkeys } from "./Passkeys";
import { Tokens } from "./Tokens";
import { type Room, useAccount } from "./useAccount";

/** One's own account: nobody else sees it, and nobody else changes it. */
export function Account() {
  const room = useAccount();
  const session = useSession();
  useEffect(() => {
    document.title = frameWords.pageTitle(w.title);
  }, []);
  const me = room.me.data;
  if (room.me.error) return <Failure error={room.me.error} />;
  if (!me || !session.data) return <Waiting />;
  const works = session.data.works ?? [];
  const first = works[0];
  return (
    <>
      <TopBar
        crumbs={[
          ...(first ? [{ name: first.name, to: `/w/${first.slug}` }] : []),
          { name: w.title },
        ]}
        who={me.display_name || me.username}
        line={room.done}
        onHelp={() => undefined}
      />
      <main id="content" className="mx-auto max-w-4xl space-y-6 px-4 pt-4 pb-24">
        <Shout>{w.title}</Shout>
        <p className="text-soft">{w.signedInAs(me.username)}</p>
        {room.problem && <ProblemSlab problem={room.problem} />}
        <Own
          key={`${me.display_name} ${me.email}`}
          room={room}
          name={me.display_name}
          mail={me.email}
        />
        <section aria-labelledby="plants" className="space-y-2">
          <h2 id="plants" className="stamp">
            {w.plants}
          </h2>
          <ul className="divide-y divide-hair border-y border-hair">
            {works.map((one) => (
              <Plant
                key={one.slug}
                slug={one.slug}
                name={one.name}
                role={peopleWords.role(one.role)}
                isBusy={room.isBusy}
                onLeave={() => void room.leave(one.slug)}
              />
            ))}
          </ul>
        </section>
        <Password room={room} />
        <Passkeys room={room} />
        <Sessions room={room} />
        {works.length > 0 && <Tokens room={room} me={me} works={works} />}
      </main>
    </>
  );
}

function Own({ room, name, mail }: { room: Room; name: string; mail: string }) {
  const [typed, setTyped] = useState(name);
  const [address, setAddress] = useState(mail);
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void room.keep({ ...(typed.trim() && { display_name: typed.trim() }), email: address });
      }}
    >
      <Words label={w.name} value={typed} onValueChange={setTyped} className="w-64" />
      <Words label={w.mail} value={address} onValueChange={setAddress} className="w-72" />
      <button type="submit" className="control" disabled={room.isBusy}>
        {w.keep}
      </button>
    </form>
  );
}

function Plant({
  slug,
  name,
  role,
  isBusy,
  onLeave,
}: {
  slug: string;
  name: string;
  role: string;
  isBusy: boolean;
  onLeave: () => void;
}) {
  const [isAsked, setAsked] = useState(false);
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-2 py-2">
      <span className="min-w-48 flex-1">
        <Link className="ask" to={`/w/${slug}`}>
          {name}
        </Link>{" "}
        <span className="text-soft">{role}</span>
      </span>
      <button
        type="button"
        className="control"
        aria-expanded={isAsked}
        onClick={() => setAsked(!isAsked)}
      >
        {w.leave}
      </button>
      {isAsked && (
        <Sure
          question={w.leaveSure(name)}
          says={w.leaveSays}
          yes={w.yesLeave}
          no={w.no}
          isBusy={isBusy}
          onAnswer={(isSure) => {
            setAsked(false);
            if (isSure) onLeave();
          }}
        />
      )}
    </li>
  );
}

function Password({ room }: { room: Room }) {
  const [current, setCurrent] = useState("");
  const [next, setNext] = useState("");
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (await room.changePassword(current, next)) {
      setCurrent("");
      setNext("");
    }
  };
  return (
    <section aria-labelledby="password" className="space-y-2">
      <h2 id="password" className="stamp">
        {w.password}
      </h2>
      <form className="flex flex-wrap items-end gap-3" onSubmit={(event) => void submit(event)}>
        <Secret label={w.current} value={current} onValueChange={setCurrent} />
        <Secret label={w.next} value={next} isNew onValueChange={setNext} />
        <button type="submit" className="control" disabled={room.isBusy || !current || !next}>
          {w.change}
        </button>
      </form>
    </section>
  );
}

const MS = 1000;
const day = (seconds: number) => new Date(seconds * MS).toLocaleDateString("en-CA");

function Sessions({ room }: { room: Room }) {
  const others = room.open.filter((one) => !one.is_current);
  return (
    <section aria-labelledby="sessions" className="space-y-2">
      <h2 id="sessions" className="stamp">
        {w.sessions}
      </h2>
      <ul className="divide-y divide-hair border-y border-hair" data-testid="sessions">
        {room.open.map((one) => (
          <li key={one.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
            <span className="min-w-48 flex-1 break-words">
              {w.device(one.user_agent)}{" "}
              <span className="text-soft">
                {one.ip} · {w.since(day(one.created_at))}
              </span>
            </span>
            {one.is_current ? (
              <span className="font-semibold">{w.hereNow}</span>
            ) : (
              <button
                type="button"
                className="control"
                disabled={room.isBusy}
                onClick={() => void room.endSessions([one.id])}
              >
                {w.end}
              </button>
            )}
          </li>
        ))}
      </ul>
      {others.length > 1 && (
        <button
          type="button"
          className="control"
          disabled={room.isBusy}
          onClick={() => void room.endSessions(others.map((one) => one.id))}
        >
          {w.endOthers}
        </button>
      )}
    </section>
  );
}
