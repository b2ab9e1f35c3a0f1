import type { ReactNode } from "react";
import { useRoster } from "@/api/roster";
import { SquadSelect } from "@/frame/SquadSelect";
import { useKeys } from "@/frame/keys";
import { span, weekName } from "@/words";

interface Props {
  at: { week: string; monday: string; sunday: string; previous: string; next: string };
  squad: string;
  /** What is done here, after the week's name. */
  says: string;
  put: (part: { squad?: string; week?: string }) => void;
  children: ReactNode;
}

/** The squad and the week that a page is of, and the way to others. */
export function SquadHead({ at, squad, says, put, children }: Props) {
  const roster = useRoster();
  const people = [...(roster.data?.athletes ?? []), ...(roster.data?.waiting ?? [])];
  const back = () => put({ week: at.previous });
  const on = () => put({ week: at.next });
  useKeys({ weekBack: back, weekOn: on });
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2 pt-4 pb-3">
      <h1 className="text-xl font-semibold">
        {squad || "Everybody"}: {weekName(at.week)}{" "}
        <span className="font-normal text-ink-2">
          {says}, {span(at.monday, at.sunday)}
        </span>
      </h1>
      <span className="no-print flex gap-1">
        <button type="button" className="key-button" aria-label="Previous week" onClick={back}>
          ◂
        </button>
        <button type="button" className="key-button" aria-label="Next week" onClick={on}>
          ▸
        </button>
      </span>
      <span className="no-print ml-auto flex flex-wrap items-baseline gap-x-4 gap-y-2 max-md:ml-0">
        <SquadSelect people={people} value={squad} put={(chosen) => put({ squad: chosen })} />
        {children}
      </span>
    </div>
  );
}
