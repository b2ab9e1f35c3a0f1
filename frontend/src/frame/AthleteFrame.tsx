import { useEffect } from "react";
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from "react-router";
import type { Schemas } from "@/api/client";
import { type Who, useMay, useMe } from "@/api/me";
import { type WeekPlace } from "@/api/place";
import { inWindow } from "@/api/remember";
import { reportPath, useFrame } from "@/api/sheet";
import { date, span, weekName } from "@/words";
import { type BarLink, BottomBar } from "./BottomBar";
import { CareLine } from "./CareLine";
import { Damaged } from "./Damaged";
import { Failure } from "./Failure";
import { Hurting } from "./Hurting";
import { houseLinks } from "./houseLinks";
import { KEYS, useKeys } from "./keys";
import { PrintButton } from "./PrintButton";
import { useTitle } from "./useTitle";
import { ATHLETE_PLACES, type Place, isFor, weekPath } from "./places";

/** The place in the address: whose week, and which. */
export function useWeekPlace(): WeekPlace {
  const { athlete = "", week = "" } = useParams();
  return { athlete: Number(athlete), week };
}

const LAST = "dialback.last";

/** Places that make a plan. */
const PLANNING = new Set(["block", "dial", "write"]);

/** The week that was last looked at, for places of the house that try things on a week. */
export function lastPlace(): WeekPlace | null {
  try {
    return JSON.parse(inWindow.get(LAST) ?? "null") as WeekPlace | null;
  } catch {
    return null;
  }
}

/** The frame that an athlete's places share: name, week, the steps of the work in order. */
export function AthleteFrame() {
  const place = useWeekPlace();
  const frame = useFrame(place);
  const { pathname, search } = useLocation();
  const here = pathname.split("/").at(-1) ?? "sheet";
  const go = useNavigate();
  const at = frame.data;
  const there = (week: string | undefined, to = here) => {
    // The long line keeps its length and its open rows from week to week.
    const kept = to === here && here === "season" ? search : "";
    if (week) go(weekPath(place.athlete, week, to) + kept);
  };
  // What was done cannot be planned again: from a week that is over one goes on to plan the next.
  const weekFor = (path: string) =>
    PLANNING.has(path) && !PLANNING.has(here) && at?.over ? at.after : place.week;
  useEffect(() => {
    inWindow.set(LAST, JSON.stringify({ athlete: place.athlete, week: place.week }));
  }, [place.athlete, place.week]);
  useTitle(pathname, at && `${at.athlete.name}, ${weekName(at.week)}`);
  const who = useMe().data;
  const mayRead = useMay("read");
  const places = ATHLETE_PLACES.filter((one) => isFor(who, one));
  useKeys({
    weekBack: () => there(at?.before),
    weekOn: () => there(at?.after),
    ...Object.fromEntries(places.map((one) => [one.key, () => there(weekFor(one.path), one.path)])),
  });
  if (frame.error) return <Failure error={frame.error} />;
  return (
    <>
      <div className="athlete-head flex items-baseline gap-8 border-b border-rule bg-sheet px-6 pt-2.5 pb-2 max-lg:flex-wrap max-lg:gap-x-4 max-lg:gap-y-1 max-md:px-4">
        <h1 className="min-w-0 shrink-0 text-xl font-semibold">{at?.athlete.name ?? "…"}</h1>
        <WeekSteps week={place.week} at={at} there={there} />
        <p
          className="min-w-0 flex-1 truncate text-sm text-ink-2 italic max-lg:w-full max-lg:flex-none print:whitespace-normal"
          title={at?.athlete.note}
        >
          {at && at.restrictions.length > 0 && (
            <Restricted
              notes={at.restrictions}
              sunday={at.sunday}
              to={weekPath(place.athlete, place.week, "rules")}
            />
          )}
          {at && <CareLine notes={at.care} />}
          <span className="max-lg:not-print:hidden">{at?.athlete.note}</span>
        </p>
        {mayRead && at && (
          <PrintButton
            athlete={{ id: at.athlete.id, name: at.athlete.name }}
            className="trail-link shrink-0 max-md:min-h-8"
          />
        )}
        <Steps
          place={place}
          places={places}
          weekFor={weekFor}
          own={who?.athlete === place.athlete}
        />
      </div>
      <Hurting place={place} hurts={at?.hurts ?? []} />
      <Damaged lines={at?.damaged ?? []} />
      <Outlet />
      {who && (
        <AthleteBar
          who={who}
          name={at?.athlete.name ?? "The athlete"}
          links={places.map((one) => ({
            title: one.title,
            to: weekPath(place.athlete, weekFor(one.path), one.path),
          }))}
        />
      )}
    </>
  );
}

/** What is nearest on a phone, where it is for whoever looks: the round of a week. */
const NEAR = ["Roster", "My week", "Floor", "Week sheet", "Log", "Dial"];

interface BarProps {
  who: Who;
  name: string;
  links: BarLink[];
}

/** A phone's bar with an athlete: back to all, and the steps of the work. */
function AthleteBar({ who, name, links }: BarProps) {
  const house = houseLinks(who);
  const all = who.athlete === null ? [...house, ...links] : house;
  const near = NEAR.flatMap((title) => all.filter((one) => one.title === title));
  // The floor is for whoever has few other places.
  const shown = near.length > 4 ? near.filter((one) => one.title !== "Floor") : near;
  return (
    <BottomBar
      links={shown.slice(0, 4)}
      groups={[
        { title: name, links },
        { title: "The house", links: house },
      ]}
    />
  );
}

interface WeekStepsProps {
  week: string;
  at: Schemas["Frame"] | undefined;
  there: (week: string | undefined) => void;
}

/** The week in hand, and the ones beside it. */
function WeekSteps({ week, at, there }: WeekStepsProps) {
  return (
    <div className="flex shrink-0 items-baseline gap-1">
      <button
        type="button"
        className="no-print min-h-6 min-w-6 hover:bg-band"
        aria-label="Previous week"
        title={`Key ${KEYS.weekBack.key}`}
        onClick={() => there(at?.before)}
      >
        ◂
      </button>
      <span className="text-center">
        <span className="font-semibold">{weekName(week)}</span>
        {at && <span className="text-ink-2">, {span(at.monday, at.sunday)}</span>}
      </span>
      <button
        type="button"
        className="no-print min-h-6 min-w-6 hover:bg-band"
        aria-label="Next week"
        title={`Key ${KEYS.weekOn.key}`}
        onClick={() => there(at?.after)}
      >
        ▸
      </button>
    </div>
  );
}

interface StepsProps {
  place: WeekPlace;
  places: Place[];
  /** The week in which a place is opened. */
  weekFor: (path: string) => string;
  /** Whether it is the athlete who looks: there is a hand-out to take. */
  own: boolean;
}

/** The athlete's places that are for whoever looks, in the order of the work. */
function Steps({ place, places, weekFor, own }: StepsProps) {
  return (
    <nav
      aria-label="Steps of the work"
      className={`no-print flex shrink-0 gap-5 max-lg:w-full max-lg:shrink max-lg:overflow-x-auto max-lg:whitespace-nowrap ${own ? "" : "max-md:hidden"}`}
    >
      {places.map((one) => (
        <NavLink
          key={one.path}
          to={weekPath(place.athlete, weekFor(one.path), one.path)}
          title={`Key ${KEYS[one.key].key}`}
          className={({ isActive }) =>
            `border-b-2 ${isActive ? "border-ink" : "border-transparent text-ink-2 hover:text-ink"}`
          }
        >
          {one.title}
        </NavLink>
      ))}
      {own && (
        <a
          className="trail-link"
          href={reportPath(place, "week", "athlete")}
          target="_blank"
          rel="noreferrer"
        >
          Hand-out
        </a>
      )}
    </nav>
  );
}

interface RestrictedProps {
  notes: Schemas["RestrictionNote"][];
  /** The last day of the week in hand. */
  sunday: string;
  to: string;
}

/** The restrictions in force in a week, in every place of the athlete: on whose word, on hover. */
function Restricted({ notes, sunday, to }: RestrictedProps) {
  const lifted = (one: Schemas["RestrictionNote"]) =>
    one.lifted_on && one.lifted_on <= sunday ? `, lifted ${date(one.lifted_on)}` : "";
  const shown = {
    className:
      "mr-3 inline-block max-w-full truncate align-bottom text-high not-italic print:whitespace-normal",
    title: notes
      .map((one) => `${one.words}: ${one.by}, ${date(one.since)}${lifted(one)}. ${one.word}`)
      .join("\n"),
    children: notes.map((one) => one.words + lifted(one)).join("; "),
  };
  return useMay("plan") ? (
    <Link to={to} {...shown} className={`trail-link ${shown.className}`} />
  ) : (
    <span {...shown} />
  );
}
