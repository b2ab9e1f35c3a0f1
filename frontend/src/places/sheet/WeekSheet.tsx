import { useState } from "react";
import { useSearchParams } from "react-router";
import type { Basis } from "@/api/client";
import { useFrame, useSheet } from "@/api/sheet";
import { useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { JustChanged } from "@/frame/JustChanged";
import { useKeys } from "@/frame/keys";
import { Ledger } from "./Ledger";
import { Sessions } from "./Sessions";
import { SheetHead } from "./SheetHead";
import { Trail } from "./Trail";
import { WeekKind } from "@/shared/WeekKind";
import { Verdict } from "./Verdict";
import { type OpenTrail, rowOf } from "./open";
import { changing, useWalk } from "./useWalk";

const ON_PHONE = "max-md:not-print:bg-sheet max-md:not-print:px-4 max-md:not-print:pt-3";

/** The audit of a week; the address holds basis, trail and finding, so that a link opens it. */
export function WeekSheet() {
  const place = useWeekPlace();
  const [params, setParams] = useSearchParams();
  // A week that still runs is judged by its plan, until somebody asks otherwise.
  const frame = useFrame(place);
  const usual: Basis = frame.data && !frame.data.over ? "planned" : "completed";
  const asked = params.get("basis");
  const basis: Basis = asked === "planned" || asked === "completed" ? asked : usual;
  const sheet = useSheet(place, basis, frame.isSuccess);
  const [focusReason, setFocusReason] = useState(0);

  const change = changing(setParams);
  const { now, unfolded, shown, go, toggle, walk, openFinding } = useWalk(
    sheet.data,
    basis,
    params,
    setParams,
  );
  const open: OpenTrail = {
    figures: params.getAll("trail"),
    basis: params.get("of") === "planned" ? "planned" : "completed",
    days: params.get("days") ?? "",
  };
  const openFigure = (figure: string, of: Basis) =>
    change({ trail: figure, of: of === "planned" ? "planned" : null, days: null, finding: null });
  const close = () => change({ trail: null, of: null, days: null, finding: null, unfolded: null });
  const swap = () =>
    change({
      basis: basis === "completed" ? "planned" : "completed",
      finding: null,
      cause: null,
      unfolded: null,
    });

  useKeys({
    basis: swap,
    nextFinding: () => walk(1),
    previousFinding: () => walk(-1),
    unfold: () => {
      if (now.cause !== null) toggle(now.cause);
    },
    closeTrail: close,
    accept: () => {
      if (now.finding !== null || now.cause !== null) setFocusReason((count) => count + 1);
    },
  });

  if (sheet.error) return <Failure error={sheet.error} />;
  if (!sheet.data) return <p className="p-6 text-ink-2">Counting the week…</p>;
  const data = sheet.data;
  const nothing = data.sessions.length === 0;
  return (
    <div className="beside grid-cols-[minmax(0,1fr)_25.5rem]">
      <main
        className="min-h-0 overflow-auto bg-sheet px-6 pt-3 pb-10 max-md:not-print:contents print-open print:pb-0"
        tabIndex={-1}
      >
        {/* A phone has the verdict first, then the figures that it is about. */}
        <div className={`max-md:not-print:order-1 ${ON_PHONE}`}>
          <JustChanged athlete={place.athlete} />
          <SheetHead place={place} sheet={data} basis={basis} swap={swap} />
        </div>
        <div className={`max-md:not-print:order-3 max-md:not-print:pb-8 ${ON_PHONE}`}>
          <Sessions sessions={data.sessions}>
            <WeekKind place={place} kind={frame.data?.kind ?? null} />
          </Sessions>
          {data.disagreement && (
            <p className="mb-2 border-l-4 border-rule pl-3 text-sm">{data.disagreement}</p>
          )}
          {nothing ? (
            <NothingHere />
          ) : (
            <Ledger
              sheet={data}
              selected={shown ? rowOf(shown) : null}
              openFigure={openFigure}
              openFinding={openFinding}
            />
          )}
        </div>
      </main>
      <aside className="flex min-h-0 flex-col border-l border-rule max-md:not-print:order-2 print-open">
        <Verdict
          sheet={data}
          place={place}
          name={frame.data?.athlete.name ?? "this athlete"}
          basis={basis}
          now={now}
          unfolded={unfolded}
          go={go}
          toggle={toggle}
          after={frame.data?.after ?? place.week}
          focusReason={focusReason}
        />
        {open.figures.length > 0 && (
          <Trail place={place} open={open} close={close} openFigure={openFigure} />
        )}
      </aside>
    </div>
  );
}

const NothingHere = () => (
  <p className="max-w-prose py-8">
    Nothing is planned or logged in this week. Go back a week with{" "}
    <kbd className="font-mono text-xs">[</kbd>, or draft its plan on the Dial with{" "}
    <kbd className="font-mono text-xs">d</kbd>.
  </p>
);
