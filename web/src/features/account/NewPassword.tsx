import { type FormEvent, useState } from "react";
import { Link, useLocation } from "react-router";
import { askNewPassword, setNewPassword } from "../../api/account";
import { Words } from "../../components/inputs";
import { Secret } from "../../components/Secret";
import { ProblemSlab } from "../../components/shapes";
import { useTried } from "../../state/useTried";
import { accountWords as w } from "../../words/account";
import { Door } from "./Door";

/** A lost password: a mail is asked for, and by its link a new one is set. */
export function NewPassword() {
  const key = useLocation().hash.slice(1);
  const [mail, setMail] = useState("");
  const [password, setPassword] = useState("");
  const [said, setSaid] = useState("");
  const { problem, isBusy, tried } = useTried();
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const isDone = await tried(async () => {
      await (key ? setNewPassword(key, password) : askNewPassword(mail.trim()));
      return true;
    });
    if (isDone) setSaid(key ? w.set : w.sent);
  };
  return (
    <Door title={w.newPassword}>
      {problem && <ProblemSlab problem={problem} />}
      {said ? (
        <p role="status">{said}</p>
      ) : (
        <form className="space-y-3" onSubmit={(event) => void submit(event)}>
          {key ? (
            <Secret label={w.next} value={password} isNew onValueChange={setPassword} />
          ) : (
            <>
              <Words label={w.askMail} value={mail} onValueChange={setMail} className="w-72" />
              <p className="text-soft">{w.noMail}</p>
            </>
          )}
          <button
            type="submit"
            className="control"
            data-primary="true"
            disabled={isBusy || !(key ? password : mail.trim())}
          >
            {key ? w.setPassword : w.sendMail}
          </button>
        </form>
      )}
      <Link to="/sign-in" className="ask">
        {w.backSignIn}
      </Link>
    </Door>
  );
}
