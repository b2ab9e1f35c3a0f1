import { useSearchParams } from "react-router";
import { type WeekPlace } from "@/api/place";
import { day } from "@/words";
import type { Sheet } from "./sheet";
import type { Saving } from "./useSaving";

interface Props {
  place: WeekPlace;
  sheet: Sheet;
  days: string[];
  saving: Saving;
  put: (change: Partial<Sheet>) => void;
  help: () => void;
  remove: () => void;
}

/** Day and title of the session, the ways to write it and to take it along, and whether it is stored. */
export function DeskHead({ place, sheet, days, saving, put, help, remove }: Props) {
  return (
    <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1 border-b border-hair px-6 pt-3 pb-2">
      <select
        aria-label="Day"
        value={sheet.date}
        onChange={(event) => put({ date: event.target.value })}
        className="h-7 bg-sheet"
      >
        {days.map((one) => (
          <option key={one} value={one}>
            {day(one)}
          </option>
        ))}
      </select>
      <input
        value={sheet.title}
        onChange={(event) => put({ title: event.target.value })}
        placeholder="Title"
        aria-label="Title of the session"
        maxLength={200}
        className="h-7 min-w-24 flex-1 max-md:min-w-40 border-b border-rule bg-transparent font-semibold"
      />
      <TextOrForm />
      <button type="button" className="trail-link text-sm text-ink-2" onClick={help}>
        Notation
      </button>
      <button
        type="button"
        className="trail-link text-sm text-ink-2"
        onClick={() => window.print()}
      >
        Print
      </button>
      {sheet.id !== null && (
        <a
          download
          className="trail-link text-sm text-ink-2"
          href={`/api/athletes/${place.athlete}/weeks/${place.week}/written/${sheet.id}/paper`}
        >
          PDF
        </a>
      )}
      <span
        role="status"
        className={`text-sm ${saving === "saved" || saving === "saving…" ? "text-ink-2" : "text-high"}`}
      >
        {saving}
      </span>
      {sheet.id !== null && (
        <button type="button" className="trail-link text-sm text-ink-2" onClick={remove}>
          Remove
        </button>
      )}
    </div>
  );
}

/** The two ways to write; the address keeps which. */
function TextOrForm() {
  const [params, setParams] = useSearchParams();
  const asForm = params.get("as") === "form";
  const show = (as: "form" | "text") =>
    setParams(
      (now) => {
        const next = new URLSearchParams(now);
        if (as === "form") next.set("as", "form");
        else next.delete("as");
        return next;
      },
      { replace: true },
    );
  return (
    <span role="group" aria-label="How to write" className="flex gap-2 text-sm">
      {(["text", "form"] as const).map((as) => (
        <button
          key={as}
          type="button"
          aria-pressed={asForm === (as === "form")}
          onClick={() => show(as)}
          className={`border-b-2 ${asForm === (as === "form") ? "border-ink" : "border-transparent text-ink-2 hover:text-ink"}`}
        >
          {as === "form" ? "Form" : "Text"}
        </button>
      ))}
    </span>
  );
}
