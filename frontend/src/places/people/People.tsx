import { useState } from "react";
import type { Schemas } from "@/api/client";
import { accounts as calls, useAccounts } from "@/api/accounts";
import { useChange } from "@/api/changes";
import { useMay, useMe } from "@/api/me";
import { Failure } from "@/frame/Failure";
import { day } from "@/words";
import { AddAccount } from "./AddAccount";
import { Doors } from "./Doors";
import { OwnDevices } from "./OwnDevices";
import { OwnPassword } from "./OwnPassword";
import { SecondFactor } from "@/frame/SecondFactor";
import { SetPassword } from "./SetPassword";

type Account = Schemas["AccountOut"];

/** Who may come in: accounts, and doors for the athletes' phones. */
export function People() {
  const me = useMe();
  const found = useAccounts(true);
  const runs = useMay("run the house");
  if (found.error) return <Failure error={found.error} />;
  if (!found.data || !me.data) return <p className="p-6 text-ink-2">Loading the accounts…</p>;
  const { accounts, roles } = found.data;
  const open = me.data.state === "open";
  const rank = (one: Account) => roles.findIndex((role) => role.role === one.role);
  const staff = accounts
    .filter((one) => one.athlete === null)
    .sort((a, b) => rank(a) - rank(b) || a.name.localeCompare(b.name));
  return (
    <main className="min-h-0 flex-1 overflow-auto bg-sheet px-6 pt-3 pb-10 max-md:px-4">
      <h1 className="pb-2 text-xl font-semibold">People</h1>
      <div className="grid gap-x-12 gap-y-8 lg:grid-cols-2">
        <section aria-labelledby="staff">
          <h2 id="staff" className="border-b border-rule pb-1 font-semibold">
            Who signs in
          </h2>
          {open && (
            <p className="max-w-prose py-2 text-sm">
              No accounts yet: anyone at this machine can do everything, and nobody else can reach
              it. Create your own account first. From then on everybody signs in, here too, and
              assistants and athletes get their own access.
            </p>
          )}
          <ul className="text-sm">
            {staff.map((one) => (
              <Person key={one.id} account={one} roles={roles} runs={runs} />
            ))}
          </ul>
          {runs && <AddAccount roles={roles} first={open} />}
          {me.data.state === "in" && me.data.athlete === null && (
            <>
              <OwnPassword />
              <SecondFactor on={me.data.second === "on"} />
              <OwnDevices />
            </>
          )}
        </section>
        <div className="grid content-start gap-y-8">
          <Doors accounts={accounts} open={open} />
          <Roles roles={roles} />
        </div>
      </div>
    </main>
  );
}

function Roles({ roles }: { roles: Schemas["RoleOut"][] }) {
  return (
    <section aria-labelledby="roles" className="text-sm">
      <h2 id="roles" className="border-b border-rule pb-1 text-base font-semibold">
        What each role can do
      </h2>
      <dl>
        {roles.map((one) => (
          <div
            key={one.role}
            className="grid grid-cols-[6rem_1fr] border-b border-hair py-1.5 last:border-b-0"
          >
            <dt className="font-semibold">{one.role}</dt>
            <dd className="max-w-prose">{one.says}.</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

interface PersonProps {
  account: Account;
  roles: Schemas["RoleOut"][];
  /** Whether whoever looks may change it. */
  runs: boolean;
}

function Person({ account, roles, runs }: PersonProps) {
  const [setting, setSetting] = useState(false);
  const [removing, setRemoving] = useState(false);
  const role = useChange((to: Account["role"]) => calls.role(account.id, to));
  const remove = useChange(() => calls.remove(account.id));
  const endSecond = useChange(() => calls.endSecond(account.id));
  const error = role.error ?? remove.error ?? endSecond.error;
  return (
    <li className="border-b border-hair py-1.5">
      <span className="flex flex-wrap items-baseline gap-x-4">
        <span className="flex-1 text-base font-semibold">
          {account.name}
          {account.you && <span className="text-sm font-normal text-ink-2"> (you)</span>}
        </span>
        <span className="text-ink-2">
          {account.seen ? `signed in ${day(account.seen)}` : "not signed in yet"}
        </span>
        {runs ? (
          <select
            aria-label={`Role of ${account.name}`}
            value={account.role}
            onChange={(event) => role.mutate(event.target.value as Account["role"])}
            className="field"
          >
            {roles
              .filter((one) => one.role !== "athlete")
              .map((one) => (
                <option key={one.role}>{one.role}</option>
              ))}
          </select>
        ) : (
          <span>{account.role}</span>
        )}
        {runs && !account.you && (
          <>
            <button
              type="button"
              className="trail-link min-h-6"
              aria-label={`New password for ${account.name}`}
              onClick={() => setSetting(true)}
            >
              New password
            </button>
            {account.second && (
              <button
                type="button"
                className="trail-link min-h-6"
                aria-label={`Take the second factor off the account of ${account.name}`}
                onClick={() => endSecond.mutate(undefined)}
              >
                Take the second factor off
              </button>
            )}
            <button
              type="button"
              className="trail-link min-h-6 text-high"
              aria-label={`Remove the account of ${account.name}`}
              onClick={() => setRemoving(true)}
            >
              Remove
            </button>
          </>
        )}
      </span>
      {removing && (
        <p className="mt-1 flex flex-wrap items-baseline gap-3 border-l-4 border-high pl-3">
          {account.name} is signed out everywhere. What they did stays in the journal.
          <button
            type="button"
            className="ink-button"
            disabled={remove.isPending}
            onClick={() => remove.mutate(undefined)}
          >
            Remove the account
          </button>
          <button type="button" className="key-button" onClick={() => setRemoving(false)}>
            Cancel
          </button>
        </p>
      )}
      {error && (
        <p role="alert" className="text-high">
          {error.message}
        </p>
      )}
      {setting && <SetPassword account={account} close={() => setSetting(false)} />}
    </li>
  );
}
