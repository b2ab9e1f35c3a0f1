import { useEffect, useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { useChange } from "@/api/changes";
import { people as calls } from "@/api/roster";
import { DialogSheet } from "@/frame/DialogSheet";
import { Heads } from "@/frame/Heads";
import { count, weight, weightUnit } from "@/words";

type Newcomer = Schemas["NewcomerOut"];

const ASK_AFTER_MS = 200;

/** The people of a text as the server reads it, soon after it was typed. */
function useReading(text: string): { people: Newcomer[]; error: string | null } {
  const [read, setRead] = useState<{ people: Newcomer[]; error: string | null }>({
    people: [],
    error: null,
  });
  useEffect(() => {
    const control = new AbortController();
    const timer = setTimeout(() => {
      calls
        .read(text, control.signal)
        .then(({ people }) => setRead({ people, error: null }))
        .catch((problem: unknown) => {
          if (!control.signal.aborted)
            setRead({
              people: [],
              error: messageOf(problem),
            });
        });
    }, ASK_AFTER_MS);
    return () => {
      clearTimeout(timer);
      control.abort();
    };
  }, [text]);
  return read;
}

/** Athletes by hand: one, or a whole squad pasted, a line each. */
export function AddPeople({ open, close }: { open: boolean; close: () => void }) {
  const [text, setText] = useState("");
  const { people, error } = useReading(text);
  const add = useChange(() => calls.takeOn(text));
  const wrong = people.filter((one) => one.problem);
  const failed = error ?? add.error?.message;
  return (
    <DialogSheet open={open} close={close} title="Add athletes" wide>
      <label className="block">
        One name on each line, then body weight, squad and a note if you like.
        <textarea
          className="field mt-2 h-36 w-full font-mono text-sm"
          value={text}
          placeholder={`Ada Lind, 62.5 ${weightUnit()}, squad Juniors, novice\nBo Marsh`}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      {people.length > 0 && (
        <div className="mt-3 max-h-56 overflow-auto">
          <table className="w-full text-sm">
            <thead>
              <tr className="border-b border-rule text-ink-2 italic">
                <Heads
                  heads={["Name", { says: "Body weight", figure: true }, "Note"]}
                  className="px-2"
                />
              </tr>
            </thead>
            <tbody>
              {people.map((one) => (
                <tr key={one.line} className="border-b border-hair">
                  <td className="px-2 font-semibold">{one.name}</td>
                  <td className="figure px-2">
                    {one.bodyweight_kg === null ? "–" : weight(one.bodyweight_kg)}
                  </td>
                  <td className="px-2">
                    {one.problem ? (
                      <span className="text-high">
                        Line {one.line}: {one.problem}
                      </span>
                    ) : (
                      [one.level, one.born && `born ${one.born}`, one.squad, one.note]
                        .filter(Boolean)
                        .join(", ")
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {failed && (
        <p role="alert" className="mt-2 text-high">
          {failed}
        </p>
      )}
      <div className="mt-4 flex gap-3">
        <button
          type="button"
          className="ink-button"
          disabled={people.length === 0 || wrong.length > 0 || add.isPending}
          onClick={() =>
            add.mutate(undefined, {
              onSuccess: () => {
                setText("");
                close();
              },
            })
          }
        >
          {people.length > 0 ? `Add ${count(people.length, "athlete")}` : "Add"}
        </button>
        <button type="button" className="key-button" onClick={close}>
          Cancel
        </button>
      </div>
    </DialogSheet>
  );
}
