"""What belongs to the whole house: its rules, its kit, the unit of weight."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any, Final

from dialback.book.errors import BadInputError, Problem, bad_input
from dialback.core.kit import STARTS, Kit, together
from dialback.core.movements import fold
from dialback.core.rules import PRESETS, RULES, Rules, merge
from dialback.core.words import Unit, listed
from dialback.store.athletes import athlete_on_roster, house
from dialback.store.journal import before
from dialback.store.models import House
from dialback.store.unit import touch, touch_house, unit
from dialback.work.errors import ConflictError, NotThereError, StaleError


@dataclass(frozen=True, slots=True)
class School:
    """A school of the house's own: its name, and what it chooses otherwise than the defaults."""

    name: str
    rules: dict[str, Any]


def keep_house_rules(chosen: Mapping[str, Any], revision: int) -> int:
    """Keep the house's choices; the new revision. Raises ``StaleError``, ``BadInputError``."""
    with unit() as entry:
        changes = rules_of_choices(chosen, {}).changes()
        owner = house()
        if owner.revision != revision:
            raise StaleError("The house rules")
        was = before(owner, "rules")
        owner.rules = _with_unknown(owner.rules, changes)
        owner.revision += 1
        owner.save()
        touch_house()
        entry.tell(
            f"Changed the house rules{_which(was.was['rules'], owner.rules)}", undo=was.undo()
        )
        return int(owner.revision)


def keep_athlete_rules(number: int, chosen: Mapping[str, Any], revision: int) -> int:
    """Keep an athlete's own choices; the new revision. Raises ``StaleError``, ``BadInputError``."""
    with unit() as entry:
        of_house = house().rules
        changes = rules_of_choices(chosen, of_house).changes(since=merge(of_house))
        athlete = athlete_on_roster(number)
        if athlete.revision != revision:
            raise StaleError(f"The rules of {athlete.name}")
        was = before(athlete, "rules")
        athlete.rules = _with_unknown(athlete.rules, changes)
        athlete.revision += 1
        touch(athlete)
        told = f"Changed the athlete's own rules{_which(was.was['rules'], athlete.rules)}"
        entry.tell(told, athlete, undo=was.undo())
        return int(athlete.revision)


def _which(was: Mapping[str, Any], now: Mapping[str, Any]) -> str:
    """The rules that were changed, by their titles."""
    titles = {rule.name: rule.title for rule in RULES}
    names = [name for name in titles if was.get(name) != now.get(name)]
    return f": {listed([titles[name].lower() for name in names])}" if names else ""


MOST_SCHOOLS: Final = 12
"""Schools of a house's own; more are not told apart side by side."""


def schools_of_house() -> list[School]:
    """The house's own schools, in the order in which they were saved."""
    return [School(school["name"], school["rules"]) for school in house().schools]


def save_school(name: str, chosen: Mapping[str, Any]) -> None:
    """Save choices as a school of the house.

    Raises ``ConflictError`` for a name that is there, ``BadInputError`` for what is no rule.
    """
    with unit() as entry:
        changes = rules_of_choices(chosen, {}).changes()
        owner, name = house(), name.strip()
        taken = {fold(one) for one in (*PRESETS, *(school["name"] for school in owner.schools))}
        if not name or fold(name) in taken:
            taken_by = f"There is already a school called {name!r}."
            told = taken_by if name else "A school needs a name."
            raise ConflictError("school-name", f"{told} Choose another name.")
        if len(owner.schools) >= MOST_SCHOOLS:
            raise ConflictError(
                "many-schools", f"There are {MOST_SCHOOLS} schools of your own: remove one first."
            )
        was = before(owner, "schools")
        owner.schools = [*owner.schools, {"name": name, "rules": changes}]
        owner.save()
        entry.tell(f"Saved the school {name}", undo=was.undo())


def remove_school(name: str) -> None:
    """Remove a school of the house. Raises ``NotThereError``."""
    with unit() as entry:
        owner = house()
        left = [school for school in owner.schools if school["name"] != name]
        if len(left) == len(owner.schools):
            raise NotThereError(f"The house has no school of its own called {name!r}.")
        was = before(owner, "schools")
        owner.schools = left
        owner.save()
        entry.tell(f"Removed the school {name}", undo=was.undo())


def rules_of_choices(chosen: Mapping[str, Any], under: Mapping[str, Any]) -> Rules:
    """The choices over those under them. Raises ``BadInputError`` for what is no rule."""
    rules = merge(under, chosen)
    unknown = merge(chosen).unknown()
    if unknown:
        raise BadInputError(
            [Problem(f"chosen.{name}", "no rule has this name") for name in unknown]
        )
    return rules


def _with_unknown(stored: Mapping[str, Any], chosen: dict[str, Any]) -> dict[str, Any]:
    """Choices to store: rules that an import brought and that nobody knows stay where they are."""
    unknown = {name: value for name, value in stored.items() if name not in Rules.model_fields}
    return {**unknown, **chosen}


def keep_kit(kit: Kit, revision: int) -> int:
    """Keep what the room has; the new revision. Raises ``StaleError``."""
    with unit() as entry:
        owner = house()
        if owner.kit_revision != revision:
            raise StaleError("The kit")
        was = before(owner, "kit")
        owner.kit = kit.model_dump(mode="json", exclude_defaults=True)
        owner.kit_revision += 1
        # Loads in per cent and the judgement of steps look at the kit.
        owner.save(only=[House.kit, House.kit_revision])
        touch_house()
        entry.tell("Changed the kit", undo=was.undo())
        return int(owner.kit_revision)


def begin_kit(starts: Iterable[str], revision: int) -> int:
    """Add what many rooms have to the kit, by how it is said; the new revision.

    Raises ``StaleError``, and ``BadInputError`` for what is not among it.
    """
    known = dict(STARTS)
    chosen = list(starts)
    if unknown := [says for says in chosen if says not in known]:
        raise bad_input("starts", f"{unknown[0]!r:.80} is not among what a kit can begin with")
    with unit():
        there = Kit.model_validate(house().kit or {})
        return keep_kit(together([there, *(known[says] for says in chosen)]), revision)


def show_weights_in(shown: Unit) -> None:
    """Show weights in another unit; what is kept stays as it is."""
    with unit() as entry:
        # Sentences were said in the other unit: they are made anew.
        House.update(unit=shown, change=House.change + 1).execute()
        entry.tell(f"Changed the unit of weights to {shown}")


def name_house(name: str) -> None:
    """Call the house something."""
    with unit() as entry:
        House.update(name=name).execute()
        entry.tell(f"Named the house {name}" if name else "Removed the name of the house")
