import { useState } from "react";
import type { Schemas } from "@/api/client";
import { accounts } from "@/api/accounts";
import { useChange } from "@/api/changes";
import { DialogSheet } from "@/frame/DialogSheet";
import { PasswordField } from "@/frame/PasswordField";

/** A new password for somebody who forgot theirs. */
export function SetPassword({
  account,
  close,
}: {
  account: Schemas["AccountOut"];
  close: () => void;
}) {
  const [password, setPassword] = useState("");
  const set = useChange(async () => {
    await accounts.password(account.id, password);
    close();
  });
  return (
    <DialogSheet open close={close} title={`A new password for ${account.name}`}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          set.mutate(undefined);
        }}
      >
        <p className="mb-2">They are signed out on every device, and sign in with the new one.</p>
        <PasswordField
          label="New password, 12 characters or more"
          value={password}
          put={setPassword}
          kind="new-password"
        />
        {set.error && (
          <p role="alert" className="mt-2 text-high">
            {set.error.message}
          </p>
        )}
        <div className="mt-4 flex gap-3">
          <button type="submit" className="ink-button" disabled={!password || set.isPending}>
            Set the password
          </button>
          <button type="button" className="key-button" onClick={close}>
            Cancel
          </button>
        </div>
      </form>
    </DialogSheet>
  );
}
