import { type ReactNode, useEffect, useRef, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { useLook } from "@/api/changes";
import { Refusal } from "@/api/client";
import { lastHere } from "@/api/forget";
import { me, useComing, useMe } from "@/api/me";
import { Wordmark } from "@/marks/Wordmark";

/** Who is there? A name and a password; athletes come by the link on their phone. */
export function SignIn() {
  const [name, setName] = useState(() => lastHere() ?? "");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const coming = useComing();
  const first = useRef<HTMLInputElement>(null);
  useEffect(() => first.current?.focus(), []);
  const enter = useLook(async () => coming(await me.signIn(name, password, code)));
  const asked = enter.error instanceof Refusal && enter.error.kind.endsWith("-code");
  const needed = enter.error instanceof Refusal && enter.error.kind.endsWith("code-needed");
  const withCode = needed || asked || code !== "";
  return (
    <Outside>
      <form
        className="mt-6 grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          enter.mutate(undefined);
        }}
      >
        <h1 className="text-xl font-semibold">Sign in</h1>
        <Why />
        <label className="block">
          Name
          <input
            value={name}
            autoComplete="username"
            autoCapitalize="none"
            ref={first}
            onChange={(event) => setName(event.target.value)}
            className="field mt-0.5 block h-9 w-full"
          />
        </label>
        <label className="block">
          Password
          <input
            type="password"
            value={password}
            autoComplete="current-password"
            onChange={(event) => setPassword(event.target.value)}
            className="field mt-0.5 block h-9 w-full"
          />
        </label>
        {withCode && (
          <label className="block">
            Code from the app on your phone
            <input
              value={code}
              autoComplete="one-time-code"
              autoCapitalize="none"
              inputMode="text"
              maxLength={40}
              ref={(field) => {
                if (needed) field?.focus();
              }}
              onChange={(event) => setCode(event.target.value)}
              className="field mt-0.5 block h-9 w-full font-mono"
            />
          </label>
        )}
        {enter.error && (
          <p
            role="alert"
            className={`border-l-4 pl-3 text-sm ${needed ? "border-rule" : "border-high"}`}
          >
            {enter.error.message}
          </p>
        )}
        <button
          type="submit"
          className="ink-button h-10 justify-self-start px-6"
          disabled={!name.trim() || !password || enter.isPending}
        >
          Sign in
        </button>
        <p className="mt-3 text-sm text-ink-2">
          Athletes sign in with the link their coach made for their phone. Forgot your password? The
          owner can set a new one.
        </p>
      </form>
    </Outside>
  );
}

/** Why one is asked again, and what has become of what was typed. */
function Why() {
  const who = useMe().data;
  const was = lastHere();
  if (who?.withdrawn)
    return (
      <p role="status" className="border-l-4 border-rule pl-3 text-sm">
        This device was signed out from another one, so nothing was kept on it.
      </p>
    );
  if (!was) return null;
  return (
    <p role="status" className="border-l-4 border-rule pl-3 text-sm">
      {was}’s session on this device has ended, as sessions do when they are not used for a while or
      the password is changed. What was typed here and not saved yet is kept; it is there again when{" "}
      {was} signs in.
    </p>
  );
}

/** The way in by an athlete's link: what stands behind its mark never reaches a log. */
export function Door() {
  const { hash } = useLocation();
  const go = useNavigate();
  const coming = useComing();
  const open = useLook(async (token: string) => {
    coming(await me.openDoor(token));
    void go("/", { replace: true });
  });
  const { mutate } = open;
  useEffect(() => mutate(hash.slice(1)), [hash, mutate]);
  return (
    <Outside>
      {open.error ? (
        <p role="alert" className="mt-6 border-l-4 border-high pl-3">
          {open.error.message}
        </p>
      ) : (
        <p className="mt-6 text-ink-2">Signing in…</p>
      )}
    </Outside>
  );
}

/** What is seen from outside: the sign and one thing to do. */
export function Outside({ children }: { children: ReactNode }) {
  return (
    <main className="h-dvh overflow-auto bg-sheet">
      <div className="mx-auto max-w-sm px-6 pt-[12vh]">
        <span className="double-rule block pb-2 text-lg">
          <Wordmark whole />
        </span>
        {children}
      </div>
    </main>
  );
}
