import type { Aside } from "./useWriting";

interface Props {
  aside: Aside;
  stored: string;
  decide: (mine: boolean) => void;
}

/** What was typed here before and is not in the session: to go on with, or to let go of. */
export function TypedBefore({ aside, stored, decide }: Props) {
  return (
    <section aria-label="Typed before" className="border-l-4 border-caution px-5 py-2 text-sm">
      <p>
        {aside.key === null
          ? "You typed this, and the session was changed elsewhere before it was saved."
          : "Another window left this behind without saving it."}{" "}
        Nothing is lost until you choose.
      </p>
      <div className="my-1.5 grid grid-cols-2 gap-4">
        {[
          ["Typed here", aside.copy.text],
          ["Saved", stored],
        ].map(([head, text]) => (
          <div key={head}>
            <h3 className="font-semibold">{head}</h3>
            <pre className="max-h-28 overflow-auto font-mono text-xs whitespace-pre-wrap">
              {text}
            </pre>
          </div>
        ))}
      </div>
      <p className="flex gap-3">
        <button type="button" className="key-button" onClick={() => decide(true)}>
          Use what was typed
        </button>
        <button type="button" className="key-button" onClick={() => decide(false)}>
          Keep what is saved
        </button>
      </p>
    </section>
  );
}
