import { DialogSheet } from "./DialogSheet";
import { KEYS } from "./keys";

const ALL = Object.values(KEYS);
const GROUPS = [...new Set(ALL.map((one) => one.where))].map(
  (where) => [where, ALL.filter((one) => one.where === where)] as const,
);

/** The sheet of keys and marks. */
export function Help({ open, close }: { open: boolean; close: () => void }) {
  return (
    <DialogSheet open={open} close={close} title="Keys" wide>
      <div className="columns-2 gap-10">
        {GROUPS.map(([where, keys]) => (
          <section key={where} className="mb-4 break-inside-avoid">
            <h3 className="mb-1 text-sm text-ink-2 italic">{where}</h3>
            <dl className="grid grid-cols-[3.5rem_1fr] gap-y-1">
              {keys.map((one) => (
                <div key={one.key} className="contents">
                  <dt>
                    <kbd className="border border-rule px-1.5 font-mono text-xs">
                      {one.key === "Escape" ? "Esc" : one.key}
                    </kbd>
                  </dt>
                  <dd className="text-sm">{one.says}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
      <p className="mt-2 border-t pt-3 text-sm text-ink-2">
        Arrow keys walk the figures of a sheet; Enter opens the sets behind one. The numbers are the
        coach&rsquo;s aid: no medical advice and no forecast of injury. Pain, injury, illness,
        pregnancy and training of minors need a licensed practitioner and follow local rules.
      </p>
      <button type="button" onClick={close} className="key-button mt-4">
        Close
      </button>
    </DialogSheet>
  );
}
