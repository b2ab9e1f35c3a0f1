import { Field } from "./EntryFields";
import type { Choices, Row } from "./rows";

interface Props {
  row: Row;
  choices: Choices;
  change: (row: Row, field: string) => void;
  /** One more movement in the rounds. */
  more: () => void;
}

/** What a round, a ladder or bouts begin with: how many, and by which clock. */
export function RoundsFields({ row, choices, change, more }: Props) {
  const head = row.rounds ?? {
    form: "rounds",
    count: "",
    rungs: "",
    on: "",
    off: "",
    between: "",
    every: "",
    for_time: false,
  };
  const put = (next: Partial<typeof head>, field: string) =>
    change({ ...row, rounds: { ...head, ...next } }, field);
  return (
    <span className="flex flex-wrap items-baseline gap-x-3 gap-y-1 text-sm">
      {head.form === "ladder" ? (
        <Field
          label="rungs"
          value={head.rungs}
          put={(rungs) => put({ rungs }, "rungs")}
          width="w-24"
        />
      ) : (
        <Field
          label="how many"
          hidden
          value={head.count}
          put={(count) => put({ count }, "count")}
          width="w-12"
        />
      )}
      <select
        aria-label="Form of the rounds"
        value={head.form}
        onChange={(event) => put({ form: event.target.value as typeof head.form }, "form")}
        className="h-6 border-b border-rule bg-sheet font-semibold"
      >
        {choices.forms.map((form) => (
          <option key={form}>{form}</option>
        ))}
      </select>
      {(head.form === "rounds" || head.every) && (
        <Field
          label="every"
          value={head.every}
          put={(every) => put({ every }, "every")}
          width="w-16"
        />
      )}
      <Field label="on" value={head.on} put={(on) => put({ on }, "on")} width="w-16" />
      <Field label="off" value={head.off} put={(off) => put({ off }, "off")} width="w-16" />
      <Field
        label="between rounds"
        value={head.between}
        put={(between) => put({ between }, "between")}
        width="w-16"
      />
      <button type="button" className="trail-link ml-auto text-ink-2" onClick={more}>
        add to the rounds
      </button>
    </span>
  );
}
