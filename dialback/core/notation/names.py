"""Movement names as coaches write them: whole, in the plural, without hyphens, or begun."""

from __future__ import annotations

import difflib
import re
from collections import defaultdict
from collections.abc import Iterator
from functools import lru_cache
from typing import Final

from dialback.core.movements import Movement, MovementTable, fold
from dialback.core.notation.slips import SlipError

MOST_LETTERS_OFF: Final = 4
_DOSE_BEGINS: Final = re.compile(
    r"[ \t,:]{0,8}(?:(?<!\w)[0-9]|\(|\b(?:tempo|rest|hold|help|at|each|per|alternating|left|right"
    r"|both|warm-?up|to failure|for time|rpe|rir|bw|with|easier|harder)\b|[+@])",
    re.IGNORECASE,
)
_LEVEL: Final = re.compile(r"[ \t,]{0,8}\b(easier|harder)\b", re.IGNORECASE)
_SHORT: Final = (("dumbbell", "db"), ("kettlebell", "kb"), ("barbell", "bb"))
_ONE_SIDED: Final = re.compile(r"\b(?:one|single)[- ](?:arm|leg|side)(?:ed)?\b", re.IGNORECASE)


def one_sided(movement: Movement) -> bool:
    """Whether it is done one side after the other: it says so, or its name does."""
    return movement.one_sided or bool(_ONE_SIDED.search(movement.name))


class Names:
    """The names of a table of movements, in all their spellings."""

    def __init__(self, movements: MovementTable) -> None:
        self.movements = movements
        # A name goes before an alias that is spelt alike, both go before what they become.
        self._called: dict[str, str] = {}
        for movement in movements:
            self._called.setdefault(_flat(movement.name)[0], movement.name)
        for movement in movements:
            for alias in movement.aliases:
                self._called.setdefault(_flat(alias)[0], movement.name)
        self._own = dict(self._called)
        derived: defaultdict[str, set[str]] = defaultdict(set)
        for movement in movements:
            for spelling in (movement.name, *movement.aliases):
                for other in _variants(spelling):
                    derived[other].add(movement.name)
        for spelling, names in derived.items():
            if len(names) == 1:
                self._called.setdefault(spelling, next(iter(names)))
        self._by_letters: defaultdict[str, list[str]] = defaultdict(list)
        for spelling in sorted(self._called, key=len, reverse=True):
            self._by_letters[spelling[:2]].append(spelling)
        self._longest = max(map(len, self._called), default=0) + 16
        self.begins = lru_cache(maxsize=2048)(self._begins)

    def split(self, text: str, at: int) -> tuple[str, int]:
        """The movement that a text begins with, and how many characters its name takes.

        A level word behind the name, as in ``Press-up harder``, means the neighbour. ``at`` is
        where the text stands in its line.
        """
        name, length = self._named(text, at)
        while word := _LEVEL.match(text, length):
            name = self.level(name, word[1], at + word.start(1))
            length = word.end()
        return name, length

    def level(self, name: str, word: str, at: int) -> str:
        """The easier or harder neighbour of a movement."""
        movement = self.movements[name]
        neighbour = movement.easier if word.lower() == "easier" else movement.harder
        if neighbour is None or neighbour not in self.movements:
            raise SlipError(
                at,
                len(word),
                f"{name} has no {word.lower()} level: write the "
                "movement's own name, or point to one in Movements",
            )
        return self.movements[neighbour].name

    def _begins(self, text: str) -> tuple[str, int] | None:
        """The movement whose name or alias, the longest, a text begins with; and its length."""
        flat, places = _flat(text[: self._longest])
        for spelling in self._by_letters.get(flat[:2], ()):
            if flat.startswith(spelling) and not flat[len(spelling) : len(spelling) + 1].isalnum():
                return self._called[spelling], places[len(spelling) - 1] + 1
        return None

    def _named(self, text: str, at: int) -> tuple[str, int]:
        found = self.begins(text)
        if found:
            return found
        begins = _DOSE_BEGINS.search(text[:400])
        written = (text[: begins.start()] if begins else text).rstrip(" \t,:-")
        if not written:
            raise SlipError(at, 1, "a movement's name is expected here")
        return self._by_beginning(written, at), len(written)

    def _by_beginning(self, written: str, at: int) -> str:
        flat, _ = _flat(written)
        begin = self._beginning(flat, names=True) or self._beginning(flat, names=False)
        if len(begin) == 1:
            return begin[0]
        if begin:
            names = ", ".join(begin[:4])
            raise SlipError(at, len(written), f"{written!r} may be {names}: write more of it")
        raise SlipError(at, len(written), f"no movement is called {written!r}{self.near(written)}")

    def near(self, written: str) -> str:
        """A question for the movement that was perhaps meant; empty if none is near."""
        flat = _flat(written)[0][:80]
        # Nobody slips in the first letter and in the length at once; the rest is not compared.
        likely = [
            one
            for one in self._own
            if abs(len(one) - len(flat)) <= MOST_LETTERS_OFF
            and (one[0] == flat[:1] or len(one) == len(flat))
        ]
        found = difflib.get_close_matches(flat, likely, n=1)
        return f". Did you mean {self._own[found[0]]}?" if found else ""

    def _beginning(self, flat: str, *, names: bool) -> list[str]:
        """The movements whose names, or whose aliases, begin so.

        Where it is the whole first words of one alone, as in "lat" for a pull-down of the lats
        beside a lateral raise, that one is meant.
        """
        found = {
            (spelling, name)
            for spelling, name in self._own.items()
            if spelling.startswith(flat) and (spelling == _flat_name(name)) == names
        }
        whole = {name for spelling, name in found if spelling.startswith(f"{flat} ")}
        return sorted(whole if len(whole) == 1 else {name for _, name in found})


@lru_cache(maxsize=64)
def names_of(movements: MovementTable) -> Names:
    """The names of a table; they are worked out once for each table at hand."""
    return Names(movements)


@lru_cache(maxsize=4096)
def _flat_name(text: str) -> str:
    return _flat(text)[0]


def _flat(text: str) -> tuple[str, list[int]]:
    """A text with letter case, hyphens, apostrophes and runs of blanks apart; and where each of
    its characters came from.
    """
    letters: list[str] = []
    places: list[int] = []
    blank = True
    for at, letter in enumerate(text.lower()) if text.isascii() else _folded(text):
        if letter in "- \t":
            if not blank:
                letters.append(" ")
                places.append(at)
            blank = True
        elif letter != "'":
            letters.append(letter)
            places.append(at)
            blank = False
    while letters and letters[-1] == " ":
        letters.pop()
        places.pop()
    return "".join(letters), places


def _folded(text: str) -> Iterator[tuple[int, str]]:
    """Each letter without its case; one may become several."""
    return ((at, one) for at, letter in enumerate(text) for one in letter.casefold())


def _variants(spelling: str) -> set[str]:
    """Other ways to write a name: in the plural, in one word, with the short word for the kit."""
    words = {spelling, spelling.replace("-", "")}
    for long, short in _SHORT:
        words |= {
            re.sub(rf"\b{long}s?\b", short, word, flags=re.IGNORECASE)
            for word in tuple(words)
            if long in fold(word)
        }
    found = set()
    for word in words:
        head, comma, tail = word.partition(",")
        found |= {_flat(one)[0] for one in (word, _plural(head) + comma + tail, _plural(word))}
    return found


def _plural(word: str) -> str:
    lower = word.lower().rstrip()
    if lower.endswith("y") and lower[-2:-1] not in "aeiou":
        return word.rstrip()[:-1] + "ies"
    return word.rstrip() + ("es" if lower.endswith(("s", "x", "ch", "sh")) else "s")
