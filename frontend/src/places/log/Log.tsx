import { useState } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "@/api/client";
import { type WeekPlace, logs, useChange, useLog, useMovementNames } from "@/api/queries";
import { useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { KEYS, useKeys } from "@/frame/keys";
import { amount, day, share, unit } from "@/words";
import { LogLines } from "./LogLines";
import { WrittenLog } from "./WrittenLog";
import { type CoreSession, asPlanned, emptyLog } from "./log";

type Session = Schemas["LogSession"];

/** A key for a session of the week: its log, else its plan. */
const keyOf = (one: Session) => one.log?.client_id ?? `plan-${one.plan?.id}`;

/** The week's sessions, planned beside done; only what differed is typed. */
export function Log() {
  const place = useWeekPlace();
  const found = useLog(place);
  const names = useMovementNames(place);
  const [params, setParams] = useSearchParams();
  const [gone, setGone] = useState<{ id: string; title: string } | null>(null);
  const all = found.data?.sessions ?? [];
  const writing = params.get("session") === "new";
  const current = writing ? undefined : (all.find((one) => keyOf(one) === params.get("session") || `plan-${one.plan?.id}` === params.get("session")) ?? all[0]);
  const open = (key: string) => setParams({ session: key }, { replace: true });
  const keep = useChange(async ({ one, session }: { one: Session; session: CoreSession }) => {
    await logs.keep(place.athlete, one.log?.client_id ?? crypto.randomUUID(), {
      change: crypto.randomUUID(), revision: one.log?.revision ?? 0, plan: one.plan?.id ?? null, session,
    });
  });
  const remove = useChange(async (one: Session) => {
    if (!one.log) return;
    await logs.remove(place.athlete, one.log.client_id);
    setGone({ id: one.log.client_id, title: one.log.session.title });
  });
  const restore = useChange(async (id: string) => { await logs.restore(place.athlete, id); setGone(null); });
  const whole = (one: Session) => {
    if (one.plan && !keep.isPending)
      keep.mutate({ one, session: { ...(one.log?.session ?? emptyLog(one.plan.date, one.plan.title)), sets: one.plan.sets.map(asPlanned) } });
  };
  useKeys({ asPlanned: () => { if (current && !current.log) whole(current); } });
  if (found.error) return <Failure error={found.error} />;
  if (!found.data) return <p className="p-6 text-ink-2">Opening the log…</p>;
  const error = keep.error ?? remove.error ?? restore.error;
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[15rem_minmax(0,1fr)] max-md:grid-cols-1 max-md:overflow-auto">
      <nav aria-label="Sessions of the week" className="min-h-0 overflow-auto border-r border-rule py-3 max-md:max-h-44 max-md:border-r-0 max-md:border-b">
        <ol>
          {all.map((one) => (
            <li key={keyOf(one)} className={one === current ? "bg-sheet" : ""}>
              <button type="button" onClick={() => open(keyOf(one))} aria-current={one === current || undefined} className="block w-full px-5 pt-1.5 text-left">
                <span className="flex items-center gap-2 text-sm text-ink-2">
                  <span aria-hidden="true" className={`size-2.5 border border-ink ${one.log ? "bg-ink" : ""}`} />
                  {day(one.plan?.date ?? one.log?.session.date ?? "")}
                  {one.versions.length > 0 && <span className="text-caution">two versions</span>}
                </span>
                <span className={`block truncate ${one === current ? "font-semibold" : ""}`}>{one.plan?.title || one.log?.session.title || "Session"}</span>
              </button>
              <span className="block px-5 pb-1.5 text-sm">
                {one.log ? <span className="text-ink-2">{state(one)}</span> : one.ahead ? <span className="text-ink-2">ahead</span> : (
                  <button type="button" className="key-button px-2 py-0" disabled={keep.isPending} onClick={() => whole(one)}>As planned</button>
                )}
              </span>
            </li>
          ))}
        </ol>
        {all.length === 0 && <p className="px-5 text-sm text-ink-2">Nothing is planned or done in this week.</p>}
        <button type="button" className="key-button mx-5 mt-3" onClick={() => open("new")}>Write what was done</button>
        {gone && (
          <p role="status" className="mx-5 mt-3 text-sm">
            {gone.title || "The log"} is out of the book. <button type="button" className="trail-link" onClick={() => restore.mutate(gone.id)}>Undo</button>
          </p>
        )}
      </nav>
      <main className="min-h-0 overflow-auto bg-sheet px-6 pt-3 pb-10 max-md:px-4">
        {error && <p role="alert" className="mb-2 border-l-4 border-high pl-3 text-sm">{error.message}</p>}
        {writing ? (
          <WrittenLog place={place} days={found.data.days} today={found.data.today} stored={(id) => open(id)} />
        ) : current ? (
          <One
            key={keyOf(current)} place={place} one={current} names={names.data?.movements ?? []} busy={keep.isPending}
            keep={(session) => keep.mutate({ one: current, session })} whole={() => whole(current)} remove={() => remove.mutate(current)}
          />
        ) : (
          <p className="max-w-prose py-6">Write what was done, or go to a week that has a plan with <kbd className="font-mono text-xs">[</kbd> and <kbd className="font-mono text-xs">]</kbd>.</p>
        )}
      </main>
    </div>
  );
}

function state(one: Session): string {
  const differ = one.lines.filter((line) => line.kind !== "as planned").length;
  if (!one.plan) return "not planned";
  return differ === 0 ? "as planned" : `${differ} set${differ === 1 ? "" : "s"} differ${differ === 1 ? "s" : ""}`;
}

function One({ place, one, names, busy, keep, whole, remove }: {
  place: WeekPlace;
  one: Session;
  names: Schemas["MovementName"][];
  busy: boolean;
  keep: (session: CoreSession) => void;
  whole: () => void;
  remove: () => void;
}) {
  const session = one.log?.session ?? emptyLog(one.plan?.date ?? "", one.plan?.title ?? "");
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h2 className="text-lg font-semibold">{session.title || "Session"} <span className="text-base font-normal text-ink-2">{day(session.date)}</span></h2>
        {one.plan && <button type="button" className="key-button" disabled={busy} title={`Key ${KEYS.asPlanned.key}`} onClick={whole}>All as planned</button>}
        {one.log && <button type="button" className="trail-link ml-auto text-sm text-ink-2" disabled={busy} onClick={remove}>Take out</button>}
      </div>
      <Versions place={place} one={one} />
      <Sums one={one} />
      {one.notes.map((note) => <p key={note} className="border-l-4 border-caution pl-3 text-sm">{note}</p>)}
      {(session.pain ?? []).map((pain, at) => (
        // What hurt has no name but its place.
        <p key={at} className="border-l-4 border-high pl-3 text-sm">
          Stopped{pain.exercise ? ` at ${pain.exercise}` : ""} because something hurt{pain.note ? `: “${pain.note}”` : ""}.
        </p>
      ))}
      <LogLines place={place} one={one} session={session} names={names} busy={busy} keep={(sets) => keep({ ...session, sets })} />
      <After key={`${one.log?.revision}`} session={session} disabled={!one.log} keep={keep} />
      <p className="mt-4 max-w-prose text-xs text-ink-2">
        Type only what differed: <code>11</code>, <code>at 14 kg</code>, <code>9 at 12 kg RPE 9</code>, <code>40 s</code>, <code>easier</code>. Sharp pain, chest pain, dizziness
        or numbness end a session and are for a doctor.
      </p>
    </>
  );
}

function Sums({ one }: { one: Session }) {
  if (!one.log) return <p className="py-1 text-sm text-ink-2">{one.plan ? `${one.plan.sets.length} sets planned, about ${Math.round(one.plan.minutes)} min. Nothing logged yet.` : ""}</p>;
  return (
    <p className="flex flex-wrap gap-x-6 py-1 text-sm">
      {(["sets", "reps", "volume_load_kg", "tut_s"] as const).map((measure) => (
        <span key={measure}>
          {amount(one.done[measure] ?? 0, measure)} {measure === "tut_s" ? "s of tension" : unit(measure)}
          {one.plan && <span className="text-ink-2"> of {amount(one.planned[measure] ?? 0, measure)}{one.planned[measure] ? ` (${share((one.done[measure] ?? 0) / one.planned[measure])})` : ""}</span>}
        </span>
      ))}
    </p>
  );
}

function Versions({ place, one }: { place: WeekPlace; one: Session }) {
  const decide = useChange(({ id, keep }: { id: number; keep: "stored" | "other" }) => logs.decide(place.athlete, id, keep));
  return one.versions.map((version) => (
    <section key={version.id} aria-label="Two versions" className="my-2 border-l-4 border-caution bg-paper px-4 py-2 text-sm">
      <p className="font-semibold">This session was changed in two places. Both are kept: which one is right?</p>
      <p className="text-ink-2">Stored: {one.log?.session.sets.length} sets{one.log?.session.rpe != null ? `, RPE ${one.log.session.rpe}` : ""}. The other, arrived {day(version.day)}: {version.session.sets.length} sets{version.session.rpe != null ? `, RPE ${version.session.rpe}` : ""}{version.session.notes ? `, “${version.session.notes}”` : ""}.</p>
      <p className="mt-1 flex gap-3">
        <button type="button" className="key-button" disabled={decide.isPending} onClick={() => decide.mutate({ id: version.id, keep: "stored" })}>Keep the stored one</button>
        <button type="button" className="key-button" disabled={decide.isPending} onClick={() => decide.mutate({ id: version.id, keep: "other" })}>Take the other</button>
      </p>
    </section>
  ));
}

/** What is said of the whole session afterwards. */
function After({ session, disabled, keep }: { session: CoreSession; disabled: boolean; keep: (session: CoreSession) => void }) {
  const [rpe, setRpe] = useState(session.rpe === null || session.rpe === undefined ? "" : String(session.rpe));
  const [minutes, setMinutes] = useState(session.duration_min === null || session.duration_min === undefined ? "" : String(session.duration_min));
  const [notes, setNotes] = useState(session.notes ?? "");
  const number = (text: string) => (text.trim() === "" ? null : Number(text.replace(",", ".")));
  const wrong = (text: string, most: number) => {
    const value = number(text);
    return value !== null && !(value >= 0 && value <= most);
  };
  const store = () => {
    if (wrong(rpe, 10) || wrong(minutes, 1440)) return;
    const next = { ...session, rpe: number(rpe), duration_min: number(minutes), notes };
    if (next.rpe !== (session.rpe ?? null) || next.duration_min !== (session.duration_min ?? null) || next.notes !== (session.notes ?? "")) keep(next);
  };
  return (
    <div className="mt-4 flex flex-wrap items-end gap-4 text-sm">
      <label>Exertion, 0 to 10
        <input value={rpe} disabled={disabled} inputMode="decimal" aria-invalid={wrong(rpe, 10) || undefined} onChange={(event) => setRpe(event.target.value)} onBlur={store} className="field mt-0.5 block w-20 aria-invalid:border-high" />
      </label>
      <label>Minutes
        <input value={minutes} disabled={disabled} inputMode="decimal" aria-invalid={wrong(minutes, 1440) || undefined} onChange={(event) => setMinutes(event.target.value)} onBlur={store} className="field mt-0.5 block w-20 aria-invalid:border-high" />
      </label>
      <label className="min-w-60 flex-1">Notes
        <input value={notes} disabled={disabled} maxLength={2000} onChange={(event) => setNotes(event.target.value)} onBlur={store} className="field mt-0.5 block w-full" />
      </label>
      {wrong(rpe, 10) && <p role="alert" className="w-full text-high">Exertion goes from 0 to 10.</p>}
      {wrong(minutes, 1440) && <p role="alert" className="w-full text-high">A session has from 0 to 1440 minutes.</p>}
    </div>
  );
}
