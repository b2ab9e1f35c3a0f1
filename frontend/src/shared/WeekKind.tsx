import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { markWeek } from "@/api/decisions";
import { useMay } from "@/api/me";
import type { WeekPlace } from "@/api/place";
import { KIND_WORDS } from "@/words";

type Kind = Schemas["KindBody"]["kind"];

interface Props {
  place: WeekPlace;
  kind: Kind;
  /** What it is called where several stand side by side. */
  name?: string;
}

/** What the week is for: what its kind brings with it is no news. */
export function WeekKind({ place, kind, name = "The week is" }: Props) {
  const may = useMay("plan");
  const mark = useChange((next: Kind) => markWeek(place, next));
  if (!may) return kind && <span className="text-sm">{KIND_WORDS[kind]}</span>;
  return (
    <span className="no-print text-sm">
      <select
        aria-label={name}
        className="field max-w-full py-0 text-sm"
        value={kind ?? ""}
        disabled={mark.isPending}
        onChange={(event) => mark.mutate((event.target.value || null) as Kind)}
      >
        <option value="">an ordinary week</option>
        {Object.entries(KIND_WORDS).map(([one, words]) => (
          <option key={one} value={one}>
            {words}
          </option>
        ))}
      </select>
      {mark.error && (
        <span role="alert" className="ml-2 text-high">
          {mark.error.message}
        </span>
      )}
    </span>
  );
}
