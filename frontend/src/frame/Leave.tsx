import { useState } from "react";
import { useNavigate } from "react-router";
import { useLook } from "@/api/changes";
import { me, useComing } from "@/api/me";
import { waiting } from "@/api/outbox";
import { count } from "@/words";
import { DialogSheet } from "./DialogSheet";

/** Who is signed in, and the way out; logs that still wait to be sent are not left behind unsaid. */
export function Leave({ name }: { name: string }) {
  const [left, setLeft] = useState(0);
  const go = useNavigate();
  const coming = useComing();
  const out = useLook(async (sure: boolean) => {
    const there = sure ? 0 : (await waiting()).length;
    setLeft(there);
    if (there > 0) return;
    coming(await me.signOut());
    // Whoever comes next begins at the beginning.
    void go("/");
  });
  return (
    <>
      <span className="max-w-40 truncate max-lg:hidden">{name}</span>
      <button
        type="button"
        className="hover:text-ink"
        disabled={out.isPending}
        onClick={() => out.mutate(false)}
      >
        Sign out
      </button>
      <DialogSheet open={left > 0} close={() => setLeft(0)} title="Not everything has been sent">
        <p>
          {count(left, "log")} on this device {left === 1 ? "has" : "have"} not been sent yet.
          Nothing of yours stays here when you sign out: stay until there is a connection, or{" "}
          {left === 1 ? "it is" : "they are"} lost.
        </p>
        <div className="mt-4 flex gap-3">
          <button type="button" className="ink-button" onClick={() => setLeft(0)}>
            Stay
          </button>
          <button type="button" className="key-button" onClick={() => out.mutate(true)}>
            Sign out and lose {left === 1 ? "it" : "them"}
          </button>
        </div>
      </DialogSheet>
    </>
  );
}
