import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange, useLook } from "@/api/changes";
import { me } from "@/api/me";
import { DialogSheet } from "./DialogSheet";
import { PasswordField } from "./PasswordField";

/** A code from an app on the phone, beside the password: taken on, or taken off. */
export function SecondFactor({ on, open = false }: { on: boolean; open?: boolean }) {
  const [drawn, setDrawn] = useState<Schemas["SecondOut"] | null>(null);
  const [codes, setCodes] = useState<string[] | null>(null);
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const draw = useLook(async () => setDrawn(await me.drawSecond()));
  const change = useChange(async () => {
    if (on) await me.endSecond(password, code);
    else setCodes(await me.beginSecond(password, code));
    setDrawn(null);
    setPassword("");
    setCode("");
  });
  const error = draw.error ?? change.error;
  return (
    <details className="mt-2 text-sm" open={open}>
      <summary className="text-ink-2">
        Second factor{on ? ": on" : " (a code from an app on your phone)"}
      </summary>
      {!on && !drawn && (
        <button type="button" className="key-button mt-2" onClick={() => draw.mutate(undefined)}>
          Set it up
        </button>
      )}
      {(on || drawn) && (
        <form
          className="mt-2 grid gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            change.mutate(undefined);
          }}
        >
          {drawn && <Drawn drawn={drawn} />}
          <PasswordField
            label="Password"
            value={password}
            put={setPassword}
            kind="current-password"
          />
          <label className="block">
            <span className="text-sm text-ink-2">
              {on ? "Code from the app, or a recovery code" : "The six digits that it shows now"}
            </span>
            <input
              value={code}
              autoComplete="one-time-code"
              maxLength={40}
              onChange={(event) => setCode(event.target.value)}
              className="field mt-0.5 block w-40 font-mono"
            />
          </label>
          <button
            type="submit"
            className={`justify-self-start ${on ? "key-button" : "ink-button"}`}
            disabled={!password || !code.trim() || change.isPending}
          >
            {on ? "Take it off" : "Use it from now on"}
          </button>
        </form>
      )}
      {error && (
        <p role="alert" className="mt-1 text-high">
          {error.message}
        </p>
      )}
      {codes && <Codes codes={codes} close={() => setCodes(null)} />}
    </details>
  );
}

function Drawn({ drawn }: { drawn: Schemas["SecondOut"] }) {
  return (
    <div className="flex flex-wrap gap-5">
      <img
        src={drawn.picture}
        alt="The second factor as a QR code"
        className="size-44 border border-rule bg-white"
      />
      <p className="min-w-0 flex-1 basis-48">
        Open an app for sign-in codes on your phone and let it read this picture, or type in:
        <span className="mt-1 block font-mono text-xs break-all select-all">{drawn.secret}</span>
      </p>
    </div>
  );
}

/** The codes for a lost phone, shown once. */
function Codes({ codes, close }: { codes: string[]; close: () => void }) {
  return (
    <DialogSheet open close={close} title="Ten codes for when the phone is gone">
      <p>
        Each lets you in once instead of a code from the app. They are shown only now: print this
        page or write them down, and keep them away from the phone.
      </p>
      <ul className="mt-3 grid grid-cols-2 gap-x-6 gap-y-1 font-mono text-sm select-all">
        {codes.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      <button type="button" className="ink-button mt-4" onClick={close}>
        I have them
      </button>
    </DialogSheet>
  );
}
