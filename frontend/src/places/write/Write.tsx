import { useFrame } from "@/api/sheet";
import { useWritten } from "@/api/write";
import { useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { Week } from "./Week";

/** The week's planned sessions as text: one in hand, what it comes to beside it. */
export function Write() {
  const place = useWeekPlace();
  const written = useWritten(place);
  const frame = useFrame(place);
  if (written.error ?? frame.error) return <Failure error={written.error ?? frame.error} />;
  if (!written.data || !frame.data || frame.data.week !== place.week)
    return <p className="p-6 text-ink-2">Loading the sessions…</p>;
  return (
    <Week
      key={`${place.athlete}/${place.week}`}
      place={place}
      athlete={frame.data.athlete.name}
      days={written.data.days}
      rows={written.data.sessions}
      reload={async () => (await written.refetch()).data?.sessions ?? []}
    />
  );
}
