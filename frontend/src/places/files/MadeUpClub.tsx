import { useState } from "react";
import { useChange } from "@/api/changes";
import { house, useClub } from "@/api/house";
import { DialogSheet } from "@/frame/DialogSheet";
import { LastLook } from "@/frame/LastLook";
import { May } from "@/frame/May";

/** The made-up club, where it is here: who it is, and how to be rid of it. */
export function MadeUpClub() {
  const names = useClub().data?.athletes ?? [];
  const [asked, setAsked] = useState(false);
  const remove = useChange(async () => {
    await house.removeClub();
    setAsked(false);
  });
  if (names.length === 0) return null;
  return (
    <section aria-labelledby="club" className="mt-8 text-sm">
      <h2 id="club" className="border-b border-rule pb-1 text-base font-semibold">
        The made-up club
      </h2>
      <p className="mt-2 text-ink-2">
        {names.length} of the athletes here are made up, to look around with.
      </p>
      <May right="run the house">
        <button type="button" className="key-button mt-2" onClick={() => setAsked(true)}>
          Remove the made-up club
        </button>
      </May>
      <DialogSheet
        open={asked}
        close={() => setAsked(false)}
        title={`Remove ${names.length} made-up athletes?`}
      >
        <p>
          {names.join(", ")}: their plans, logs, notes and phone links go for good, and so do the
          club&rsquo;s templates. Everyone you added yourself stays. The name and the kit become
          what they were before, unless you changed them since.
        </p>
        <LastLook
          says="Remove for good"
          ready={!remove.isPending}
          error={remove.error}
          press={() => remove.mutate(undefined)}
          close={() => setAsked(false)}
        />
      </DialogSheet>
    </section>
  );
}
