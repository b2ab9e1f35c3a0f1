import { useState } from "react";
import { NavLink, Outlet, useNavigate } from "react-router";
import { useHouse } from "@/api/house";
import { useUnit } from "@/api/unit";
import { Hatch } from "@/marks/hatch";
import { Wordmark } from "@/marks/Wordmark";
import { showIn } from "@/words";
import { Help } from "./Help";
import { KEYS, useKeys } from "./keys";
import { HOUSE_PLACES } from "./places";
import { switchTheme } from "./theme";

/** What stands around every place: the sign, the places of the house, help and lamp. */
export function Shell() {
  const [help, setHelp] = useState(false);
  const go = useNavigate();
  const unit = useUnit();
  const house = useHouse();
  const shown = unit.data?.unit ?? "kg";
  showIn(shown);
  useKeys({
    help: () => setHelp(true),
    lamp: switchTheme,
    roster: () => go("/"),
    floor: () => go("/floor"),
    movements: () => go("/movements"),
    kit: () => go("/kit"),
    house: () => go("/rules"),
    files: () => go("/files"),
  });
  return (
    <div className="flex h-dvh flex-col print-open">
      <Hatch />
      <header className="no-print flex items-baseline gap-8 border-b border-rule px-6 pt-2.5 pb-2 max-md:gap-4 max-md:px-4">
        <NavLink to="/" className="shrink-0 text-lg">
          <Wordmark />
        </NavLink>
        {house.data?.name && (
          <span className="max-w-56 truncate text-sm text-ink-2 italic max-lg:hidden">
            {house.data.name}
          </span>
        )}
        <nav
          aria-label="Places"
          className="flex gap-6 whitespace-nowrap max-md:gap-4 max-md:overflow-x-auto"
        >
          {HOUSE_PLACES.map((place) => (
            <NavLink
              key={place.path}
              to={place.path}
              end
              title={`Key ${KEYS[place.key].key}`}
              className={({ isActive }) =>
                `border-b-2 ${isActive ? "border-ink" : "border-transparent text-ink-2 hover:text-ink"}`
              }
            >
              {place.title}
            </NavLink>
          ))}
          <button type="button" onClick={switchTheme} className="text-ink-2 md:hidden">
            Light or dark
          </button>
        </nav>
        <span className="ml-auto flex gap-5 text-sm text-ink-2 max-md:hidden">
          <button type="button" onClick={switchTheme} className="hover:text-ink">
            Light or dark <kbd className="font-mono text-2xs">l</kbd>
          </button>
          <button type="button" onClick={() => setHelp(true)} className="hover:text-ink">
            Keys <kbd className="font-mono text-2xs">?</kbd>
          </button>
        </span>
      </header>
      {/* Another unit is another text everywhere: all of it is laid out anew. */}
      <Outlet key={shown} />
      <Help open={help} close={() => setHelp(false)} />
    </div>
  );
}
