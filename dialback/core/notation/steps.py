"""From items to steps: what belongs together, what stays from before, what could be two things."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any, Final

from dialback.core.kit import uses_bar
from dialback.core.movements import Movement
from dialback.core.notation.items import Item, items, load_of
from dialback.core.notation.messages import CELLS, TIME_AGAIN
from dialback.core.notation.names import Names, one_sided
from dialback.core.notation.pieces import time_text
from dialback.core.notation.session import DOSE, LOADING, Bout, Moves, Step
from dialback.core.notation.slips import SlipError

_OUTSIDE_NOTES: Final = r"(?![^()]{0,600}\))"
_THEN: Final = re.compile(rf",?[ \t]{{0,8}}\bthen\b[ \t]{{0,8}}{_OUTSIDE_NOTES}", re.IGNORECASE)
_LOOSE: Final = re.compile(r"^[ \t,:]{0,20}(?:-[ \t]{1,8})?")
_JOINED: Final = re.compile(r"[ \t]{0,8},[ \t]{0,8}")
_OF_ONE_HAND: Final = re.compile(r"each|ea\b\.?|(?:each|per|a) (?:arm|hand)", re.IGNORECASE)

_OF_A_BAR: Final = re.compile(r"(?:each|per|a)[ ]side|/[ ]?side|each", re.IGNORECASE)

SHORTEST_M: Final = 20
"""Shorter than this nobody runs or rows: it may be minutes."""
_EFFORT: Final = ("rpe", "rpe_to", "to_failure", "hold_s", "range", "for_time")
"""What belongs to sets of one load: with another load it does not stay."""


@dataclass(frozen=True, slots=True)
class Spoken:
    """What a prescription is about: a movement or a combination, and where it stands.

    ``in_rounds`` is the number of rounds, ``None`` outside of rounds; ``timed`` says that a head
    gives the time or the reps.
    """

    names: Names
    moves: Moves
    in_rounds: int | None = None
    timed: bool = False
    at: int = 0
    length: int = 1

    @property
    def movements(self) -> list[Movement]:
        """The movements, in order."""
        return [self.names.movements[name] for name, _ in self.moves]

    @property
    def one_sided(self) -> list[bool]:
        """Of each movement whether it is done one side after the other."""
        return [one_sided(movement) for movement in self.movements]

    @property
    def held(self) -> bool:
        """Whether it is a hold: nothing in it moves."""
        return all(movement.isometric for movement in self.movements)

    @property
    def carried(self) -> bool:
        """Whether it is a carry."""
        return all(movement.pattern == "carry" for movement in self.movements)


@dataclass(frozen=True, slots=True)
class Piece:
    """What is said of one step, and nothing that is not said."""

    says: dict[str, Any]
    sets: int | None
    at: int
    length: int
    sets_to: int | None = None
    worded: bool = False
    behind_load: bool = False
    """Whether how much stands behind the load."""
    text: str = ""
    """How much, as it was written."""

    @property
    def has_dose(self) -> bool:
        """Whether it says how much."""
        return any(self.says.get(key) is not None for key in DOSE)

    @property
    def has_loading(self) -> bool:
        """Whether it says with what."""
        return any(key in self.says for key in (*LOADING, "of_before"))


def steps(line: str, raw: str, at: int, spoken: Spoken, lead: Item | None = None) -> list[Step]:
    """The steps that stand behind a movement, from a place of the line to its end.

    ``lead`` is a dose that stood before the movement. Raises ``SlipError``.
    """
    found: list[Step] = []
    for start, end in between(_THEN, line, at):
        said = items(line, raw, start, end, spoken.names, words=True)
        if lead is not None:
            said, lead = [lead, *said], None
        if found:
            sure_of_more(said, at=start, length=end - start)
        for piece in pieces(said, line, spoken):
            found.append(_step(_of_before(piece, found), found[-1] if found else None, spoken))
    return found


def sure_of_more(said: Sequence[Item], *, at: int, length: int) -> None:
    """Refuse what is no further set: a remark alone, or a hold that may be the whole set."""
    if all(item.kind == "note" for item in said):
        raise SlipError(
            at,
            max(1, length),
            "what comes next? Write its sets and reps, or put a remark in (brackets)",
        )
    hold = next((item for item in said if item.kind == "hold"), None)
    if hold is not None and not any(item.kind in ("dose", "list") for item in said):
        time = time_text(hold.says[0]["hold_s"])
        raise SlipError(
            hold.at,
            hold.length,
            f"held still, or at the end of how many reps? Write '{time} hold', or '8, hold {time}'",
        )


def _of_before(piece: Piece, found: Sequence[Step]) -> Piece:
    """A share of the heaviest load of the steps before, as a load. Raises ``SlipError``."""
    share = piece.says.get("of_before")
    if share is None:
        return piece
    loads = [step.bout.load for step in found if step.bout.load is not None]
    if not loads or any(load.help or load.unit != loads[0].unit for load in loads):
        raise SlipError(
            piece.at,
            piece.length,
            f"{share:g} % of which load? Write the load itself, as in 'at 60 kg'",
        )
    heaviest = max(loads, key=lambda load: load.value)
    load = replace(heaviest, value=round(heaviest.value * share / 100, 2))
    says = {key: value for key, value in piece.says.items() if key != "of_before"}
    return replace(piece, says={**says, "load": load})


def between(joint: re.Pattern[str], line: str, at: int) -> list[tuple[int, int]]:
    """The places between the joints of a line, blanks and loose signs at their ends left out."""
    bounds = []
    begin = at
    for match in joint.finditer(line, at):
        bounds.append((begin, match.start()))
        begin = match.end()
    bounds.append((begin, len(line)))
    trimmed = []
    for start, end in bounds:
        text = line[start:end]
        start += len(text) - len(_LOOSE.sub("", text, count=1))
        text = line[start:end].rstrip(" \t,;")
        if text.endswith(".") and not text[-2:-1].isdigit():
            text = text[:-1].rstrip()
        trimmed.append((start, start + len(text)))
    return trimmed


def dose_of(text: str) -> tuple[Piece, ...]:
    """What a few words say of a set whose movement is known: as many pieces as it names sets."""
    ((start, end),) = between(re.compile("(?!)"), text, 0)
    return tuple(pieces(items(text, text, start, end), text, None))


def pieces(said: Sequence[Item], line: str, spoken: Spoken | None) -> list[Piece]:
    """The steps that items say. Raises ``SlipError`` where they could be read in two ways."""
    bundles: list[list[Item]] = [[]]
    for item in _opened(said):
        bundle = bundles[-1]
        dose = next((one for one in bundle if one.kind in ("dose", "list")), None)
        if item.kind in ("dose", "list") and dose is not None:
            if dose is bundle[-1] and _goes_on(dose, item, line):
                bundle[-1] = _longer(dose, item)
                continue
            if not _is_step(bundle):
                raise _second(dose, item, line)
            bundles.append([])
        elif item.kind == "loads" and bundle and bundle[-1].kind == "loads":
            raise SlipError(item.at, item.length, "the loads were said already on the line")
        bundles[-1].append(item)
    if len(bundles) == 1:
        return _bundle(bundles[0], line, spoken)
    last = bundles[-1]
    if not _is_step(last):
        dose = next(one for one in last if one.kind in ("dose", "list"))
        raise _second(bundles[-2][0], dose, line)
    _sure_of_loads(bundles)
    shared = _shared(bundles)
    return [
        piece
        for bundle in bundles
        for piece in _bundle([*bundle, *(shared if bundle is not last else ())], line, spoken)
    ]


def _opened(said: Sequence[Item]) -> list[Item]:
    return [part for item in said for part in (item.parts or (item,))]


def _goes_on(dose: Item, item: Item, line: str) -> bool:
    """Whether a number goes on with a list of numbers: ``12, 10, 8``."""
    if not item.bare or item.sets is not None or dose.sets is not None:
        return False
    between = line[dose.at + dose.length : item.at]
    return (dose.bare or (dose.kind == "list" and "/" not in line[dose.at : item.at])) and bool(
        _JOINED.fullmatch(between)
    )


def _longer(dose: Item, item: Item) -> Item:
    length = item.at + item.length - dose.at
    return replace(dose, kind="list", says=(*dose.says, *item.says), length=length, bare=False)


_WEIGHTS: Final = frozenset(
    {"load", "percent", "body_percent", "of_before", "added", "help", "no_load"}
)
_LOADING: Final = _WEIGHTS | {"band"}


def _sure_of_loads(bundles: Sequence[Sequence[Item]]) -> None:
    """A load with some of several steps may be meant for all of them: that is not guessed."""
    loads = [next((item for item in bundle if item.kind in _LOADING), None) for bundle in bundles]
    found = next((load for load in loads if load is not None), None)
    if found is not None and not all(loads):
        raise SlipError(
            found.at, found.length, "for which of these sets? Write the load with each of them"
        )


def _is_step(bundle: Sequence[Item]) -> bool:
    """Whether items are a step by themselves: a dose with a load or a side of its own."""
    kinds = {item.kind for item in bundle}
    return bool(kinds & (_WEIGHTS | {"left", "right"}))


def _shared(bundles: Sequence[Sequence[Item]]) -> list[Item]:
    """What stands at the end of several steps and is meant for all: a rest, the warm-up mark."""
    earlier = {item.kind for bundle in bundles[:-1] for item in bundle}
    shared = []
    for item in bundles[-1]:
        if item.kind in earlier or item.kind in ("dose", "list", "sets", "note"):
            continue
        if item.kind in ("rest", "open_rest", "no_rest", "warm_up"):
            shared.append(item)
        elif item.kind not in _WEIGHTS | {"left", "right"}:
            raise SlipError(
                item.at,
                item.length,
                "for the last of these sets or for all? Write "
                "'then' between the steps, and say it with each",
            )
    return shared


def _loose_answers(text: str, dose: Item) -> tuple[str, ...]:
    """What a bare number behind a dose can be; a small one behind another is a set more."""
    if (dose.bare or dose.kind == "list") and int(text) < FEW_REPS:
        return (f", {text}",)
    return f"{text} kg", f"rest {text} s", f"then {text}"


FEW_REPS: Final = 15


def _second(dose: Item, item: Item, line: str) -> SlipError:
    """A second dose that is not a step of its own."""
    text = line[item.at : item.at + item.length]
    first = dose.says[0]
    if dose.kind == "list" and len(dose.says) == 2 and text[:1] in "x×*X":
        on, off = (next(iter(one.values())) for one in dose.says)
        count = re.sub("[^0-9]", "", text) or "8"
        return SlipError(
            dose.at,
            item.at + item.length - dose.at,
            f"work and rest by the clock? Write '{count} × {on:g} s on, {off:g} s off'; of sets "
            "the number goes first",
        )
    if item.kind == "list" and len(item.says) == 2 and item.says[1] == {"reps": 10}:
        rpe = item.says[0].get("reps", 8)
        return SlipError(
            item.at,
            item.length,
            f"an exertion, or further sets? Write 'RPE {rpe}', or 'then {text}'",
        )
    if item.kind == dose.kind == "list" and len(item.says) == len(dose.says):
        return SlipError(
            item.at,
            item.length,
            f"the loads of these sets? Write 'at {text} kg', or 'then {text}' for further sets",
        )
    if item.says[0].get("seconds_to") is not None:
        return SlipError(item.at, item.length, f"a rest? Write 'rest {text}'")
    if set(item.says[0]) == {"seconds"} and len(item.says) == 1 and item.sets is None:
        time = time_text(item.says[0]["seconds"])
        if "seconds" in first:
            message = f"write 'rest {time}', or 'then {time}' for another set"
        else:
            message = TIME_AGAIN.format(time=time)
        return SlipError(item.at, item.length, message)
    if text[:1] in "x×*X":
        return SlipError(
            item.at, item.length, "the sets go first, then the reps, as in '3 × 8' or '3 × 8-12'"
        )
    if pair := re.fullmatch(r"2[ ]?[x×*][ ]?([0-9]{1,3})", text):
        return SlipError(
            item.at,
            item.length,
            f"two implements, or two sets more? Write 'at 2 × {pair[1]} kg', or 'then {text}'",
        )
    if "\t" in line[dose.at : item.at]:
        return SlipError(item.at, item.length, CELLS)
    if item.bare:
        return SlipError(
            item.at,
            item.length,
            f"{text} what? Write '{text} kg' for a load, 'rest {text} s' for a rest, 'then "
            f"{text}' for a set of {text} reps, or commas between the reps of several sets",
            _loose_answers(text, dose),
        )
    return SlipError(
        item.at,
        item.length,
        f"a second dose: for other sets write 'then {text}'; reps within a time stand as in "
        "'8 in 40 s'",
    )


# One step, or a list of sets.


def _bundle(bundle: Sequence[Item], line: str, spoken: Spoken | None) -> list[Piece]:
    says: dict[str, Any] = {}
    sets: int | None = None
    sets_to = next((one.sets_to for one in bundle if one.sets_to is not None), None)
    doses: Item | None = None
    loads: Item | None = None
    worded = False
    dose_at, dose_length = (bundle[0].at, bundle[0].length) if bundle else (0, 1)
    counted = any(one.kind in ("dose", "list") for one in bundle)
    for at, item in enumerate(bundle):
        said = item.says[0]
        match item.kind:
            case "dose" | "list":
                doses, worded = item, item.worded
                dose_at, dose_length = item.at, item.length
                sets = _one_of(sets, item.sets, item)
                said = {} if item.kind == "list" else said
            case "sets":
                sets = _one_of(sets, item.sets, item)
            case "held":
                sets = _one_of(sets, item.sets, item)
                said = _hold(item, spoken, counted=counted)
            case "hold" if not counted and _stands_still(spoken):
                said = {"seconds": item.says[0]["hold_s"], "static": True}
            case "loads":
                loads, said = item, {}
            case "load":
                _sure_of_load(item, bundle[:at], spoken, sets)
            case "added":
                _sure_of_addition(item, spoken)
            case "each":
                _sure_of_each(item, bundle[:at], line, spoken)
        _put(says, said, item)
    _no_contradiction(says, bundle)
    if doses is not None and doses.kind == "list":
        if spoken is not None and len(doses.says) == 2 and "/" in line[doses.at :][: doses.length]:
            pair = _pair(doses, says, sets, spoken)
            if pair is not None:
                return [Piece({**says, **pair}, sets, dose_at, dose_length, sets_to, worded)]
        return _listed(doses, loads, says, sets, spoken)
    if loads is not None:
        return _stepped(loads, says, sets, spoken, dose_at, dose_length)
    loads_at = [one.at for one in bundle if one.kind in _WEIGHTS - {"added"}]
    behind = doses is not None and bool(loads_at) and loads_at[0] < doses.at
    text = line[dose_at : dose_at + dose_length]
    return [Piece(says, sets, dose_at, dose_length, sets_to, worded, behind, text)]


def _one_of(sets: int | None, more: int | None, item: Item) -> int | None:
    if sets is not None and more is not None:
        raise SlipError(item.at, item.length, "the number of sets was said already on the line")
    return more if sets is None else sets


def _put(says: dict[str, Any], said: dict[str, Any], item: Item) -> None:
    for key, value in said.items():
        if key == "note" and says.get(key):
            value = f"{says[key]}; {value}"
        elif key in says:
            raise SlipError(item.at, item.length, "this was said already on the line")
        says[key] = value


def _no_contradiction(says: dict[str, Any], bundle: Sequence[Item]) -> None:
    if "rpe" in says and says.get("to_failure"):
        item = next(one for one in bundle if one.kind == "failure")
        raise SlipError(item.at, item.length, "to failure is RPE 10: write one of the two")
    shares = {"percent", "body_percent", "of_before"} & says.keys()
    if shares and (len(shares) > 1 or says.get("load") is not None):
        item = next(one for one in bundle if one.kind in shares)
        raise SlipError(
            item.at, item.length, "a load in kilograms and one in per cent: write one of the two"
        )


def _hold(item: Item, spoken: Spoken | None, *, counted: bool) -> dict[str, Any]:
    seconds = item.says[0]["seconds"]
    if counted and item.sets is None:
        return {"hold_s": seconds}
    if spoken is not None and spoken.held:
        return {"seconds": seconds}
    if _stands_still(spoken):
        return {"seconds": seconds, "static": True}
    time = time_text(seconds)
    raise SlipError(
        item.at,
        item.length,
        f"a hold of {time} behind how many reps? Write '8, hold {time}'; a movement that is held "
        "as a whole has its time alone",
    )


def _stands_still(spoken: Spoken | None) -> bool:
    """Whether a hold can be the whole set of it: of one movement that otherwise moves."""
    return (
        spoken is not None
        and len(spoken.moves) == 1
        and not spoken.held
        and not spoken.timed
        and spoken.movements[0].counted
    )


def _sure_of_load(
    item: Item, before: Sequence[Item], spoken: Spoken | None, sets: int | None
) -> None:
    load = load_of(item)
    if load is None or load.implements == 1 or item.told or sets is not None:
        return
    if any(one.kind in ("dose", "list") for one in before):
        return
    if spoken is None or spoken.in_rounds is not None:
        return
    one = f"{load.value:g} {load.unit}"
    raise SlipError(
        item.at,
        item.length,
        f"{load.implements} sets or {load.implements} implements? Sets are written as in "
        f"'{load.implements} × 5 at {one}'; of implements write 'at {load.implements} × {one}'",
    )


def _sure_of_addition(item: Item, spoken: Spoken | None) -> None:
    if spoken is None or all(movement.bodyweight_share for movement in spoken.movements):
        return
    load = load_of(item)
    assert load is not None  # noqa: S101 - an addition is one
    raise SlipError(
        item.at,
        item.length,
        f"{load.value:g} {load.unit} more than what? Write the load itself; + is for what is added "
        "to the body's weight",
    )


def _sure_of_each(item: Item, before: Sequence[Item], line: str, spoken: Spoken | None) -> None:
    written = line[item.at : item.at + item.length]
    if not before or before[-1].kind != "load":
        return
    load = load_of(before[-1])
    assert load is not None  # noqa: S101 - it is a load
    if spoken is not None and _OF_A_BAR.fullmatch(written) and any(map(uses_bar, spoken.movements)):
        raise SlipError(
            before[-1].at,
            item.at + item.length - before[-1].at,
            f"{load.value:g} {load.unit} of plates on each side? Write the whole load: "
            f"with a bar of {20 if load.unit == 'kg' else 45} {load.unit}, write "
            f"'at {2 * load.value + (20 if load.unit == 'kg' else 45):g} {load.unit}'",
        )
    if not _OF_ONE_HAND.fullmatch(written):
        return
    one = f"{load.value:g} {load.unit}"
    raise SlipError(
        before[-1].at,
        item.at + item.length - before[-1].at,
        f"two implements, or reps on each side? Write 'at 2 × {one}', or 'each side at {one}'",
    )


def _pair(
    doses: Item, says: dict[str, Any], sets: int | None, spoken: Spoken
) -> dict[str, Any] | None:
    """``8/8``: each side of a one-sided movement; two sets of another only if they differ."""
    key, unit = ("reps", "") if "reps" in doses.says[0] else ("seconds", " s")
    first, second = (say[key] for say in doses.says)
    if "sides" not in says and all(spoken.one_sided) and first == second:
        return {key: first, "sides": "each"}
    if spoken.in_rounds is not None and not any(spoken.one_sided):
        return None
    if first == second or any(spoken.one_sided):
        raise SlipError(
            doses.at,
            doses.length,
            f"two sets or two sides? Write '{first:g}{unit}, then {second:g}{unit}' for two "
            f"sets, or "
            + (
                f"'{first:g}{unit} each side'"
                if first == second
                else f"'{first:g}{unit} left, then {second:g}{unit} right'"
            ),
        )
    return None


def _listed(
    doses: Item,
    loads: Item | None,
    says: dict[str, Any],
    sets: int | None,
    spoken: Spoken | None,
) -> list[Piece]:
    """``12/10/8 at 40/45/50 kg``: a set for each number."""
    count = len(doses.says)
    if sets not in (None, count):
        raise SlipError(
            doses.at,
            doses.length,
            f"{sets} sets, and {count} numbers: write one for "
            "each set, or 'then' between the steps",
        )
    if loads is not None and len(loads.says) != count:
        raise SlipError(
            loads.at,
            loads.length,
            f"{len(loads.says)} loads for {count} sets: write one for all, or one for each",
        )
    _fits_rounds(count, doses, spoken)
    given = loads.says if loads is not None else ({},) * count
    return [
        Piece({**dose, **load, **says}, 1, doses.at, doses.length)
        for dose, load in zip(doses.says, given, strict=True)
    ]


def _stepped(
    loads: Item,
    says: dict[str, Any],
    sets: int | None,
    spoken: Spoken | None,
    at: int,
    length: int,
) -> list[Piece]:
    """``3 × 8 at 40/45/50 kg``: a set for each load."""
    count = len(loads.says)
    if sets not in (None, count):
        raise SlipError(
            loads.at,
            loads.length,
            f"{sets} sets, and {count} loads: write one for all, or one for each",
        )
    _fits_rounds(count, loads, spoken)
    return [Piece({**load, **says}, 1, at, length) for load in loads.says]


def _fits_rounds(count: int, item: Item, spoken: Spoken | None) -> None:
    rounds = spoken.in_rounds if spoken else None
    if rounds is not None and rounds % count:
        raise SlipError(
            item.at,
            item.length,
            f"{count} numbers for {rounds} rounds: write one for "
            "each round, or rounds that they go into",
        )


# What stays from the step before, and what the movement asks for.


def _step(piece: Piece, before: Step | None, spoken: Spoken) -> Step:
    kept = carried(piece, before.bout if before else None)
    sets = piece.sets
    if sets is None and before is not None and not piece.has_dose:
        sets = before.sets
    bout = settled(piece, kept, spoken)
    return Step(bout, sets or 1, piece.sets_to)


def carried(piece: Piece, before: Bout | None) -> dict[str, Any]:
    """The fields of a bout: what the piece says, and what stays from the one before.

    What is not given again stays. A dose given anew replaces the old one whole, a load the old
    one; exertion, hold and range belong to a load, the tempo to a range of its own.
    """
    says = piece.says
    if before is None:
        return dict(says)
    fields = {name: getattr(before, name) for name in Bout.__dataclass_fields__}
    fields["note"] = ""
    if piece.has_dose:
        fields |= {key: _BARE[key] for key in (*DOSE, "static")}
        if before.warm_up and not piece.has_loading and "warm_up" not in says:
            raise SlipError(
                piece.at,
                piece.length,
                "is this a warm-up set, too? Write 'warm-up' behind it, or its load",
                (f"{piece.text} warm-up",) if piece.text else (),
            )
    if piece.has_loading:
        fields |= {key: _BARE[key] for key in (*LOADING, *_EFFORT, "warm_up")}
    if "range" in says:
        fields["tempo"] = None
    if "rpe" in says or "to_failure" in says:
        fields |= {"rpe": None, "rpe_to": None, "to_failure": False}
    return fields | says


_BARE: Final = {name: getattr(Bout(), name) for name in Bout.__dataclass_fields__}


def settled(piece: Piece, fields: dict[str, Any], spoken: Spoken) -> Bout:
    """The bout, with what its movement asks for. Raises ``SlipError`` for what does not fit it."""
    fields = dict(fields)
    if fields.get("reps") == 0 and not piece.worded:
        raise SlipError(piece.at, piece.length, "no reps are not a set: leave it out")
    if fields.get("rpe") is None and "rpe_to" in fields:
        fields["rpe_to"] = None
    bare = piece.has_dose and not piece.worded
    counted = bare and any(fields.get(key) for key in ("reps", "clusters"))
    if counted and (spoken.held or spoken.carried):
        raise _not_counted(piece, fields, spoken)
    only = spoken.movements[0]
    if counted and len(spoken.moves) == 1 and only.pattern == "conditioning":
        reps = fields.get("reps")
        raise SlipError(
            piece.at,
            piece.length,
            f"{reps or 'so many'} what? Write '{reps or 8} min', '{reps or 8} s', "
            + (f"'{reps} m' " if (reps or 0) >= SHORTEST_M else "")
            + f"or '{reps or 20} reps'",
            _with_units(
                piece,
                ("min", "s", "m", "reps") if (reps or 0) >= SHORTEST_M else ("min", "s", "reps"),
            ),
        )
    distance = fields.get("distance_m")
    if bare and distance is not None and distance < SHORTEST_M and only.pattern == "conditioning":
        raise SlipError(
            piece.at,
            piece.length,
            f"metres or minutes? Write '{distance:g} min' for minutes; a distance here begins "
            "at 20 m",
        )
    if "sides" not in fields:
        fields |= _sides(piece, fields, spoken)
    return Bout(**fields)


def _not_counted(piece: Piece, fields: dict[str, Any], spoken: Spoken) -> SlipError:
    reps = fields.get("reps") or 35
    name = spoken.movements[0].name
    if spoken.carried and not spoken.held:
        text = f"{name} is carried: write how far or how long, '{reps} m' or '{reps} s'"
        units: tuple[str, ...] = ("m", "s")
    else:
        text, units = f"{name} is held: write how long, '{reps} s'", ("s",)
    if spoken.held and spoken.carried:
        text = f"{name}: write how long or how far, '{reps} s' or '{reps} m'"
        units = ("s", "m")
    return SlipError(piece.at, piece.length, text, _with_units(piece, units))


def _with_units(piece: Piece, units: Sequence[str]) -> tuple[str, ...]:
    """What was written of how much, with each unit that it can have."""
    return tuple(f"{piece.text.rstrip()} {unit}" for unit in units) if piece.text else ()


def _sides(piece: Piece, fields: dict[str, Any], spoken: Spoken) -> dict[str, Any]:
    """A one-sided movement without a side is done on each."""
    sided = spoken.one_sided
    if not any(sided):
        return {}
    if not all(sided):
        raise SlipError(
            spoken.at,
            spoken.length,
            "one of these movements is done one side after the other: write 'each side', "
            "'alternating' or 'both'",
        )
    clusters: tuple[int, ...] = fields.get("clusters") or ()
    if len(clusters) == 2:
        if clusters[0] != clusters[1]:
            raise SlipError(
                piece.at,
                piece.length,
                f"two sides or two bouts? Write '{clusters[0]} left, then {clusters[1]} right', "
                f"or '{clusters[0]} + {clusters[1]} each side'",
            )
        return {"clusters": (), "reps": clusters[0], "sides": "each"}
    return {"sides": "each"}
