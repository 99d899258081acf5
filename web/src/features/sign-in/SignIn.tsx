import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useEffect, useId, useState } from "react";
import { Link, useLocation, useNavigate } from "react-router";
import { canHavePasskeys, signInByPasskey } from "../../api/account";
import { Refused, signIn } from "../../api/client";
import { Plate, ProblemSlab, Shout } from "../../components/shapes";
import { erasePlants } from "../../state/onDevice";
import { useDemo } from "../../state/session";
import { signInWords } from "../../words/signIn";
import { asRefused } from "../account/useAccount";

/** Who are you? A name and a password, pasted if you like; no puzzle. */
export function SignIn() {
  const [refused, setRefused] = useState<Refused | null>(null);
  const [isBusy, setBusy] = useState(false);
  const client = useQueryClient();
  const navigate = useNavigate();
  const location = useLocation();
  const [nameId, wordId] = [useId(), useId()];
  useEffect(() => {
    document.title = signInWords.signEvenCoil;
  }, []);
  const demo = useDemo();
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    void enter(() => signIn(String(form.get("username")), String(form.get("password"))));
  };
  const byPasskey = () =>
    enter(() =>
      signInByPasskey().catch((lost: unknown) => {
        throw asRefused(lost);
      }),
    );
  const enter = async (asked: () => Promise<void>) => {
    setBusy(true);
    try {
      await asked();
      // whoever was here before, nothing of what was shown to them is shown now
      await erasePlants();
      client.clear();
      navigate((location.state as { from?: string } | null)?.from ?? "/", { replace: true });
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      setRefused(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <main className="mx-auto grid min-h-dvh max-w-5xl content-center gap-8 px-4 py-10 md:grid-cols-2">
      <div className="space-y-4">
        <p className="font-headline text-3xl font-bold tracking-wide text-plum uppercase">
          {signInWords.evenCoil}
        </p>
        <svg viewBox="0 0 440 130" className="w-full max-w-md" aria-hidden="true">
          {Array.from({ length: 12 }, (_, place) => {
            const x = 8 + place * 35.4;
            const path = `M${x} 104V58a15 24 0 0 1 30 0V104`;
            return (
              <path
                // biome-ignore lint/suspicious/noArrayIndexKey: twelve arches that never move
                key={place}
                d={place < 5 ? `${path}Z` : path}
                fill={place < 5 ? "var(--proven)" : "none"}
                stroke={place < 5 ? "var(--proven)" : place === 5 ? "var(--plum)" : "var(--edge)"}
                strokeWidth={place === 5 ? 6 : 3}
              />
            );
          })}
          <line x1="0" y1="106" x2="440" y2="106" stroke="var(--ink)" strokeWidth="4" />
        </svg>
        <p className="max-w-prose text-lg">{signInWords.oneMotorFrom}</p>
      </div>
      <div>
        <Shout>{signInWords.sign}</Shout>
        <Plate className="mt-4 px-6 py-6">
          <form className="space-y-4" onSubmit={submit}>
            {refused && <ProblemSlab problem={refused.problem} />}
            <div>
              <label htmlFor={nameId} className="mb-1 block font-semibold">
                {signInWords.name}
              </label>
              <input
                id={nameId}
                name="username"
                className="field text-lg"
                autoComplete="username"
                autoCapitalize="none"
                maxLength={150}
                required
              />
            </div>
            <div>
              <label htmlFor={wordId} className="mb-1 block font-semibold">
                {signInWords.password}
              </label>
              <input
                id={wordId}
                name="password"
                type="password"
                className="field text-lg"
                autoComplete="current-password"
                maxLength={200}
                required
              />
            </div>
            <button
              type="submit"
              className="control w-full text-lg"
              data-primary="true"
              aria-busy={isBusy}
            >
              {isBusy ? signInWords.signing : signInWords.sign}
            </button>
            {canHavePasskeys() && (
              <button type="button" className="control w-full" onClick={() => void byPasskey()}>
                {signInWords.byPasskey}
              </button>
            )}
            <Link to="/new-password" className="ask inline-flex">
              {signInWords.lostPassword}
            </Link>
          </form>
        </Plate>
        {demo.data && demo.data.people.length > 0 && (
          <section aria-labelledby="players" className="mt-6 space-y-2">
            <h2 id="players" className="stamp text-soft">
              {signInWords.madeUpPeople}
            </h2>
            <div className="flex flex-wrap gap-2">
              {demo.data.people.map((one) => (
                <button
                  key={one.username}
                  type="button"
                  className="control"
                  onClick={() => void enter(() => signIn(one.username, demo.data.password))}
                >
                  {signInWords.player(one.name, one.role)}
                </button>
              ))}
            </div>
          </section>
        )}
      </div>
    </main>
  );
}
