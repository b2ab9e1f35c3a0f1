"""What stands behind a movement, item by item: the sets and reps, a load, a side, a rest."""

from __future__ import annotations

import re
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Any, Final

from lark import Token, Tree
from lark.exceptions import UnexpectedInput

from dialback.core.notation import values
from dialback.core.notation.characters import plain
from dialback.core.notation.grammar import PRESCRIPTION, last_token, span
from dialback.core.notation.messages import explain, stopped_at
from dialback.core.notation.names import Names
from dialback.core.notation.session import Load
from dialback.core.notation.slips import SlipError
from dialback.core.notation.talk import spoken_words
from dialback.core.notation.wording.rules import worded_dose
from dialback.core.tempo import parse_tempo

MOST_PLAIN_SETS: Final = 12
"""A number above this before a cross, without a unit, may as well be a load."""

_LIKE_SETS: Final = re.compile("[0-9][x×*][0-9]{1,2}", re.IGNORECASE)
NOTE_MARK: Final = "note:"
"""What a note begins with that could be read as a prescription."""

_OF_HELP: Final = re.compile(r"[ \t]{0,8}(?:of[ ])?(?:help|assist[a-z]{0,20})$", re.IGNORECASE)
_INTS: Final = re.compile("[0-9]+")
_UNITS: Final = re.compile(r"[a-z%'\"].*$", re.IGNORECASE | re.DOTALL)


@dataclass(frozen=True, slots=True)
class Item:
    """One thing that is said, at its place in the line.

    ``says`` are fields of a bout. A list (``12/10/8``) has several, one for each set. ``sets`` is
    the number of sets beside a dose, ``sets_to`` the top of their span. ``bare`` is a number of
    reps with nothing beside it, ``worded`` one that says ``reps``, ``told`` a load behind ``at``.
    """

    kind: str
    at: int
    length: int
    says: tuple[dict[str, Any], ...] = ({},)
    sets: int | None = None
    sets_to: int | None = None
    bare: bool = False
    worded: bool = False
    told: bool = False
    parts: tuple[Item, ...] = field(default=())


def items(
    line: str, raw: str, at: int, end: int, names: Names | None = None, *, words: bool = False
) -> list[Item]:
    """The items of a line between two places. ``raw`` is the line as it was typed, for notes.

    With ``words``, what is said there besides, of no number and no word of the notation, is a note.
    Raises ``SlipError`` for what is not understood.
    """
    text = line[at:end]
    notes: list[Item] = []
    while True:
        try:
            tree = _tree(text)
        except UnexpectedInput as error:
            run = spoken_words(text, stopped_at(error, text), names) if words else None
            if run is None:
                raise explain(error, text, at, names) from None
            said = raw[at + run.said : at + run.end].strip(" \t,;.-")
            notes.append(Item("note", at + run.said, run.end - run.said, ({"note": said},)))
            text = text[: run.start] + " " * (run.end - run.start) + text[run.end :]
            continue
        found = [_item(child, at, raw) for child in tree.children if isinstance(child, Tree)]
        return sorted([*found, *notes], key=lambda item: item.at) if notes else found


@lru_cache(maxsize=4096)
def _tree(text: str) -> Tree[Token]:
    """The tree of a prescription. A text is read anew at every key, most of its lines unchanged."""
    tree: Tree[Token] = PRESCRIPTION.parse(text)
    return tree


def forget_lines() -> None:
    """Read every line as if for the first time; for measuring."""
    _tree.cache_clear()


def _item(tree: Tree[Token], at: int, raw: str) -> Item:
    begin, end = span(tree)
    start, length = at + begin, end - begin
    kind = str(tree.data)
    words = [str(token) for token in tree.scan_values(lambda token: isinstance(token, Token))]
    if kind in _SCHEMES:
        return _SCHEMES[kind](tree, start, length)
    if kind in _DOSES:
        return replace(_DOSES[kind](words, start), at=start, length=length)
    if kind in ("load_first", "percent_first"):
        return _load_first(tree, start, length)
    last = at + last_token(tree)
    if kind == "load":
        told = len(words) > 1
        said = {"load": values.load(words[-1], last)}
        return Item("load", start, length, (said,), told=told)
    if kind in ("load_list", "percent_list"):
        return _loads(kind, words[-1], start, length)
    if kind == "note":
        return _bracket(raw[start:][:length], start, length)
    refused = kind in ("both_sides", "rest_unit", "hold_unit", "at_unit")
    return Item(kind, start, length, (_SAYS[kind](words, start if refused else last),))


_TAKEN: Final = frozenset(
    {"load", "added", "help", "percent", "body_percent", "tempo", "rpe", "rir", "rest", "no_rest",
     "open_rest", "each", "alternating", "left", "right", "warm_up", "failure", "for_time", "band"}
)  # fmt: skip
"""What is taken as said though it stands in brackets; a second dose is none of it."""


def _bracket(text: str, start: int, length: int) -> Item:
    """What stands in brackets: a note, or what counts as if the brackets were not there.

    A dose in brackets may be either: it is asked about.
    """
    said = text[1:-1].strip()
    if said.lower().startswith(NOTE_MARK):
        return Item("note", start, length, ({"note": said[len(NOTE_MARK) :].strip()},))
    if not counts_as_said(said):
        return Item("note", start, length, ({"note": said},))
    inside = worded_dose(plain(said)).text
    try:
        found = items(inside, inside, 0, len(inside))
    except SlipError as slip:
        raise _slip(start, len(text), str(slip)) from None
    parts = tuple(part for item in found for part in (item.parts or (item,)))
    if any(part.kind not in _TAKEN for part in parts):
        raise _slip(
            start,
            len(text),
            "text in brackets is a note and does not count: leave the "
            f"brackets out, or write '({NOTE_MARK} {said})'",
        )
    return Item("several", start, length, parts=parts)


def counts_as_said(text: str) -> bool:
    """Whether a note reads like something that would count outside of its brackets."""
    try:
        tree = _tree(worded_dose(plain(text)).text)
    except (UnexpectedInput, SlipError):
        return text.lower().startswith(NOTE_MARK)
    return bool(tree.children)


def _slip(start: int, length: int, message: str) -> SlipError:
    return SlipError(start, length, message)


# Doses.


def _reps(words: list[str], start: int) -> Item:
    reps = values.whole(words[0], start, 0, values.MAX_REPS, "reps")
    worded = len(words) > 1
    return Item("dose", start, 0, ({"reps": reps},), bare=not worded, worded=worded)


def _rep_range(words: list[str], start: int) -> Item:
    low, high = (int(one) for one in _INTS.findall(words[0]))
    if not 0 < low < high <= values.MAX_REPS:
        raise _slip(start, len(words[0]), "a rep range goes up, as in 9-13")
    return Item("dose", start, 0, ({"reps": low, "reps_to": high},), worded=len(words) > 1)


def _time(words: list[str], start: int) -> Item:
    seconds = values.seconds(words[0], start)
    if not seconds:
        raise _slip(start, len(words[0]), "a time is more than nothing")
    clock = re.fullmatch("([1-9][0-9]{1,5}):([0-9]{2})", words[0].strip())
    if clock and clock[2] != "00":
        raise _slip(
            start,
            len(words[0]),
            f"'{words[0]}' may be {clock[1]} s on and {clock[2]} s off, which stand in the "
            f"head "
            f"of rounds, or a time: write '{clock[1]} min {clock[2]} s'",
        )
    return Item("dose", start, 0, ({"seconds": seconds},))


def _time_span(words: list[str], start: int) -> Item:
    low, high = values.time_span(words[0], start)
    return Item("dose", start, 0, ({"seconds": low, "seconds_to": high},))


def _held(words: list[str], start: int) -> Item:
    said = re.sub("holds?$", "", words[0], flags=re.IGNORECASE).strip()
    return Item("held", start, 0, ({"seconds": values.seconds(said, start)},))


def _distance(words: list[str], start: int) -> Item:
    return Item("dose", start, 0, ({"distance_m": values.metres(words[0], start)},))


def _clusters(words: list[str], start: int) -> Item:
    reps = tuple(
        values.whole(word, start, 1, values.MAX_REPS, "reps") for word in words if word.isdigit()
    )
    return Item("dose", start, 0, ({"clusters": reps},), worded=not words[-1].isdigit())


def _ranges(words: list[str], start: int) -> Item:
    pairs = tuple(
        (values.whole(reps, start, 0, values.MAX_REPS, "reps"), _span(word))
        for reps, word in zip(words[::3], words[1::3], strict=True)
    )
    if len(pairs) == 1:
        return Item("dose", start, 0, ({"reps": pairs[0][0], "range": pairs[0][1]},))
    return Item("dose", start, 0, ({"ranges": pairs},))


def _list(words: list[str], start: int) -> Item:
    said = tuple(
        {"reps": values.whole(one, start, 1, values.MAX_REPS, "reps")}
        for one in _INTS.findall(words[0])
    )
    return Item("list", start, 0, said)


def _time_list(words: list[str], start: int) -> Item:
    numbers, unit = _numbers_and_unit(words[0])
    said = tuple({"seconds": values.seconds(f"{number} {unit}", start)} for number in numbers)
    return Item("list", start, 0, said)


def _numbers_and_unit(text: str) -> tuple[list[str], str]:
    match = _UNITS.search(text)
    unit = match[0] if match else ""
    return [one.strip() for one in text.removesuffix(unit).split("/")], unit


_DOSES: Final = {
    "reps": _reps,
    "rep_range": _rep_range,
    "time": _time,
    "time_span": _time_span,
    "distance": _distance,
    "held": _held,
    "clusters": _clusters,
    "ranges": _ranges,
    "list": _list,
    "time_list": _time_list,
}


def _sets_of(tree: Tree[Token], start: int, length: int) -> Item:
    head = str(tree.children[0])
    dose = tree.children[-1]
    assert isinstance(dose, Tree)  # noqa: S101 - the grammar has it so
    count, sets_to = _count(head, start)
    plainly = head.isdigit()
    found = _item(dose, start - span(tree)[0], "")
    if plainly and int(head[:9]) > MOST_PLAIN_SETS:
        rest = str_of(dose)
        others = f", or '{rest} × {count}' for {rest} sets" if found.bare and len(rest) < 2 else ""
        raise _slip(
            start,
            length,
            f"{count} what? Write '{count} kg × {rest}' for a load, or '{count} sets of {rest}'"
            f"{others}",
        )
    sets = values.whole(count, start, 1, values.MAX_SETS, "sets")
    reps = found.says[0].get("reps")
    if sets_to is not None and reps is not None and reps <= sets_to and "x" in plain_cross(head):
        raise _slip(
            start,
            length,
            f"sets or reps? Write '{count}-{sets_to} sets of {reps}', or '{reps} × "
            f"{count}-{sets_to}'",
        )
    return replace(found, at=start, length=length, sets=sets, sets_to=sets_to, bare=False)


def _count(head: str, start: int) -> tuple[str, int | None]:
    """The number of sets, and the top of a span of them. Raises ``SlipError``."""
    counted = _INTS.findall(head)
    if len(counted) < 2:
        return (counted[0] if counted else head), None
    low, high = counted[:2]
    top = values.whole(high, start, 1, values.MAX_SETS, "sets")
    if int(low) >= top:
        raise _slip(start, len(head), "a span of sets goes up, as in '3-5 sets of 8'")
    return low, top


def plain_cross(text: str) -> str:
    """The text with every cross as an x."""
    return re.sub("[×*]", "x", text.lower())


def str_of(tree: Tree[Token]) -> str:
    """The words of a tree, a blank between them."""
    return " ".join(
        str(token) for token in tree.scan_values(lambda token: isinstance(token, Token))
    )


def _scheme(tree: Tree[Token], start: int, length: int) -> Item:
    (only,) = tree.children
    return _sets_only(str(only), start, length)


def _sets_only(text: str, start: int, length: int) -> Item:
    count, sets_to = _count(text, start)
    sets = values.whole(count, start, 1, values.MAX_SETS, "sets")
    return Item("sets", start, length, sets=sets, sets_to=sets_to)


def _reps_of_sets(tree: Tree[Token], start: int, length: int) -> Item:
    words = [str(token) for token in tree.children]
    reps = values.whole(words[0], start, 1, values.MAX_REPS, "reps")
    return Item(
        "dose",
        start,
        length,
        ({"reps": reps},),
        sets=_sets_only(words[-1], start, 0).sets,
        worded=True,
    )


def _times_alone(tree: Tree[Token], start: int, length: int) -> Item:
    """``× 20`` behind a movement: so many of it."""
    dose = tree.children[-1]
    assert isinstance(dose, Tree)  # noqa: S101 - the grammar has it so
    found = _item(dose, start - span(tree)[0], "")
    return replace(found, at=start, length=length, bare=False)


def _sets_reps_load(tree: Tree[Token], start: int, length: int) -> Item:
    """``5 × 5 × 60 kg``; the middle number is read as reps, where it can be nothing else."""
    words = [str(token) for token in tree.children]
    reps = values.implements_of(words[-1])
    sets = values.whole(words[0], start, 1, values.MAX_SETS, "sets")
    load = values.load(
        re.sub(r"^[0-9]+[ \t]{0,8}[x×*]", "", words[-1], flags=re.IGNORECASE).strip(), start
    )
    kilograms = f"{load.value:g} {load.unit}"
    if reps == 2:
        raise _slip(
            start,
            length,
            f"this may be {sets} sets of 2 with {kilograms}, or {sets} reps with 2 implements: "
            f"write '{sets} × 2 at {kilograms}', or '{sets} at 2 × {kilograms}'",
        )
    parts = (
        Item("dose", start, length, ({"reps": reps},), sets=sets),
        Item("load", start, length, ({"load": load},), told=True),
    )
    return Item("several", start, length, parts=parts)


def _load_first(tree: Tree[Token], start: int, length: int) -> Item:
    """``60 kg × 5``: one set of five with 60 kg."""
    words = [token for token in tree.children if isinstance(token, Token)]
    written = next(word for word in words if word.type in ("LOAD", "PCT"))
    if written.type == "PCT":
        load, share = Load(0), _share(str(written), start, length)
        loading = Item("percent", start, length, ({"percent": share},), told=True)
        kilograms = f"{share:g} %"
    else:
        load = values.load(str(written), start)
        loading = Item("load", start, length, ({"load": load},), told=True)
        kilograms = f"{load.value:g} {load.unit}"
    scheme = tree.children[-1]
    assert isinstance(scheme, Tree)  # noqa: S101 - the grammar has it so
    dose = _item(scheme, start - span(tree)[0], "")
    if load.implements > 1 and not any(word.type == "AT" for word in words):
        raise _slip(
            start,
            length,
            f"{load.implements} sets or {load.implements} implements? Write '{load.implements} × "
            f"{_said(dose)} at {kilograms}', or '{_said(dose)} at {load.implements} × {kilograms}'",
        )
    if dose.kind == "sets":
        raise _slip(
            start, length, f"how many reps? Write them, as in '{dose.sets} × 5 at {kilograms}'"
        )
    if dose.sets is not None and dose.says != ({"reps": dose.sets},):
        raise _slip(
            start,
            length,
            f"which are the sets? Write '{dose.sets} × {_said(dose)} at {kilograms}', or "
            f"'{_said(dose)} × {dose.sets} at {kilograms}'",
        )
    parts = (dose, loading)
    return Item("several", start, length, parts=parts)


def _said(dose: Item) -> str:
    said = dose.says[0]
    if "seconds" in said:
        return f"{said['seconds']:g} s"
    return str(said.get("reps", 5))


_SCHEMES: Final = {
    "sets_of": _sets_of,
    "sets_only": _scheme,
    "reps_of_sets": _reps_of_sets,
    "sets_reps_load": _sets_reps_load,
    "times_alone": _times_alone,
}


def _loads(kind: str, text: str, start: int, length: int) -> Item:
    if kind == "load_list" and "/" not in text:
        text = re.sub(r"^(?:at|@|with)[ \t]{0,8}", "", text, flags=re.IGNORECASE)
        text = re.sub(r",[ \t]{1,8}", "/", text)
    numbers, unit = _numbers_and_unit(text)
    if kind == "percent_list":
        said: tuple[dict[str, Any], ...] = tuple(
            {"percent": _share(number, start, length)} for number in numbers
        )
    else:
        said = tuple({"load": values.load(f"{number} {unit}", start)} for number in numbers)
    return Item("loads", start, length, said)


# What is said in a word.


def _share(text: str, start: int, length: int) -> float:
    match = re.match("[0-9.,]+", text)
    share = values.number(match[0], start) if match else 0.0
    if not 0 < share <= 150:
        raise _slip(start, length, "per cent of the maximum go from 1 to 150, as in 80 %")
    return share


def _body_percent(words: list[str], start: int) -> dict[str, Any]:
    match = re.match("[0-9.,]+", words[-1])
    share = values.number(match[0], start) if match else 0.0
    if not 0 < share <= 500:
        raise _slip(start, len(words[-1]), "per cent of the body's weight go from 1 to 500")
    return {"body_percent": share}


def _of_before(words: list[str], start: int) -> dict[str, Any]:
    return {"of_before": _share(words[-1], start, len(words[-1]))}


def _percent(words: list[str], start: int) -> dict[str, Any]:
    return {"percent": _share(words[-1], start, len(words[-1]))}


def _tempo(words: list[str], start: int) -> dict[str, Any]:
    said = re.sub("tempo[ \t:]{0,8}|[ \t]{0,8}tempo$", "", words[0], flags=re.IGNORECASE)
    if said.lower() in ("usual", "normal", "own"):
        return {"tempo": None}
    if _LIKE_SETS.fullmatch(said):
        raise _slip(
            start,
            len(words[0]),
            f"{said!r} are sets and reps rather than a tempo: write the tempo as in '3-1-2-0'",
        )
    try:
        parse_tempo(said)
    except ValueError as error:
        raise _slip(start, len(words[0]), str(error)) from None
    return {"tempo": said.upper()}


def _effort(words: list[str], start: int) -> tuple[float, float | None]:
    low, *high = (
        values.number(one, start) for one in re.findall("[0-9]+(?:[.,][0-9]+)?", words[0])
    )
    if any(one > 10 for one in (low, *high)):
        raise _slip(start, len(words[0]), "RPE goes from 0 to 10, and so do reps in reserve")
    if high and high[0] <= low:
        raise _slip(start, len(words[0]), "the smaller number goes first, as in RPE 7-8")
    return low, high[0] if high else None


def _rpe(words: list[str], start: int) -> dict[str, Any]:
    low, high = _effort(words, start)
    return {"rpe": low, "rpe_to": high}


def _rir(words: list[str], start: int) -> dict[str, Any]:
    low, high = _effort(words, start)
    if high is None:
        return {"rpe": 10 - low, "rpe_to": None}
    return {"rpe": 10 - high, "rpe_to": 10 - low}


def _rest(words: list[str], start: int) -> dict[str, Any]:
    said = re.sub(
        r"[ \t]{0,8}(?:of[ ])?rest(?:[ ]between[ ]sets)?$", "", words[-1], flags=re.IGNORECASE
    )
    low, high = values.time_span(said, start)
    return {"rest_s": low, "rest_to_s": high}


def _hold(words: list[str], start: int) -> dict[str, Any]:
    return {"hold_s": values.seconds(words[-1], start)}


def _help(words: list[str], start: int) -> dict[str, Any]:
    said = re.sub(
        r"[ \t]{0,8}(?:of[ ])?(?:help|assist[a-z]{0,20})$", "", words[-1], flags=re.IGNORECASE
    )
    return {"load": replace(values.load(said, start), help=True)}


def _band(words: list[str], start: int) -> dict[str, Any]:
    return {"band": re.sub(r"\bband\b", "", words[0], flags=re.IGNORECASE).strip().lower()}


def _span(word: str) -> Any:
    return word.lower().removesuffix(" range")


def _refuse(message: str) -> Any:
    def refuse(words: list[str], start: int) -> dict[str, Any]:
        text = " ".join(words)
        raise _slip(start, len(text), message.format(text=text, number=words[-1]))

    return refuse


_SAYS: Final[dict[str, Any]] = {
    "within": lambda words, start: {"seconds": values.seconds(words[-1], start)},
    "percent": _percent,
    "body_percent": _body_percent,
    "of_before": _of_before,
    "added": lambda words, start: {"load": values.load(words[-1], start)},
    "no_load": lambda words, start: {"load": None},
    "help": _help,
    "band": _band,
    "tempo": _tempo,
    "rpe": _rpe,
    "rir": _rir,
    "rest": _rest,
    "no_rest": lambda words, start: {"rest_s": 0.0, "rest_to_s": None},
    "open_rest": lambda words, start: {"rest_s": None, "rest_to_s": None},
    "hold": _hold,
    "each": lambda words, start: {"sides": "each"},
    "both": lambda words, start: {"sides": "both"},
    "alternating": lambda words, start: {"sides": "alternating"},
    "left": lambda words, start: {"sides": "left"},
    "right": lambda words, start: {"sides": "right"},
    "warm_up": lambda words, start: {"warm_up": True},
    "failure": lambda words, start: {"to_failure": True},
    "for_time": lambda words, start: {"for_time": True},
    "span": lambda words, start: {"range": _span(words[0])},
    "both_sides": _refuse(
        "'{text}' may mean each side or both at once: write 'each side' or 'both'"
    ),
    "rest_unit": _refuse("rest {number} what? Write 'rest {number} s' or 'rest {number} min'"),
    "hold_unit": _refuse("hold {number} what? Write 'hold {number} s'"),
    "at_unit": _refuse(
        "{number} what? Write 'at {number} kg' or 'at {number} lb', 'at {number} %' of the "
        "maximum, or 'RPE {number}'"
    ),
}


def load_of(item: Item) -> Load | None:
    """The load that an item says."""
    found = item.says[0].get("load")
    return found if isinstance(found, Load) else None
