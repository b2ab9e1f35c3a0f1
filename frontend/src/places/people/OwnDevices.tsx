import { useChange } from "@/api/changes";
import { me, useOwnDevices } from "@/api/me";
import { day } from "@/words";

/** Where one is signed in, and the way out from afar. */
export function OwnDevices() {
  const found = useOwnDevices();
  const out = useChange((device: number) => me.signOutThere(device));
  return (
    <section className="mt-5 text-sm" aria-labelledby="devices">
      <h3 id="devices" className="font-semibold">
        Where you are signed in
      </h3>
      <ul>
        {found.data?.map((one) => (
          <li
            key={one.id}
            className="flex flex-wrap items-baseline gap-x-4 border-b border-hair py-1.5"
          >
            <span className="flex-1 text-base">
              {one.words}
              {one.here && <span className="text-sm text-ink-2"> (this one)</span>}
            </span>
            <span className="text-ink-2">
              since {day(one.since)}, last used {day(one.seen)}
            </span>
            {!one.here && (
              <button
                type="button"
                className="trail-link min-h-6 text-high"
                aria-label={`Sign out ${one.words}, signed in since ${day(one.since)}`}
                disabled={out.isPending}
                onClick={() => out.mutate(one.id)}
              >
                Sign out there
              </button>
            )}
          </li>
        ))}
      </ul>
      {(found.error ?? out.error) && (
        <p role="alert" className="text-high">
          {(found.error ?? out.error)?.message}
        </p>
      )}
    </section>
  );
}
