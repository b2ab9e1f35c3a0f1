import { useEffect, useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { type WeekPlace } from "@/api/place";
import { rules as calls } from "@/api/rules";
import { useFrame } from "@/api/sheet";
import { Preview } from "./Preview";
import type { Chosen } from "./choices";

interface Props {
  place: WeekPlace | null;
  chosen: Chosen;
  scope: "house" | "athlete";
  changed: boolean;
}

/** What the choices in hand do to one athlete's week. */
export function PreviewFor({ place, chosen, scope, changed }: Props) {
  const frame = useFrame(place ?? { athlete: 0, week: "" }, place !== null);
  const [answer, setAnswer] = useState<Schemas["PreviewOut"] | null>(null);
  const [error, setError] = useState<string | null>(null);
  const basis = frame.data && !frame.data.over ? "planned" : "completed";
  useEffect(() => {
    if (!place || !changed) return undefined;
    const control = new AbortController();
    calls
      .preview(place, { chosen, scope, basis }, control.signal)
      .then((found) => {
        setAnswer(found);
        setError(null);
      })
      .catch((problem: unknown) => {
        if (!control.signal.aborted) setError(messageOf(problem));
      });
    return () => control.abort();
  }, [place, chosen, scope, basis, changed]);
  return (
    <Preview
      title={frame.data ? { athlete: frame.data.athlete.name, week: frame.data.week } : null}
      answer={changed ? answer : null}
      changed={changed}
      error={changed ? error : null}
    />
  );
}
