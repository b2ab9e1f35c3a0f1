import { useState } from "react";
import { Navigate, NavLink, Outlet, useLocation, useNavigate } from "react-router";
import { useHouse } from "@/api/house";
import { type Who, useMe } from "@/api/me";
import { useUnit } from "@/api/unit";
import { Hatch } from "@/marks/hatch";
import { Wordmark } from "@/marks/Wordmark";
import { showIn } from "@/words";
import { type BarLink, BottomBar } from "./BottomBar";
import { Failure } from "./Failure";
import { Help } from "./Help";
import { Leave } from "./Leave";
import { SecondFirst } from "./SecondFirst";
import { SignIn } from "./SignIn";
import { KEYS, useKeys } from "./keys";
import { NotForYou } from "./NotForYou";
import { ATHLETE_PLACES, HOUSE_PLACES, type Place, isFor, weekPath } from "./places";
import { switchTheme } from "./theme";
import { PrintKey } from "./PrintButton";
import { skipToPlace, useHeading } from "./useHeading";
import { usePlaceOnPage } from "./usePlaceOnPage";
import { useTitle } from "./useTitle";
import { houseLinks } from "./houseLinks";
import { asWanted, useWanted } from "./wanted";

/** What stands around every place; nothing but the way in for whoever has to sign in first. */
export function Shell() {
  const me = useMe();
  const { pathname } = useLocation();
  // Whoever was known stays so while the connection is lost: a run goes on.
  if (!me.data)
    return me.error ? <Failure error={me.error} /> : <p className="p-6 text-ink-2">Loading…</p>;
  // A link opens for whoever has it, whoever was here before.
  if (pathname === "/door") return <Outlet />;
  if (me.data.state === "out") return <SignIn />;
  if (me.data.second === "needed") return <SecondFirst name={me.data.name} />;
  return <Inside who={me.data} />;
}

/** The house from the inside: the sign, its places, help and lamp. */
function Inside({ who }: { who: Who }) {
  const [help, setHelp] = useState(false);
  const go = useNavigate();
  const unit = useUnit();
  const house = useHouse();
  const { pathname } = useLocation();
  useHeading(pathname);
  useWanted();
  usePlaceOnPage();
  useTitle(pathname);
  const shown = unit.data?.unit ?? "kg";
  showIn(shown);
  const places = HOUSE_PLACES.filter((one) => isFor(who, one));
  const own = who.athlete === null ? null : weekPath(who.athlete, who.week, "log");
  const shut = shutFor(who, pathname);
  const links = houseLinks(who);
  // On a phone the athlete's name is the head of the page.
  const withAthlete = pathname.startsWith("/athletes/");
  useKeys({
    help: () => setHelp(true),
    theme: switchTheme,
    ...Object.fromEntries(places.map((one) => [one.key, () => void go(asWanted(one.path))])),
  });
  return (
    <div className="shell print-open relative flex h-dvh flex-col overflow-clip">
      <Hatch />
      <button
        type="button"
        onClick={skipToPlace}
        className="sr-only focus:not-sr-only focus:absolute focus:z-20 focus:bg-sheet focus:p-2"
      >
        Skip to the content
      </button>
      <header
        className={`no-print flex items-baseline gap-7 border-b border-rule px-6 pt-2.5 pb-2 max-md:gap-4 max-md:px-4 ${withAthlete ? "max-md:hidden" : ""}`}
      >
        <NavLink to={own ?? asWanted("/")} className="shrink-0 text-lg">
          <Wordmark />
        </NavLink>
        {house.data?.name && (
          <span className="max-w-40 truncate text-sm text-ink-2 italic md:max-xl:hidden">
            {house.data.name}
          </span>
        )}
        <nav
          aria-label="Places"
          className="flex min-w-0 gap-5 whitespace-nowrap max-xl:overflow-x-auto max-md:hidden"
        >
          {own && <PlaceLink title="My week" path={own} />}
          {places.map((place) => (
            <PlaceLink
              key={place.path}
              title={place.title}
              path={place.path}
              hint={`Key ${KEYS[place.key].key}`}
            />
          ))}
        </nav>
        <span className="ml-auto flex shrink-0 gap-5 text-sm text-ink-2">
          <button type="button" onClick={switchTheme} className="hover:text-ink max-md:hidden">
            Light or dark <kbd className="font-mono text-2xs">{KEYS.theme.key}</kbd>
          </button>
          <button
            type="button"
            onClick={() => setHelp(true)}
            className="hover:text-ink max-md:hidden"
          >
            Keys <kbd className="font-mono text-2xs">{KEYS.help.key}</kbd>
          </button>
          {who.state === "in" && <Leave name={who.name} />}
        </span>
      </header>
      {/* Another unit is another text everywhere: all of it is laid out anew. */}
      {!shut ? (
        <Outlet key={shown} />
      ) : pathname === "/" ? (
        <Navigate to={own ?? "/"} replace />
      ) : (
        <NotForYou place={shut} who={who} home={own ?? "/"} />
      )}
      {!withAthlete && pathname !== RUN && <HouseBar places={links} />}
      {!withAthlete && pathname !== "/" && who.rights.includes("read") && <PrintKey />}
      <Help open={help} close={() => setHelp(false)} />
    </div>
  );
}

/** A run has all of a phone for itself. */
const RUN = "/floor/run";

/** What is nearest on a phone, where it is for whoever looks. */
const NEAR = ["My week", "Roster", "Floor", "Movements", "Journal"];

/** A phone's bar in the places of the house: the four one needs most, whoever one is. */
function HouseBar({ places }: { places: BarLink[] }) {
  const near = NEAR.flatMap((title) => places.filter((one) => one.title === title));
  return <BottomBar links={near.slice(0, 4)} groups={[{ title: "The house", links: places }]} />;
}

/** The place of an address that is not for whoever is here; unknown addresses say so themselves. */
function shutFor(who: Who, path: string): Place | undefined {
  const [, first, , , , last] = path.split("/");
  const all = first === "athletes" ? ATHLETE_PLACES : HOUSE_PLACES;
  const wanted = first === "athletes" ? last : `/${first ?? ""}`;
  return all.find((one) => one.path === wanted && !isFor(who, one));
}

function PlaceLink({ title, path, hint }: { title: string; path: string; hint?: string }) {
  // What was looked for there is found again.
  useLocation();
  return (
    <NavLink
      to={asWanted(path)}
      end
      title={hint}
      className={({ isActive }) =>
        `border-b-2 ${isActive ? "border-ink" : "border-transparent text-ink-2 hover:text-ink"}`
      }
    >
      {title}
    </NavLink>
  );
}
