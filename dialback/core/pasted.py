"""People as a coach pastes them: from an e-mail, a table, a list on the wall."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field, replace
from typing import Final, cast, get_args

from dialback.core.cautions import TrainingLevel
from dialback.core.movements import fold
from dialback.core.newcomers import LONGEST_SQUAD, Newcomer
from dialback.core.sessions import KG_PER_LB
from dialback.core.words import Unit

_BULLET: Final = re.compile(r"(?:[-–—*•·+>▪◦☐□✓]|[(]?[0-9]{1,3}[.)]|#[0-9]{1,3})[ \t]{1,8}")
_BETWEEN: Final = re.compile(
    r"[ ]{0,8}[\t;|][ ]{0,8}|[ ]{0,8},[ ]{1,8}|(?<![0-9]),|,(?![0-9])|[ ]{1,8}[-–—][ ]{1,8}"
)
_BRACKETS: Final = re.compile(r"[(\[]([^()\[\]]{1,200})[)\]]")
_AND: Final = re.compile(r"[ ]{1,8}(?:and|&|\+)[ ]{1,8}")
_SQUAD: Final = re.compile(
    r"(?:squad|group|team)[ :]{1,4}([^ ].{0,59})|([^ ].{0,59}?)[ ](?:squad|group|team)",
    re.IGNORECASE,
)
_HEAD_AND_PEOPLE: Final = re.compile(r"([^:;,\t]{1,60}?)[ ]{0,4}:[ ]{1,4}(?=[^ ])")
_COUNTED: Final = re.compile(r"[ ]{0,4}[(][0-9]{1,3}[)]$")
_BORN: Final = re.compile(
    r"(?:(?:born|b[.]|year of birth|yob)[ :]{0,4}(?:in[ ])?|[*])?"
    r"(?:[0-9]{1,2}[./-][0-9]{1,2}[./-])?((?:19|20)[0-9]{2})(?:-[0-9]{2}-[0-9]{2})?",
    re.IGNORECASE,
)
_LEVELS: Final[dict[str, TrainingLevel]] = {
    **{level: level for level in get_args(TrainingLevel) if level},
    "beginner": "novice",
    "experienced": "advanced",
}
_WEIGHT: Final = re.compile(r"([0-9]{1,3}(?:[.,][0-9]{1,3})?)[ ]{0,4}(kgs?|lbs?)?", re.IGNORECASE)
_WEIGHT_LAST: Final = re.compile(
    r"[ ]{0,8}(?:[ :](?P<said>[0-9]{1,3}(?:[.,][0-9]{1,3})?[ ]?(?:kgs?|lbs?))"
    r"|:[ ]{0,4}(?P<bare>[0-9]{2,3}(?:[.,][0-9]{1,3})?))$",
    re.IGNORECASE,
)
_GREETING: Final = re.compile(
    r"(?:hi|hello|hey|dear|thanks|thank you|cheers|best|regards|kind regards)\b", re.IGNORECASE
)
_ADDRESS: Final = re.compile(r"<?(?:mailto:)?[^\s<>@,;]{1,64}@[^\s<>@,;]{1,200}>?")
_TELEPHONE: Final = re.compile(r"[+(]?[0-9][0-9 ()/.-]{6,20}[0-9]")
_MANY_WORDS: Final = 5
"""No name has more; a sentence does."""
_PARTICLES: Final = frozenset(
    ["al", "bin", "da", "de", "del", "den", "der", "di", "do", "dos", "du", "el", "la", "le"]
) | {"ter", "van", "von", "y"}

_FIELDS: Final[dict[str, str]] = {
    "name": "name",
    "athlete": "name",
    "full name": "name",
    "first name": "first",
    "first": "first",
    "given name": "first",
    "forename": "first",
    "surname": "surname",
    "last name": "surname",
    "last": "surname",
    "family name": "surname",
    "weight": "weight",
    "weight kg": "weight",
    "weight lb": "weight",
    "body weight": "weight",
    "bodyweight": "weight",
    "bw": "weight",
    "kg": "weight",
    "lb": "weight",
    "squad": "squad",
    "group": "squad",
    "team": "squad",
    "crew": "squad",
    "level": "level",
    "born": "born",
    "birth": "born",
    "date of birth": "born",
    "dob": "born",
    "year": "born",
    "year of birth": "born",
    "note": "note",
    "notes": "note",
    "remark": "note",
    "remarks": "note",
    "comment": "note",
    "comments": "note",
    "email": "left",
    "e-mail": "left",
    "mail": "left",
    "phone": "left",
    "telephone": "left",
    "mobile": "left",
    "no": "left",
    "nr": "left",
    "#": "left",
}
"""What the columns of a list are called, folded, without brackets and full stops."""

_TURNED: Final = "read as surname, first name"
_SPLIT: Final = "several on one line"
_LEFT_OUT: Final = "address or number left out"
_NOBODY: Final = "is this a person?"


def read_people(text: str, unit: Unit) -> list[Newcomer]:
    """The people of a text: ``Ada Lind, 62.5 kg, novice`` on a line, or as people write lists.

    Fields are parted by tabs, semicolons, bars, commas or dashes; a number is the body weight, in
    ``unit`` where it names none; ``squad Juniors`` is the squad, ``born 2009`` or a year alone the
    year of birth, ``novice``, ``intermediate`` or ``advanced`` the level; anything else is a note.
    Bullets and numbering are dropped; ``Sprint squad:`` stands above its people; several may be
    on a line; ``Lind, Ada`` is turned; a row of headings tells the columns. Addresses and
    telephone numbers are left out: they are not needed here. Blank lines say nothing.
    """
    squad, columns = "", []
    found: list[Newcomer] = []
    for number, written in enumerate(text.splitlines(), 1):
        line = _BULLET.sub("", written.strip("\ufeff \t\r").replace('"', ""), count=1).strip()
        if not line:
            continue
        if headings := _headings(line):
            columns = headings
        elif (above := _head(line)) is not None:
            squad = above
        elif columns and "\t" in line:
            cells = [cell.strip() for cell in line.split("\t")]
            found.append(_in_squad(_by_columns(number, cells, columns, unit), squad))
        else:
            own, line = _own_head(line, squad)
            found += (_in_squad(one, own) for one in _people(number, line, unit))
    return found


def _headings(line: str) -> list[str]:
    cells = re.split(r"[ ]{0,8}[\t;|][ ]{0,8}|,[ ]{0,8}", line)
    told = [_FIELDS.get(fold(re.sub(r"[().,:/]", " ", cell))) for cell in cells]
    named = "name" in told or "surname" in told or "first" in told
    return cast(list[str], told) if len(cells) > 1 and named and all(told) else []


def _head(line: str) -> str | None:
    """The squad that a line alone names for those below it, or ``None``."""
    line = _COUNTED.sub("", line)
    said = _COUNTED.sub("", line.strip("#: "))
    if not said or len(said) > LONGEST_SQUAD or ":" in said or _BETWEEN.search(said):
        return None
    marked = line.startswith("#") or line.endswith(":")
    return _squad_in(said) or (said if marked else None)


def _own_head(line: str, squad: str) -> tuple[str, str]:
    """The squad of a line that begins with one, ``Sprint: Ada, Bo``, and the rest of it."""
    match = _HEAD_AND_PEOPLE.match(line)
    if match and not _WEIGHT.fullmatch(_BETWEEN.split(line[match.end() :])[0]):
        return _squad_in(match[1]) or match[1].strip(), line[match.end() :]
    return squad, line


def _squad_in(said: str) -> str | None:
    match = _SQUAD.fullmatch(said.strip())
    return None if match is None else (match[1] or match[2]).strip()


def _in_squad(one: Newcomer, squad: str) -> Newcomer:
    return one if one.squad else replace(one, squad=squad)


@dataclass
class _Said:
    """What is gathered of one person."""

    unit: Unit
    weight: float | None = None
    squad: str = ""
    level: TrainingLevel = ""
    born: int | None = None
    notes: list[str] = field(default_factory=list)
    left_out: bool = False

    def take(self, said: str) -> None:
        """Take a field for what it looks like."""
        match = _WEIGHT.fullmatch(said)
        if match and self.weight is None:
            given = float(match[1].replace(",", "."))
            pounds = match[2].lower().startswith("lb") if match[2] else self.unit == "lb"
            self.weight = round(given * KG_PER_LB, 3) if pounds else given
        elif not self.squad and (squad := _squad_in(said)):
            self.squad = squad
        elif level := _LEVELS.get(fold(said)):
            self.level = level
        elif self.born is None and (year := _BORN.fullmatch(said)):
            self.born = int(year[1])
        elif _ADDRESS.fullmatch(said) or _TELEPHONE.fullmatch(said):
            self.left_out = True
        elif said:
            self.notes.append(said)

    def newcomer(self, line: int, name: str, *told: str) -> Newcomer:
        return Newcomer(
            line,
            " ".join(name.split()),
            self.weight,
            ", ".join(self.notes),
            self.squad,
            self.level,
            self.born,
            "; ".join((*told, *([_LEFT_OUT] if self.left_out else ()))),
        )


def _by_columns(line: int, cells: list[str], columns: list[str], unit: Unit) -> Newcomer:
    said = _Said(unit)
    names = {"name": "", "first": "", "surname": ""}
    for column, cell in zip(columns, cells, strict=False):
        if column in names:
            names[column] = cell
        elif column == "squad":
            said.squad = _squad_in(cell) or cell
        elif column == "note":
            said.notes += [cell] if cell else []
        elif column == "left":
            said.left_out |= bool(cell)
        else:
            said.take(cell)
    for cell in cells[len(columns) :]:
        said.take(cell)
    name = names["name"] or f"{names['first']} {names['surname']}"
    return said.newcomer(line, name)


def _people(line: int, text: str, unit: Unit) -> Iterator[Newcomer]:
    said = _Said(unit)
    if _ADDRESS.search(text):
        said.left_out, text = True, _ADDRESS.sub(" ", text)
    aside = [one.strip() for one in _BRACKETS.findall(text)]
    first, *rest = (
        one.strip() for one in _BETWEEN.split(_BRACKETS.sub(" ", text).strip().rstrip(" ,;"))
    )
    if weight := _WEIGHT_LAST.search(first):
        first, rest = first[: weight.start()], [weight["said"] or weight["bare"], *rest]
    several = _several(first, rest)
    if several:
        yield from (_Said(unit).newcomer(line, name, _SPLIT) for name in several)
        return
    told: Sequence[str] = ()
    if _GREETING.match(first) or len(first.split()) > _MANY_WORDS:
        told = (_NOBODY,)
    elif rest and _is_turned(first, rest):
        first, rest, told = f"{rest[0]} {first}", rest[1:], (_TURNED,)
    for one in (*rest, *_fields(aside)):
        said.take(one)
    yield said.newcomer(line, first, *told)


def _fields(asides: Iterable[str]) -> Iterator[str]:
    for aside in asides:
        yield from (one.strip() for one in _BETWEEN.split(aside))


def _several(first: str, rest: list[str]) -> list[str]:
    """The names where a line is nothing but names of several people; empty where it is not."""
    names = [name for part in (first, *rest) for name in _AND.split(part)]
    if len(names) < 2 or not all(map(_is_name, names)):
        return []
    # "Lind, Ada" is one person, "Ada, Bo, Cy" are three; with full names two are enough.
    whole = all(" " in name for name in names)
    return names if whole or len(names) > 2 or len(names) > len(rest) + 1 else []


def _is_turned(first: str, rest: list[str]) -> bool:
    """Whether a line is ``Lind, Ada``: two names, neither of which is a whole one."""
    words = [word for word in first.split() if word.casefold() not in _PARTICLES]
    return len(words) == 1 and _is_name(first) and _is_name(rest[0]) and len(rest[0].split()) <= 2


def _is_name(said: str) -> bool:
    """Whether it looks like a name and like nothing else that stands on such a line."""
    words = [word for word in said.split() if word.casefold() not in _PARTICLES]
    return (
        bool(words)
        and len(words) <= 4
        and fold(said) not in _LEVELS
        and _squad_in(said) is None
        and all(word[0].isupper() and _LETTERS.fullmatch(word) for word in words)
    )


_LETTERS: Final = re.compile(r"[^\W\d_]+(?:[-'’.][^\W\d_]*)*")
