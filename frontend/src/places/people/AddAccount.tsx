import { useState } from "react";
import type { Schemas } from "@/api/client";
import { accounts } from "@/api/accounts";
import { useChange } from "@/api/changes";
import { PasswordField } from "@/frame/PasswordField";

interface Props {
  roles: Schemas["RoleOut"][];
  /** The first account is the owner's. */
  first: boolean;
}

/** An account to make: a name, a role, a first password. */
export function AddAccount({ roles, first }: Props) {
  const [name, setName] = useState("");
  const [chosen, setRole] = useState<Schemas["RoleOut"]["role"]>("coach");
  const [password, setPassword] = useState("");
  const role = first ? "owner" : chosen;
  const make = useChange(async () => {
    await accounts.make({ name, role, password });
    setName("");
    setPassword("");
  });
  return (
    <form
      className="mt-4 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        make.mutate(undefined);
      }}
    >
      <h3 className="font-semibold">{first ? "Your own account" : "Add someone"}</h3>
      <div className="mt-1 flex flex-wrap items-end gap-x-4 gap-y-2">
        <label className="block">
          <span className="text-ink-2">Name to sign in with</span>
          <input
            value={name}
            maxLength={80}
            autoComplete="off"
            onChange={(event) => setName(event.target.value)}
            className="field mt-0.5 block w-52"
          />
        </label>
        {!first && (
          <label className="block">
            <span className="text-ink-2">Role</span>
            <select
              value={chosen}
              onChange={(event) => setRole(event.target.value as typeof chosen)}
              className="field mt-0.5 block"
            >
              {roles
                .filter((one) => one.role !== "athlete")
                .map((one) => (
                  <option key={one.role}>{one.role}</option>
                ))}
            </select>
          </label>
        )}
        <PasswordField
          label="Password, 12 characters or more"
          value={password}
          put={setPassword}
          kind="new-password"
        />
        <button
          type="submit"
          className="ink-button"
          disabled={!name.trim() || !password || make.isPending}
        >
          {first ? "Create it and sign in" : `Add the ${role}`}
        </button>
      </div>
      {!first && (
        <p className="mt-1 text-ink-2">
          Tell them the password yourself; they can change it once they sign in.
        </p>
      )}
      {make.error && (
        <p role="alert" className="mt-1 text-high">
          {make.error.message}
        </p>
      )}
    </form>
  );
}
