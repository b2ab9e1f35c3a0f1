"""Loads as they are told: more or less than the body, by the hand, in two units, left and right."""

from __future__ import annotations

import re
from typing import Final

from dialback.core.kit import uses_dumbbells
from dialback.core.movements import Movement
from dialback.core.notation.slips import SlipError
from dialback.core.notation.vocabulary import NUMBER, WEIGHT_UNIT
from dialback.core.notation.wording.rule import Rule, rule
from dialback.core.sessions import KG_PER_LB
from dialback.core.vocabulary import BY_HAND

_KG: Final = rf"{NUMBER}[ ]?{WEIGHT_UNIT}"
_BODY: Final = r"(?:bw|body[- ]?weight)\b"
_SEVERAL: Final = "(?:dumbbells|dbs|kettlebells|kbs)"
_NO_DOSE: Final = r"(?<![0-9.,:/x×*-])(?<![x×*][ ])"
"""Before a number that is no number of reps."""
MOST_APART: Final = 0.03
"""A load told in two units may be rounded by so much."""
_SAME: Final = r"(?:[ ]?[/=][ ]?|[ ]?\([ ]?=?[ ]?|[ ]or[ ])"


def _of_body(movement: Movement | None) -> bool:
    return movement is not None and movement.bodyweight_share >= 0.5


def _help(match: re.Match[str], movement: Movement | None) -> str | None:
    return f"help {match[1]}" if match[0][:1].isalpha() or _of_body(movement) else None


def _by_hand(match: re.Match[str], movement: Movement | None) -> str | None:
    """A load of each hand: a pair, unless one arm works by itself."""
    if movement is not None and movement.one_sided and movement.pattern in BY_HAND:
        return None
    return f"2 × {match[1]}"


def _pair(match: re.Match[str], movement: Movement | None) -> str:
    return f"2 × {match[1]}"


def _both_units(match: re.Match[str], movement: Movement | None) -> str | None:
    """A load told in kilograms and in pounds is the first of the two, where they agree."""
    first, second = match[1], match[2]
    if _unit(first) == _unit(second):
        return None
    if abs(_kg(first) - _kg(second)) > MOST_APART * _kg(first):
        said = _kg(first) if _unit(second) == "kg" else _kg(first) / KG_PER_LB
        raise SlipError(
            match.start(),
            len(match[0]),
            f"{first} is {said:.1f} {_unit(second)}, not {second}: write the one you mean",
        )
    return first


def _unit(text: str) -> str:
    return "lb" if re.search("lb|pound", text, re.IGNORECASE) else "kg"


def _kg(text: str) -> float:
    found = re.match(NUMBER, text)
    value = float(found[0].replace(",", ".")) if found else 0.0
    return value * (KG_PER_LB if _unit(text) == "lb" else 1.0)


def _share_of_body(match: re.Match[str], movement: Movement | None) -> str:
    return f"{float(match[1].replace(',', '.')) * 100:g} % body weight"


_TIMES_BODY: Final = {"half": "50 % body weight", "double": "200 % body weight"}


def _worded_share(match: re.Match[str], movement: Movement | None) -> str:
    return _TIMES_BODY[match[1].lower()]


def _single_kit(match: re.Match[str], movement: Movement | None) -> str | None:
    """``20 kg dumbbells``: several of them are a pair."""
    if match[2].lower().endswith("s") and (movement is None or uses_dumbbells(movement)):
        return f"2 × {match[1]}"
    return match[1]


LOADS: Final[tuple[Rule, ...]] = (
    rule(rf"({_KG}){_SAME}({_KG})[ ]?\)?", _both_units,
         "Back squat 5 × 5 at 60 kg (132 lb)", "Back squat 5 × 5 at 60 kg", anywhere=True),
    rule(rf"(?:{_BODY}[ ]?)?(?:minus|less)[ ]?({_KG})|{_BODY}[ ]?-[ ]?({_KG})",
         lambda match, movement: f"help {match[1] or match[2]}",
         "Pull-up 3 × 5 BW - 15 kg", "Pull-up 3 × 5 help 15 kg"),
    rule(rf"(?<=[ ])-({_KG})", _help, "Pull-up 3 × 5 -15 kg", "Pull-up 3 × 5 help 15 kg"),
    rule(rf"(?:(?:at|@|with)[ ]?)?(?:{_BODY}[ ]?)?(?:plus|\+)[ ]?({_KG})", r"+\1",
         "Pull-up 3 × 5 body weight plus 10 kg", "Pull-up 3 × 5 +10 kg"),
    rule(rf"(?:(?:at|@|with)[ ]?)?(?<![0-9])({_KG})[ ](?:extra|added|on top|more)"
         r"(?:[ ]weight)?\b", r"+\1",
         "Pull-up 3 × 5 with 10 kg extra", "Pull-up 3 × 5 +10 kg"),
    rule(rf"weighted[ ]?,?[ ]?(?:at|@|with)?[ ]?({_KG})", r"+\1",
         "Dip 3 × 8 weighted 10 kg", "Dip 3 × 8 +10 kg"),
    rule(rf"({NUMBER})[ ]?%[ ]?(?:of[ ])?(?:the[ ]|own[ ])?{_BODY}", r"\1 % body weight",
         "Goblet squat 3 × 10 at 25 % BW", "Goblet squat 3 × 10 at 25 % body weight"),
    rule(rf"(?<![0-9.,])([0-9][.,][0-9]{{1,2}})[ ]?(?:[x×*]|times)?[ ]?{_BODY}", _share_of_body,
         "Deadlift 3 × 5 at 1.5 x bodyweight", "Deadlift 3 × 5 at 150 % body weight"),
    rule(rf"(?<=[@t][ ])([1-3])[ ]?(?:[x×*]|times)[ ]?{_BODY}", _share_of_body,
         "Deadlift 3 × 1 at 2 x BW", "Deadlift 3 × 1 at 200 % body weight"),
    rule(rf"(?:(?<=at )|(?<=@)|(?<=with ))(half|double)[ -]?{_BODY}", _worded_share,
         "Deadlift 3 × 5 at double bodyweight", "Deadlift 3 × 5 at 200 % body weight"),
    rule(rf"({_KG})[ ]?(?:per|in each|each|a|in either|/)[ ]?(?:hand|dumbbell|db|kettlebell|kb)\b",
         _by_hand, "Dumbbell bench press 3 × 10 at 20 kg per hand",
         "Dumbbell bench press 3 × 10 at 2 × 20 kg"),
    rule(rf"(?:a[ ])?pair of[ ]({_KG})(?:[ ]{_SEVERAL})?", _pair,
         "Dumbbell curl 3 × 10 with a pair of 10 kg", "Dumbbell curl 3 × 10 at 2 × 10 kg"),
    rule(rf"(?:(?:with|holding|@|at)[ ])?(?:two|2)[ ]({_KG})[ ]{_SEVERAL}\b"
         rf"|holding[ ]({_KG})[ ]{_SEVERAL}\b",
         lambda match, movement: f"at 2 × {match[1] or match[2]}",
         "Split squat 3 × 8 holding 12 kg dumbbells", "Split squat 3 × 8 at 2 × 12 kg"),
    rule(rf"([2][ ]?[x×*][ ]?{_KG})[ ]{_SEVERAL}\b", r"\1",
         "Split squat 3 × 8 at 2 × 12 kg DBs", "Split squat 3 × 8 at 2 × 12 kg"),
    rule(rf"(?<![x×*])(?<![x×*][ ])({_KG})[ ](dumbbells?|dbs?|kettlebells?|kbs?|barbell|bar)\b"
         r"(?=[ ]{0,8}(?:[,;]|$))", _single_kit,
         "Dumbbell bench press 3 × 10 with 20 kg dumbbells",
         "Dumbbell bench press 3 × 10 at 2 × 20 kg"),
    rule(r"([0-9]{1,2}[ ]?[x×*][ ]?[0-9]{1,3}|[0-9]{1,3})[ ](?:(?:at|@|with)[ ])?"
         rf"({_KG})[ ]?(?:left|l),?[ ](?:and[ ])?(?:(?:at|@|with)[ ])?({_KG})[ ]?(?:right|r)\b",
         r"\1 left at \2, then \1 right at \3",
         "One-arm dumbbell row 3 × 10 at 10 kg left, 12 kg right",
         "One-arm dumbbell row 3 × 10 left at 10 kg, then 3 × 10 right at 12 kg"),
    rule(rf"([0-9]{{1,2}}[ ]?[x×*][ ]?[0-9]{{1,3}})(?:[ ]each[ ](?:arm|side|hand))?[ ,]{{1,3}}"
         rf"l(?:eft)?[ :]{{1,2}}({_KG}),?[ ](?:and[ ])?r(?:ight)?[ :]{{1,2}}({_KG})",
         r"\1 left at \2, then \1 right at \3",
         "One-arm dumbbell row 3 × 10 L 20 kg R 22 kg",
         "One-arm dumbbell row 3 × 10 left at 20 kg, then 3 × 10 right at 22 kg"),
    rule(rf"(?:at[ ])?(?:~[ ]?|(?:about|approx\.?|approximately|around|circa|ca\.?)[ ])({_KG})",
         r"\1 (note: about \1)",
         "Back squat 5 × 5 about 80 kg", "Back squat 5 × 5 at 80 kg (note: about 80 kg)"),
    rule(rf"{_NO_DOSE}({NUMBER})(?:-|[ ]-[ ]|[ ]to[ ])({NUMBER})[ ]?({WEIGHT_UNIT})",
         r"\1 \3 (note: \1-\2 \3)",
         "Back squat 5 × 3 at 80-85 kg", "Back squat 5 × 3 at 80 kg (note: 80-85 kg)"),
    rule(rf"{_NO_DOSE}({NUMBER})[ ]?%?(?:-|[ ]-[ ]|[ ]to[ ])({NUMBER})[ ]?%",
         r"\1 % (note: \1-\2 %)",
         "Back squat 5 × 3 at 75-80 %", "Back squat 5 × 3 at 75 % (note: 75-80 %)"),
    rule(r"(?:\bat[ ]|@[ ]?)([0-9]{2,3}(?:,[0-9]{2,3}){2,12})(?=[ ]?(?:kg|lb))",
         lambda match, movement: f"at {match[1].replace(',', '/')}",
         "Back squat 8, 6, 4 @ 60,65,70 kg", "Back squat 8/6/4 at 60/65/70 kg"),
    rule(r"\bw[ ](?=[0-9]{1,3}(?:[.,][0-9]{1,2})?[ ]?(?:kg|lb))", "at ",
         "Dip 3 × 8 w 10 kg", "Dip 3 × 8 at 10 kg"),
    rule(rf"({_KG}):(?=[ ]?[0-9])", r"\1,",
         "Back squat 80 kg: 5, 5, 5", "Back squat 5, 5, 5 at 80 kg"),
)  # fmt: skip
"""In the order in which they are tried."""
