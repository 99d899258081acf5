import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link, useLocation, useNavigate } from "react-router";
import { api, Refused, type Schemas, told } from "../../api/client";
import { Words } from "../../components/inputs";
import { Secret } from "../../components/Secret";
import { Plate, ProblemSlab } from "../../components/shapes";
import { erasePlants } from "../../state/onDevice";
import { useTried } from "../../state/useTried";
import { accountWords as w } from "../../words/account";
import { peopleWords } from "../../words/people";
import { Door } from "./Door";

/** An invitation taken up: the link's secret stands behind its #, which no server's log sees. */
export function Join() {
  const location = useLocation();
  const secret = location.hash.slice(1);
  const client = useQueryClient();
  const navigate = useNavigate();
  const { problem, isBusy, tried } = useTried();
  const link = useQuery({
    queryKey: ["join", secret],
    enabled: secret !== "",
    retry: false,
    queryFn: () => told(api.POST("/api/join/look", { body: { token: secret } })),
  });
  const join = async (more: Omit<Schemas["JoinIn"], "token">) => {
    const joined = await tried(() =>
      told(api.POST("/api/join", { body: { ...more, token: secret } })),
    );
    if (!joined) return;
    await erasePlants();
    client.clear();
    navigate(`/w/${joined.slug}`, { replace: true });
  };
  const found = link.data;
  return (
    <Door title={found ? w.invited(found.by, found.works, peopleWords.role(found.role)) : w.join}>
      {!secret && <p>{w.noLink}</p>}
      {link.error instanceof Refused && <ProblemSlab problem={link.error.problem} />}
      {problem && <ProblemSlab problem={problem} />}
      {found && <p className="text-soft">{w.linkHolds(found.ends)}</p>}
      {found?.is_member && (
        <p className="space-y-2">
          {w.isMember}{" "}
          <Link to="/" className="control inline-flex">
            {w.toPlant}
          </Link>
        </p>
      )}
      {found && !found.is_member && found.signed_in && (
        <div className="space-y-2">
          <button
            type="button"
            className="control text-lg"
            data-primary="true"
            disabled={isBusy}
            onClick={() => void join({ email: "" })}
          >
            {w.joinAs(found.signed_in)}
          </button>
          <p className="text-soft">{w.notYou}</p>
        </div>
      )}
      {found && !found.signed_in && (
        <>
          <NewAccount isBusy={isBusy} onJoin={(more) => void join(more)} />
          <Link
            className="ask"
            to="/sign-in"
            state={{ from: `${location.pathname}${location.hash}` }}
          >
            {w.haveAccount}
          </Link>
        </>
      )}
    </Door>
  );
}

function NewAccount({
  isBusy,
  onJoin,
}: {
  isBusy: boolean;
  onJoin: (more: Omit<Schemas["JoinIn"], "token">) => void;
}) {
  const [username, setUsername] = useState("");
  const [name, setName] = useState("");
  const [mail, setMail] = useState("");
  const [password, setPassword] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onJoin({ username, display_name: name, email: mail.trim(), password });
  };
  return (
    <Plate className="px-6 py-5">
      <form className="space-y-3" onSubmit={submit}>
        <h2 className="stamp">{w.newAccount}</h2>
        <Words label={w.name} value={name} onValueChange={setName} />
        <Words
          label={`${w.signInName} (${w.signInNameSays})`}
          value={username}
          onValueChange={setUsername}
        />
        <Words label={w.mail} value={mail} onValueChange={setMail} />
        <Secret
          label={w.password}
          value={password}
          isNew
          onValueChange={setPassword}
          className=""
        />
        <button
          type="submit"
          className="control text-lg"
          data-primary="true"
          disabled={isBusy || !username.trim() || !name.trim() || !password}
        >
          {w.joinNow}
        </button>
      </form>
    </Plate>
  );
}
