import { useMemo } from "react";
import { Link, useSearchParams } from "react-router";
import { useFloorRuns } from "@/api/floor";
import { Failure } from "@/frame/Failure";
import { OnTheFloor } from "./OnTheFloor";
import { together } from "./run";

/** A session on the floor, for one athlete or for a group by one clock. */
export function Run() {
  const [params] = useSearchParams();
  const plans = (params.get("plans") ?? "")
    .split(",")
    .map(Number)
    .filter((one) => one > 0);
  const found = useFloorRuns(plans);
  const data = useMemo(() => found.data && together(found.data), [found.data]);
  if (found.error && !found.data) return <Failure error={found.error} />;
  if (!data) return <p className="p-6 text-ink-2">Loading the session…</p>;
  if (data.runs.length === 0)
    return (
      <p className="p-6">
        No session is chosen.{" "}
        <Link to="/floor" className="trail-link">
          Choose one on the Floor
        </Link>
        .
      </p>
    );
  return <OnTheFloor key={plans.join(",")} plans={plans.join(",")} data={data} />;
}
