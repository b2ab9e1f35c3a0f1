import { useCallback, useState } from "react";
import type { Schemas } from "@/api/client";
import { useLook } from "@/api/changes";
import { type WeekPlace } from "@/api/place";
import { writing } from "@/api/write";
import { day } from "@/words";
import { Desk } from "./Desk";
import { useDaysApart } from "./useDaysApart";
import { useSheets } from "./useSheets";
import type { Sheet } from "./sheet";
import { usePlanChanged } from "./useSaving";

interface Props {
  place: WeekPlace;
  athlete: string;
  days: string[];
  rows: Schemas["WrittenRow"][];
  reload: () => Promise<Schemas["WrittenRow"][]>;
}

/** The sessions of the week, and the one in hand. */
export function Week({ place, athlete, days, rows, reload }: Props) {
  const { sheets, current, desk, isUnknown, open, close, put, drop, again } = useSheets(
    place,
    rows,
    reload,
  );
  const [removed, setRemoved] = useState<Sheet | null>(null);
  const planChanged = usePlanChanged();
  const apart = useDaysApart(place, days, { again, open, close });
  const free = days.find((one) => !sheets.some((sheet) => sheet.date === one)) ?? days[0];
  const remove = useCallback(
    async (sheet: Sheet) => {
      if (sheet.id === null) return;
      const next = await writing.remove(place, sheet.id, sheet.revision);
      drop(sheet);
      setRemoved({ ...sheet, revision: next.revision });
      close();
      await planChanged();
    },
    [place, drop, close, planChanged],
  );
  const restore = async (sheet: Sheet) => {
    const next = await writing.restore(place, sheet.id ?? 0, sheet.revision);
    put({ ...sheet, revision: next.revision });
    setRemoved(null);
    await planChanged();
  };
  return (
    <div className="beside grid-cols-[12rem_minmax(0,1fr)_27rem] print:block">
      <nav
        aria-label="Sessions of the week"
        className="no-print min-h-0 overflow-auto border-r border-rule py-3 max-lg:border-r-0 max-lg:border-b max-lg:py-1.5"
      >
        <List sheets={sheets} current={current} open={open} />
        <button type="button" className="key-button mx-5 mt-3" onClick={() => open(`new-${free}`)}>
          New session
        </button>
        {removed && (
          <Done says={`${removed.title || "The session"} removed.`} undo={() => restore(removed)} />
        )}
        {apart.made && <Done says={apart.made.says} undo={apart.takeBack} />}
      </nav>
      {isUnknown ? (
        <p className="col-span-2 bg-sheet px-6 py-8 text-ink-2">Loading the session…</p>
      ) : current ? (
        <Desk
          key={desk}
          place={place}
          athlete={athlete}
          opened={current}
          days={days}
          stored={put}
          remove={remove}
          takeApart={apart.make}
        />
      ) : (
        <p className="col-span-2 bg-sheet px-6 py-8">
          No session is planned in this week. Begin with a new one: a line for each movement, as on
          the board.
        </p>
      )}
    </div>
  );
}

/** What was just done to the week's sessions, with the way back. */
function Done({ says, undo }: { says: string; undo: () => Promise<void> }) {
  const undoing = useLook(undo);
  return (
    <p role="status" className="mx-5 mt-4 text-sm">
      {says}{" "}
      <button
        type="button"
        className="trail-link"
        disabled={undoing.isPending}
        onClick={() => undoing.mutate()}
      >
        Undo
      </button>
      {undoing.error && (
        <span role="alert" className="block text-high">
          {undoing.error.message}
        </span>
      )}
    </p>
  );
}

interface ListProps {
  sheets: Sheet[];
  current: Sheet | undefined;
  open: (session: string) => void;
}

function List({ sheets, current, open }: ListProps) {
  return (
    <ol className="max-lg:flex max-lg:overflow-x-auto">
      {sheets.map((one) => (
        <li key={one.id} className="max-lg:shrink-0">
          <button
            type="button"
            onClick={() => open(String(one.id))}
            aria-current={one === current || undefined}
            className={`w-full px-5 py-1.5 text-left ${one === current ? "bg-sheet" : "hover:bg-band/50"}`}
          >
            <span className="block text-sm text-ink-2">{day(one.date)}</span>
            <span className={`block truncate ${one === current ? "font-semibold" : ""}`}>
              {one.title || "Untitled"}
            </span>
          </button>
        </li>
      ))}
    </ol>
  );
}
