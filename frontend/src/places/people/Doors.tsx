import { useState } from "react";
import type { Schemas } from "@/api/client";
import { accounts as calls } from "@/api/accounts";
import { useChange } from "@/api/changes";
import { useRoster } from "@/api/roster";
import { DialogSheet } from "@/frame/DialogSheet";
import { day } from "@/words";

interface Props {
  accounts: Schemas["AccountOut"][];
  /** Nobody has an account yet: doors come after the owner's. */
  open: boolean;
}

type Made = Schemas["DoorOut"] & { name: string };

/** Doors: a link, or a picture of it, that lets an athlete's phone in to what is their own. */
export function Doors({ accounts, open }: Props) {
  const roster = useRoster();
  const [shown, setShown] = useState<Made | null>(null);
  const make = useChange(async (one: { id: number; name: string }) => {
    setShown({ ...(await calls.door(one.id)), name: one.name });
  });
  const withdraw = useChange((id: number) => calls.withdraw(id));
  const doors = new Map(accounts.map((one) => [one.athlete, one]));
  const people = [...(roster.data?.athletes ?? []), ...(roster.data?.waiting ?? [])].sort((a, b) =>
    a.name.localeCompare(b.name),
  );
  const error = make.error ?? withdraw.error;
  return (
    <section aria-labelledby="doors">
      <h2 id="doors" className="border-b border-rule pb-1 font-semibold">
        Athletes&rsquo; phones
      </h2>
      <p className="max-w-prose py-2 text-sm">
        A link gives an athlete&rsquo;s phone access to their own plan, the Floor, their log and the
        hand-out, and nothing of anybody else&rsquo;s. Anyone with the link can get in until you
        withdraw it.
        {open && " Create your own account first."}
      </p>
      {error && (
        <p role="alert" className="text-sm text-high">
          {error.message}
        </p>
      )}
      <ul className="text-sm">
        {people.map((one) => {
          const door = doors.get(one.id);
          return (
            <li
              key={one.id}
              className="flex flex-wrap items-baseline gap-x-4 border-b border-hair py-1.5"
            >
              <span className="flex-1 text-base">{one.name}</span>
              <span className="text-ink-2">{door && used(door)}</span>
              <button
                type="button"
                className="trail-link min-h-6"
                disabled={open || make.isPending}
                aria-label={`${door ? "New link" : "Make a link"} for ${one.name}`}
                onClick={() => make.mutate(one)}
              >
                {door ? "New link" : "Make a link"}
              </button>
              {door && (
                <button
                  type="button"
                  className="trail-link min-h-6 text-high"
                  aria-label={`Withdraw the link of ${one.name}`}
                  onClick={() => withdraw.mutate(one.id)}
                >
                  Withdraw
                </button>
              )}
            </li>
          );
        })}
      </ul>
      {roster.data && people.length === 0 && (
        <p className="text-sm text-ink-2">Nobody is on the roster yet.</p>
      )}
      <DoorDialog made={shown} close={() => setShown(null)} />
    </section>
  );
}

const used = (door: Schemas["AccountOut"]): string =>
  door.seen ? `last used ${day(door.seen)}` : "not used yet";

/** The link, shown once: to be photographed, copied or printed. */
function DoorDialog({ made, close }: { made: Made | null; close: () => void }) {
  const [copied, setCopied] = useState(false);
  if (!made) return null;
  return (
    <DialogSheet open close={close} title={`A link for ${made.name}'s phone`}>
      <div className="flex flex-wrap gap-6">
        <img
          src={made.picture}
          alt="The link as a QR code"
          className="size-52 border border-rule bg-white"
        />
        <div className="min-w-0 flex-1 basis-56">
          <p>
            Let {made.name} point the phone&rsquo;s camera at it, or send the link. It is shown only
            once; you can make a new one at any time, which ends this one.
          </p>
          {made.here_only && (
            <p className="mt-2 border-l-4 border-caution pl-3">
              This address works on this computer alone. For phones, open Dial Back here at the
              address the server prints when started with --host, then make the link.
            </p>
          )}
          <p className="mt-3 font-mono text-xs break-all select-all">{made.link}</p>
          <button
            type="button"
            className="key-button mt-2"
            onClick={() => {
              navigator.clipboard.writeText(made.link).then(
                () => setCopied(true),
                () => undefined,
              );
            }}
          >
            {copied ? "Copied" : "Copy the link"}
          </button>
        </div>
      </div>
      <button type="button" className="key-button mt-4" onClick={close}>
        Close
      </button>
    </DialogSheet>
  );
}
