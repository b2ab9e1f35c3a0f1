import { useState } from "react";
import { NavLink } from "react-router";
import { useMe } from "@/api/me";
import { DialogSheet } from "./DialogSheet";
import { Leave } from "./Leave";
import { switchTheme } from "./theme";

export interface BarLink {
  title: string;
  to: string;
}

interface Props {
  /** Where one goes most from here: four at most. */
  links: BarLink[];
  /** Everywhere else, under heads. */
  groups: { title: string; links: BarLink[] }[];
}

/** On a phone: the places that are near, under the thumb, and a sheet with all the others. */
export function BottomBar({ links, groups }: Props) {
  const [open, setOpen] = useState(false);
  const who = useMe().data;
  return (
    <nav
      aria-label="Places near"
      className="no-print flex border-t border-rule bg-paper pb-[env(safe-area-inset-bottom)] md:hidden"
    >
      {links.map((link) => (
        <NavLink key={link.to} to={link.to} end className={({ isActive }) => item(isActive)}>
          {link.title}
        </NavLink>
      ))}
      <button type="button" className={item(false)} onClick={() => setOpen(true)}>
        More
      </button>
      <DialogSheet open={open} close={() => setOpen(false)} title="Places">
        {groups.map((group) => (
          <section key={group.title} className="mb-3">
            <h3 className="border-b border-rule text-sm text-ink-2 italic">{group.title}</h3>
            <ul className="grid grid-cols-2 gap-x-4">
              {group.links.map((link) => (
                <li key={link.to} className="border-b border-hair">
                  <NavLink
                    to={link.to}
                    end
                    onClick={() => setOpen(false)}
                    className={({ isActive }) =>
                      `flex min-h-11 items-center ${isActive ? "font-semibold" : ""}`
                    }
                  >
                    {link.title}
                  </NavLink>
                </li>
              ))}
            </ul>
          </section>
        ))}
        <p className="flex gap-3">
          <button type="button" className="key-button min-h-11" onClick={switchTheme}>
            Light or dark
          </button>
          <button type="button" className="key-button min-h-11" onClick={() => setOpen(false)}>
            Close
          </button>
          {who?.state === "in" && (
            <span className="ml-auto self-center">
              <Leave name={who.name} />
            </span>
          )}
        </p>
      </DialogSheet>
    </nav>
  );
}

const item = (isActive: boolean) =>
  `flex min-h-12 min-w-0 flex-1 items-center justify-center border-t-2 px-1 text-sm whitespace-nowrap ${
    isActive ? "border-ink font-semibold" : "border-transparent text-ink-2"
  }`;
