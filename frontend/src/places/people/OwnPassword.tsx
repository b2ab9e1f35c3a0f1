import { useState } from "react";
import { useChange } from "@/api/changes";
import { me } from "@/api/me";
import { PasswordField } from "@/frame/PasswordField";

/** The own password, changed with the old one. */
export function OwnPassword() {
  const [old, setOld] = useState("");
  const [wanted, setWanted] = useState("");
  const change = useChange(async () => {
    await me.password(old, wanted);
    setOld("");
    setWanted("");
  });
  return (
    <details className="mt-5 text-sm">
      <summary className="text-ink-2">Change my password</summary>
      <form
        className="mt-1 flex flex-wrap items-end gap-x-4 gap-y-2"
        onSubmit={(event) => {
          event.preventDefault();
          change.mutate(undefined);
        }}
      >
        <PasswordField label="Current password" value={old} put={setOld} kind="current-password" />
        <PasswordField
          label="New password, 12 characters or more"
          value={wanted}
          put={setWanted}
          kind="new-password"
        />
        <button type="submit" className="key-button" disabled={!old || !wanted || change.isPending}>
          Change password
        </button>
      </form>
      {change.isSuccess && (
        <p role="status">Password changed; your other devices are signed out.</p>
      )}
      {change.error && (
        <p role="alert" className="text-high">
          {change.error.message}
        </p>
      )}
    </details>
  );
}
