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
FEWEST_SQUEEZED: Final = 6
"""Names as long as this are known with their blanks in other places."""
_DOSE_BEGINS: Final = re.compile(
    r"[ \t,:]{0,8}(?:(?<!\w)[0-9]|\(|\b(?:tempo|rest|hold|help|at|each|per|alternating|left|right"
    r"|both|warm-?up|to failure|for time|rpe|rir|bw|with|easier|harder)\b|[+@])",
    re.IGNORECASE,
)
CLOSE: Final = 0.8
MOST_NAMED: Final = 4
_BEHIND_NAME: Final = re.compile(
    r"[ \t]{0,8}\((?:on[ ])?([a-z][a-z -]{1,40}(?:[0-9]{1,3}[ ]?cm)?)\)"
    r"|,[ \t]{1,8}(?:on[ ])?([a-z][a-z -]{1,40}?(?:[ ][0-9]{1,3}[ ]?cm)?)"
    r"(?=[ \t]{0,8}(?:[,;(]|[0-9]|$)|[ \t]{1,8}[x×*][ ]?[0-9])"
    r"|[ \t]{1,8}(?:on[ ])?([a-z][a-z -]{2,30}?)(?=[ \t]{0,8}[0-9(])",
    re.IGNORECASE,
)
_BRACKET: Final = re.compile(
    r"([a-z][a-z -]{2,40}?)[ ]{0,4}\(([a-z][a-z -]{2,40})\)", re.IGNORECASE
)
_FLAT_WORD: Final = re.compile(r"[^ (,:;@+/0-9][^ (,:;@+/]*")
_SAME_WORD: Final = {
    "single": "one", "legged": "leg", "armed": "arm", "handed": "hand", "sided": "side",
    "db": "dumbbell", "kb": "kettlebell", "bb": "barbell", "foot": "feet", "elevated": "raised",
    "knee": "knees", "hand": "hands",
}  # fmt: skip
_MUSCLE_WORDS: Final = {
    "pec": "chest", "pectoral": "chest", "breast": "chest", "ham": "hamstring",
    "hammy": "hamstring", "thigh": "quad", "butt": "glute", "bum": "glute", "ab": "abs",
    "core": "abs", "belly": "abs", "shoulder": "delt", "calf": "calve", "grip": "forearm",
    "wrist": "forearm", "lumbar": "lower", "tri": "tricep", "bi": "bicep",
}  # fmt: skip
"""How people call what a movement trains, to the word of the vocabulary in the singular."""
_NO_NAME: Final = frozenset({"on", "a", "the", "with", "at", "only", "an", "in", "of", "and"})
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
        self._most_words = max((len(one.split()) for one in self._called), default=1) + 2
        # "Benchpress", "dead lift": blanks in the wrong place.
        self._squeezed: dict[str, str] = {}
        for spelling, name in self._called.items():
            if len(spelling) >= FEWEST_SQUEEZED:
                self._squeezed.setdefault(spelling.replace(" ", ""), name)
        self.begins = lru_cache(maxsize=2048)(self._begins)

    def split(self, text: str, at: int) -> tuple[str, int]:
        """The movement that a text begins with, and how many characters its name takes.

        A level word behind the name, as in ``Press-up harder``, means the neighbour. ``at`` is
        where the text stands in its line.
        """
        name, length = self._named(text, at)
        if variant := self._variant(name, text, length, at):
            name, length = variant
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
        words = list(_FLAT_WORD.finditer(flat))[: self._most_words]
        for count in range(len(words), 0, -1):
            end = words[count - 1].end()
            name = self._squeezed.get(flat[:end].replace(" ", ""))
            if name is not None:
                return name, places[end - 1] + 1
        return None

    def _variant(self, name: str, text: str, length: int, at: int) -> tuple[str, int] | None:
        """The movement that a name and what stands behind it, in brackets or not, are together.

        Raises ``SlipError`` where several are called so.
        """
        said = _BEHIND_NAME.match(text, length)
        if said is None:
            return None
        words = next(group for group in said.groups() if group)
        loose = 3 if said[3] is None or words.startswith("with ") else 2
        found = self._called_with(text[:length].strip(), name, words, loose=loose)
        if len(found) == 1:
            return found[0], said.end()
        if found:
            names = ", ".join(found[:4])
            raise SlipError(
                at,
                said.end(),
                f"{text[: said.end()].strip()!r} may be {names}: write the one you mean, or "
                f"'(note: {words.strip()})' for a remark",
                (*found[:4], f"{text[:length].strip()} (note: {words.strip()})"),
            )
        return None

    def _called_with(self, written: str, name: str, words: str, *, loose: int) -> list[str]:
        """The movements that are called by a name and some words more, in whatever order.

        ``loose`` from 2 on may leave out a measure, from 3 on one word.
        """
        more = _plain_words(words)
        if not more:
            return []
        for base in dict.fromkeys((name, written)):
            together = _plain_words(base) | more
            for is_so in (_is_exactly, _is_with_a_measure, _is_with_a_word)[:loose]:
                alike = dict.fromkeys(
                    movement.name
                    for movement in self.movements
                    if movement.name != name
                    and any(
                        is_so(together, _plain_words(called))
                        for called in (movement.name, *movement.aliases)
                    )
                )
                if alike:
                    return list(alike)
        return []

    def _named(self, text: str, at: int) -> tuple[str, int]:
        found = self.begins(text)
        if found:
            return found
        begins = _DOSE_BEGINS.search(text[:400])
        written = (text[: begins.start()] if begins else text).rstrip(" \t,:-")
        if not written:
            raise SlipError(at, 1, "a movement's name is expected here")
        if bracket := _BRACKET.match(text):
            together = self._called_with(bracket[1], "", bracket[2], loose=1)
            if len(together) == 1:
                return together[0], bracket.end()
        return self._by_beginning(written, at), len(written)

    def _by_beginning(self, written: str, at: int) -> str:
        flat, _ = _flat(written)
        begin = self._beginning(flat, names=True) or self._beginning(flat, names=False)
        if len(begin) == 1:
            return begin[0]
        if begin and (kin := self._with_words(flat)) and not set(kin) & set(begin):
            # "Row" begins the rowing machine's name, and is the last word of all the rows.
            begin = [*kin[:3], *begin]
        if begin:
            names = ", ".join(begin[:4])
            told = f"{written!r} may be {names}: write more of it"
            raise SlipError(at, len(written), told, tuple(begin[:4]))
        near = self.near(written)
        asked = ", ".join(near[:-1]) + (" or " if near[:-1] else "") + near[-1] if near else ""
        told = f"no movement is called {written!r}{f'. Did you mean {asked}?' if asked else ''}"
        raise SlipError(at, len(written), told, near)

    def near(self, written: str) -> tuple[str, ...]:
        """The movements that were perhaps meant, the likeliest first."""
        return self.spelt_like(written) or self.that_train(written)

    def spelt_like(self, written: str) -> tuple[str, ...]:
        """The movements whose names are spelt alike, or have the same words."""
        flat = _flat(written)[0][:80]
        # Nobody slips in the first letter and in the length at once; the rest is not compared.
        likely = [
            one
            for one in self._own
            if abs(len(one) - len(flat)) <= MOST_LETTERS_OFF
            and (one[0] == flat[:1] or len(one) == len(flat))
        ]
        found = difflib.get_close_matches(flat, likely, n=1, cutoff=CLOSE)
        if not found:
            if kin := self._with_words(flat):
                return tuple(kin)
            found = difflib.get_close_matches(flat, likely, n=1)
        return tuple(self._own[one] for one in found)

    def that_train(self, written: str) -> tuple[str, ...]:
        """The movements whose muscles, pattern and kit a name speaks of: ``pec machine``.

        Those that have the most of its words first; of a kit alone nothing is known.
        """
        plain = _plain_words(written)
        words = plain | {_MUSCLE_WORDS[word] for word in plain if word in _MUSCLE_WORDS}
        ranked = []
        for movement in self.movements:
            if not movement.counted:
                continue
            trains = _plain_words(movement.pattern.replace("_", " ")) | _plain_words(
                " ".join(movement.direct).replace("_", " ")
            )
            if hits := len(words & trains):
                kit = len(words & _plain_words(" ".join(movement.kit)))
                ranked.append((-hits, -kit, len(trains), movement.name))
        return tuple(name for *_, name in sorted(ranked)[:MOST_NAMED])

    def _with_words(self, flat: str) -> list[str]:
        """The movements whose names have all of some words, or as many of the last as any has."""
        words = flat.split()
        last = _plain_words(words[-1] if words else "")
        for begin in range(max(1, len(words) - 1)):
            wanted = _plain_words(" ".join(words[begin:]))
            found = [
                one.name for one in self.movements if wanted and wanted <= _plain_words(one.name)
            ]
            if found:
                return found[:MOST_NAMED]
        kin = [one.name for one in self.movements if last and last == _last_word(one.name)]
        return kin[:MOST_NAMED]

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


@lru_cache(maxsize=4096)
def _plain_words(text: str) -> frozenset[str]:
    """The words of a name: in the singular, of one spelling, small ones left out."""
    words = re.findall(r"[a-z]+|[0-9]+", _flat(text)[0])
    found = (word[:-1] if len(word) > 3 and word.endswith("s") and word[-2] != "s" else word
             for word in words)  # fmt: skip
    return frozenset(_SAME_WORD.get(word, word) for word in found if word not in _NO_NAME)


def _last_word(name: str) -> frozenset[str]:
    """What a movement is by its name: the last word before a comma, ``press`` of a bench press."""
    return _plain_words(name.partition(",")[0].rpartition(" ")[2])


def _is_exactly(words: frozenset[str], called: frozenset[str]) -> bool:
    return words == called


def _is_with_a_measure(words: frozenset[str], called: frozenset[str]) -> bool:
    more = called - words
    return words <= called and all(word.isdigit() or word == "cm" for word in more)


def _is_with_a_word(words: frozenset[str], called: frozenset[str]) -> bool:
    return words <= called and len(called) == len(words) + 1


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
