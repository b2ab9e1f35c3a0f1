import { Link } from "react-router";
import type { Who } from "@/api/me";
import type { Place } from "./places";

const WHOSE = {
  "run the house": "owners",
  plan: "owners and coaches",
  log: "owners, coaches and assistants",
  read: "the people who work here",
} as const satisfies Record<Place["needs"], string>;

interface Props {
  place: Place;
  who: Who;
  home: string;
}

const article = (role: string) => `${/^[aeiou]/.test(role) ? "an" : "a"} ${role}’s`;

/** A place that whoever is here may not enter: whose it is, and the way back. */
export function NotForYou({ place, who, home }: Props) {
  return (
    <main className="p-6">
      <h1 className="text-xl font-semibold">{place.title}</h1>
      <p className="mt-2 max-w-prose">
        This page is for {WHOSE[place.needs]}; your account is {article(who.role)}. Ask an owner of
        the house if you need it.{" "}
        <Link to={home} className="trail-link">
          Back
        </Link>
      </p>
    </main>
  );
}
