import { useChange } from "@/api/changes";
import { people as calls } from "@/api/roster";
import { DialogSheet } from "@/frame/DialogSheet";
import { count, weightUnit } from "@/words";
import { PeopleTable } from "./PeopleTable";
import { usePasted } from "./usePasted";

/** Athletes by hand: one, or a whole squad pasted, as it stands in an e-mail or a table. */
export function AddPeople({ open, close }: { open: boolean; close: () => void }) {
  const pasted = usePasted();
  const { people } = pasted;
  const add = useChange(() => calls.takeOn(pasted.body()));
  const wrong = people.filter((one) => one.problem);
  const failed = pasted.error ?? add.error?.message;
  return (
    <DialogSheet open={open} close={close} title="Add athletes" wide>
      <label className="block">
        Type or paste names: a list, an e-mail, a table. Correct below what was read wrongly.
        <textarea
          className="field mt-2 h-32 w-full font-mono text-sm"
          value={pasted.text}
          placeholder={`Juniors:\nAda Lind, 62.5 ${weightUnit()}, novice, born 2009\n- Marsh, Bo`}
          onChange={(event) => pasted.setText(event.target.value)}
        />
      </label>
      {people.length > 0 && (
        <div className="mt-3 max-h-72 overflow-y-auto">
          <PeopleTable people={people} put={pasted.put} drop={pasted.drop} />
        </div>
      )}
      {pasted.dropped > 0 && (
        <p className="mt-1 text-sm text-ink-2">
          {count(pasted.dropped, "line")} left out.{" "}
          <button type="button" className="trail-link" onClick={pasted.takeBack}>
            Take them back
          </button>
        </p>
      )}
      {failed && (
        <p role="alert" className="mt-2 text-high">
          {failed}
        </p>
      )}
      <div className="mt-4 flex flex-wrap items-baseline gap-3">
        <button
          type="button"
          className="ink-button"
          disabled={people.length === 0 || wrong.length > 0 || !pasted.isChecked || add.isPending}
          onClick={() =>
            add.mutate(undefined, {
              onSuccess: () => {
                pasted.forget();
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
        {wrong.length > 0 && (
          <span className="text-sm text-high">
            {count(wrong.length, "line")} cannot be added yet: correct{" "}
            {wrong.length === 1 ? "it or leave it" : "them or leave them"} out.
          </span>
        )}
      </div>
    </DialogSheet>
  );
}
