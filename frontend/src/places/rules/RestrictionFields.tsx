import { weightUnit } from "@/words";
import { MovementInput } from "@/shared/MovementInput";
import type { Said } from "./restriction";

interface Props {
  said: Said;
  put: (part: Partial<Said>) => void;
}

/** The movement, pattern, muscle or phase that it is about. */
export function Which({ said, names, put }: Props & { names: string[] }) {
  return (
    <label>
      Which
      {said.about === "movement" ? (
        <MovementInput
          value={said.subject}
          names={names}
          put={(subject) => put({ subject })}
          className="w-full"
        />
      ) : (
        <select
          value={said.subject}
          onChange={(event) => put({ subject: event.target.value })}
          className="field mt-0.5 block w-full"
        >
          <option value="">choose</option>
          {names.map((one) => (
            <option key={one} value={one}>
              {one.replaceAll("_", " ")}
            </option>
          ))}
        </select>
      )}
    </label>
  );
}

/** Whether it is to be avoided, or how much of it is right. */
export function Limits({ said, put }: Props) {
  if (said.about === "tempo")
    return (
      <>
        <Limit
          label="Seconds of that phase, at least"
          value={said.least_s}
          put={(least_s) => put({ least_s })}
        />
        <Limit
          label="Seconds of that phase, at most"
          value={said.most_s}
          put={(most_s) => put({ most_s })}
        />
      </>
    );
  return (
    <>
      <fieldset className="col-span-2 flex gap-6">
        <legend className="sr-only">How far</legend>
        {(["avoid", "limit"] as const).map((how) => (
          <label key={how} className="flex min-h-6 items-center gap-2">
            <input
              type="radio"
              name="how"
              checked={said.how === how}
              onChange={() => put({ how })}
              className="accent-ink"
            />
            {how === "avoid" ? "to be avoided" : "within a limit"}
          </label>
        ))}
      </fieldset>
      {said.how === "limit" && (
        <>
          <Limit
            label="Sets a week, at most"
            value={said.most_sets}
            put={(most_sets) => put({ most_sets })}
          />
          <Limit
            label={`Load of a set in all, ${weightUnit()}, at most`}
            value={said.most_load_kg}
            put={(most_load_kg) => put({ most_load_kg })}
          />
        </>
      )}
    </>
  );
}

/** Who said so, from when, and in which words. */
export function OnWhoseWord({ said, put }: Props) {
  return (
    <>
      <label>
        On whose word
        <input
          value={said.by}
          maxLength={120}
          placeholder="name and profession"
          onChange={(event) => put({ by: event.target.value })}
          className="field mt-0.5 block w-full"
        />
      </label>
      <label>
        From
        <input
          type="date"
          value={said.since}
          onChange={(event) => put({ since: event.target.value })}
          className="field mt-0.5 block w-full"
        />
      </label>
      <label>
        Last day, if there is one
        <input
          type="date"
          value={said.until}
          min={said.since}
          onChange={(event) => put({ until: event.target.value })}
          className="field mt-0.5 block w-full"
        />
      </label>
      <label className="col-span-2">
        What was said
        <input
          value={said.word}
          maxLength={500}
          onChange={(event) => put({ word: event.target.value })}
          className="field mt-0.5 block w-full"
        />
      </label>
    </>
  );
}

interface LimitProps {
  label: string;
  value: string;
  put: (value: string) => void;
}

function Limit({ label, value, put }: LimitProps) {
  return (
    <label>
      {label}
      <input
        value={value}
        inputMode="decimal"
        onChange={(event) => put(event.target.value)}
        className="field mt-0.5 block w-full"
      />
    </label>
  );
}
