"""Sets, reps, sides, exertion and rest as they are told."""

from __future__ import annotations

import re
from typing import Final

from dialback.core.movements import Movement
from dialback.core.notation.slips import SlipError
from dialback.core.notation.vocabulary import LIMB, NUMBER, TIME, TIME_SPAN
from dialback.core.notation.wording.numbers import NUMBER_WORDS
from dialback.core.notation.wording.rule import Rule, rule

_INT: Final = "[0-9]{1,3}"
_LIMB: Final = rf"(?:{LIMB}|way|direction)"
_OFTEN: Final = {"singles": 1, "doubles": 2, "triples": 3, "single": 1, "double": 2, "triple": 3}
LONGEST_HOLD_MIN: Final = 5
"""Beyond so many minutes nobody holds a plank; ``40 m`` is asked about."""
SHORTEST_REST_S: Final = 20
LONGEST_REST_MIN: Final = 4
"""From so many on a rest without a unit is in seconds; up to so many it is in minutes."""


def _often(match: re.Match[str], movement: Movement | None) -> str:
    return f"{match[1]} × {_OFTEN[match[3].lower()]}{f' ({match[2].strip()})' if match[2] else ''}"


def _heavy(match: re.Match[str], movement: Movement | None) -> str:
    """A set that is built up to: one, its load left open."""
    said = match[1].lower()
    reps = _OFTEN.get(said) or NUMBER_WORDS.get(said) or said
    return f"{reps} (note: {match[0].strip()})"


def _listed(match: re.Match[str], movement: Movement | None) -> str | None:
    """``10-8-6`` is a set each; what may be a tempo is left alone."""
    numbers = re.findall("[0-9]+", match[0])
    loads = match.string[: match.start()].rstrip().endswith(("@", "at"))
    if not loads and len(numbers) <= 4 and all(len(one) == 1 for one in numbers):
        return None
    return "/".join(numbers)


def _sided(match: re.Match[str], movement: Movement | None) -> str:
    """``8L/6R``: each side by itself, with the sets that stand before; ``8L/8R`` is each side."""
    sets, left, right = match[1] or "", match[2], match[3]
    if left == right:
        return f"{sets}{left} each side"
    return f"{sets}{left} left, {sets}{right} right"


def _short_of(match: re.Match[str], movement: Movement | None) -> str:
    reps = next(group for group in match.groups() if group)
    return f"RIR {reps}"


def _rest(match: re.Match[str], movement: Movement | None) -> str | None:
    """A rest without a unit: what makes sense as one thing alone is that."""
    low, high = match[1], match[2]
    least, most = float(low.replace(",", ".")), float((high or low).replace(",", "."))
    span = f"{low}-{high}" if high else low
    if least >= SHORTEST_REST_S:
        return f"rest {span} s"
    return f"rest {span} min" if least >= 1 and most <= LONGEST_REST_MIN else None


def _minutes(match: re.Match[str], movement: Movement | None) -> str | None:
    """``m`` of what is held and goes nowhere are minutes."""
    if movement is None or not movement.isometric or movement.pattern == "carry":
        return None
    if float(match[1].replace(",", ".")) > LONGEST_HOLD_MIN:
        return None
    return f"{match[1]} min"


def _in_all(match: re.Match[str], movement: Movement | None) -> str | None:
    return f"{match[1]} alternating" if movement is not None and movement.one_sided else None


def _steps(match: re.Match[str], movement: Movement | None) -> str | None:
    return f"{match[1]} alternating" if movement and movement.pattern == "lunge" else None


def _last_to_failure(match: re.Match[str], movement: Movement | None) -> str | None:
    sets = int(match[1])
    if sets < 2:
        return None
    return f"{sets - 1} × {match[2]}{match[3].rstrip(' ,-')}, then {match[2]} to failure"


def _a_set_each(match: re.Match[str], movement: Movement | None) -> str | None:
    """``5 sets of 5, 5, 4, 4, 3``: as many numbers as sets."""
    numbers = re.findall("[0-9]+", match[2])
    return "/".join(numbers) if len(numbers) == int(match[1]) else None


def _slow_down(match: re.Match[str], movement: Movement | None) -> str | None:
    raise _a_tempo(match, f"{_whole(match[1])}-0-1-0")


def _paused(match: re.Match[str], movement: Movement | None) -> str | None:
    usual = (movement.tempo if movement is not None else None) or "2-0-1-0"
    raise _a_tempo(match, f"{usual[0]}-{_whole(match[1])}-1-0")


def _whole(seconds: str) -> str:
    return f"{round(float(seconds.replace(',', '.')))}"


def _a_tempo(match: re.Match[str], tempo: str) -> SlipError:
    said = match[0].strip()
    return SlipError(
        match.start(),
        len(match[0].rstrip()),
        f"is that a tempo? Write 'tempo {tempo}', or '({said})' as a remark",
        (f"tempo {tempo}", f"({said})"),
    )


def _back_off(match: re.Match[str], movement: Movement | None) -> str:
    if share := re.match(rf"[ ]?[^%]{{0,20}}?(?:at|@)[ ]?({NUMBER})[ ]?%(?![ ]?of)",
                         match.string[match.end() :]):  # fmt: skip
        sets = re.sub(r"[ ]?(?:at|@)[ ]?[0-9.,]+[ ]?%$", "", share[0]).strip()
        ways = tuple(
            f", then {sets} at {share[1]} % of the {base}" for base in ("set before", "maximum")
        )
        raise SlipError(
            match.start(),
            len(match[0]) + len(share[0]),
            f"{share[1]} % of the maximum, or of the set before? Write '{ways[0][2:]}', or "
            f"'{ways[1][2:]}'",
            ways,
        )
    return ", then "


DOSES: Final[tuple[Rule, ...]] = (
    # Sets and reps.
    rule(rf"\b({_INT})[ ]?(?:[x×*]|sets?(?:[ ]of\b|[ ]?:))[ ]?({_INT}(?:,[ ]?{_INT}){{1,19}})",
         _a_set_each,
         "Bench press 3 sets: 10, 8, 6", "Bench press 10/8/6"),
    rule(rf"(?<![0-9])(?<![0-9] )\bsets?[ ]?[:=][ ]?({_INT}),?", r"\1 sets",
         "Bench press sets: 4 reps: 6", "Bench press 4 × 6"),
    rule(r"(?<![0-9])(?<![0-9] )\breps?[ ]?[:=]?[ ]?(?=[0-9])", "",
         "Bench press reps 10, 8, 6", "Bench press 10/8/6"),
    rule(r"(?<!body )(?<!body-)\b(?:load|weight)[ ]?[:=]?[ ]?(?=[0-9])", "at ",
         "Bench press 4 × 6 load: 70 kg", "Bench press 4 × 6 at 70 kg"),
    rule(rf"\b({_INT})[ ]times[ ](?={_INT}\b)", r"\1 × ",
         "Bench press 4 times 6 at 70 kg", "Bench press 4 × 6 at 70 kg"),
    rule(rf"\bfor[ ](?={_INT}[ ]?sets?\b[ ]?of\b)", "",
         "Bench press for 3 sets of 8", "Bench press 3 × 8"),
    rule(rf"(?<![0-9x×*-])(?<![x×*] )({_INT}(?:-{_INT})?|{TIME})(?:[ ]?reps?)?[ ]for[ ]"
         rf"({_INT})[ ]sets?\b", r"\2 × \1",
         "Bench press 8 for 3 sets", "Bench press 3 × 8"),
    rule(rf"({_INT})[ ]?(heavy[ ]|easy[ ]|light[ ])?(singles|doubles|triples)\b", _often,
         "Deadlift 5 singles at 120 kg", "Deadlift 5 × 1 at 120 kg"),
    rule(r"\b(?:top|main|work(?:ing)?)[ ](?:sets?|single|double|triple):?[ ](?=[0-9])", "",
         "Back squat top set 5 at 100 kg", "Back squat 5 at 100 kg"),
    rule(r"(?:(?:(?:build|work|ramp)(?:ing)?[ ])?(?:up[ ])?to[ ](?:a[ ])?|\b)"
         r"(?:heavy|top|hard)[ ](?:set of[ ])?"
         rf"([0-9]{{1,2}}|single|double|triple|{'|'.join(NUMBER_WORDS)})\b"
         r"(?![ ]?(?:[x×*]|sets?|kg|lb|kilo|%|s\b|sec|min|[.,][0-9]))", _heavy,
         "Back squat build to a heavy 3", "Back squat 3 (note: build to a heavy 3)"),
    rule(r"(?<![0-9-])(?<!tempo )(?<!tempo)[0-9]{1,3}(?:-[0-9]{1,3}){2,12}(?![0-9-])", _listed,
         "Bench press 10-8-6-4-2", "Bench press 10/8/6/4/2"),
    rule(rf"(?<![x×*])(?<![x×*][ ])({TIME_SPAN}|{TIME})[ ]?[x×*][ ]?([0-9]{{1,2}})"
         r"(?![0-9.]|[ ]?(?:kg|lb|s\b|min|m\b|reps?))",
         r"\2 × \1", "Front plank 1 min × 3", "Front plank 3 × 60 s"),
    rule(rf"({_INT})[ ](?:trips|lengths|runs|goes|efforts)[ ](?:of[ ])?(?=[0-9])", r"\1 × ",
         "Farmer's carry 3 trips of 40 m", "Farmer's carry 3 × 40 m"),
    rule(rf"({_INT})[ ]?[x×*][ ]?({_INT})([^×*(\x00]{{0,40}}?)[ ,-]{{1,4}}last (?:set|one)[ ]"
         r"(?:to failure|amrap|max|all out)\b", _last_to_failure,
         "Bench press 3 × 8 at 60 kg, last set to failure",
         "Bench press 2 × 8 at 60 kg, then 8 to failure"),
    rule(rf"(?:,[ ])?(?:then[ ])?\bdrop(?:ping)?[ ](?:by[ ])?({NUMBER})[ ]?%,?(?:[ ]for)?[ ]?",
         lambda match, movement: f", then at {_left(match[1])} % of the set before ",
         "Bench press 3 at 80 kg, drop 10 % 2 × 6",
         "Bench press 3 at 80 kg, then 2 × 6 at 90 % of the set before"),
    rule(r"(?:,[ ])?(?:then[ ])?\b(?:back[- ]?offs?|backing off|drop)(?:[ ]sets?)?:?[ ]"
         r"(?:to[ ])?(?=[0-9])", _back_off,
         "Back squat 5 at 100 kg, back-off 3 × 5 at 90 kg",
         "Back squat 5 at 100 kg, then 3 × 5 at 90 kg"),
    rule(rf"({NUMBER})[ ]?%[ ](?:of|from)[ ](?:the[ ])?"
         r"(?:top(?:[ ]set)?|set before|(?:last|first|previous)[ ]set|heaviest(?:[ ]set)?|that)\b",
         r"\1 % of the set before",
         "Back squat 5 at 100 kg, then 3 × 5 at 90 % of top set",
         "Back squat 5 at 100 kg, then 3 × 5 at 90 % of the set before"),
    rule(rf"(?:(?:at|@|with)[ ])?(?:-|minus|less)[ ]?({NUMBER})[ ]?%",
         lambda match, movement: f"at {_left(match[1])} % of the set before",
         "Back squat 5 at 100 kg, then 3 × 5 at -10 %",
         "Back squat 5 at 100 kg, then 3 × 5 at 90 % of the set before"),
    rule(rf"(?:(?:at|@|with)[ ])?({NUMBER})[ ]?%[ ](?:less|lighter|down|off)\b",
         lambda match, movement: f"at {_left(match[1])} % of the set before",
         "Back squat 5 at 100 kg, then 3 × 5 10 % lighter",
         "Back squat 5 at 100 kg, then 3 × 5 at 90 % of the set before"),
    rule(rf"({NUMBER})[ ]?(s|secs?|min)[ ]?/[ ]?({NUMBER})[ ]?\2\b", r"\1/\3 \2",
         "Side plank 30 s/30 s", "Side plank 30 s each side"),
    rule(rf"({NUMBER})[ ]?m\b(?!/)", _minutes, "Wall sit 2 × 1m", "Wall sit 2 × 1 min"),
    # Sides.
    rule(rf"(?<![0-9])((?:{_INT}[ ]?[x×*][ ]?)?)({_INT})[ ]?l(?:eft)?[ ]?[/&+][ ]?({_INT})[ ]?"
         r"r(?:ight)?\b", _sided, "Split squat 3 × 8L/8R", "Split squat 3 × 8 each side"),
    rule(rf"(?<![0-9])((?:{_INT}[ ]?[x×*][ ]?)?)l(?:eft)?[ :]?[ ]?({_INT})[ ,/]{{1,3}}"
         rf"r(?:ight)?[ :]?[ ]?({_INT})\b", _sided, "Split squat L 8 R 6",
         "Split squat 8 left, 6 right"),
    rule(rf"\b(?:just|only)[ ](?:the[ ])?(left|right)\b|\b(left|right)(?:[ ]{_LIMB})?[ ]only\b",
         lambda match, movement: match[1] or match[2],
         "Split squat 3 × 8 right only", "Split squat 3 × 8 right"),
    rule(r"(?<=[0-9 ])e\.s\.?(?![a-z])", "each side",
         "Split squat 3 × 8 e.s.", "Split squat 3 × 8 each side"),
    rule(rf"\b(?:on[ ]|to[ ])?(?:each|every|either)[ ]{_LIMB}\b|\bboth[ ](?:ways|directions)\b",
         "each side", "Thoracic rotation 8 each way", "Thoracic rotation 8 each side"),
    rule(rf"({_INT})(?:[ ]reps)?[ ](?:in[ ])?(?:total|all)\b", _in_all,
         "Split squat 3 × 16 total", "Split squat 3 × 16 alternating"),
    rule(rf"({_INT})[ ]steps?\b(?![ ](?:each|per|a)\b)", _steps,
         "Walking lunge 3 × 20 steps", "Walking lunge 3 × 20 alternating"),
    # Exertion.
    rule(rf"(?:(?:at|@)[ ]?)?(?:an?[ ])?\brpe[ ]of[ ](?={NUMBER})", "RPE ",
         "Back squat 5 × 5 at an RPE of 8", "Back squat 5 × 5, RPE 8"),
    rule(rf"(?:(?:at|@)[ ]?)?(?<![0-9.,])({NUMBER}(?:-{NUMBER})?)[ ]?rpe\b(?![ ]?:?[ ]?[0-9])",
         r"RPE \1", "Back squat 5 × 5 @ 7.5 RPE", "Back squat 5 × 5, RPE 7.5"),
    rule(rf"\b(?:rpe|effort|exertion|intensity)[ ]?:?[ ]?({NUMBER})[ ]?/[ ]?10\b", r"RPE \1",
         "Back squat 5 × 5, effort 8/10", "Back squat 5 × 5, RPE 8"),
    rule(rf"({NUMBER})[ ]?/[ ]?10[ ](?:effort|exertion|rpe|intensity)\b", r"RPE \1",
         "Back squat 5 × 5, 8/10 effort", "Back squat 5 × 5, RPE 8"),
    rule(rf"(\brpe[ ]?:?[ ]?{NUMBER})[ ]to[ ]({NUMBER})", r"\1-\2",
         "Back squat 5 × 5 RPE 7 to 8", "Back squat 5 × 5, RPE 7-8"),
    rule(r"\b(?:leav(?:e|ing)|keep(?:ing)?|with)[ ]([0-9](?:-[0-9])?)(?:[ ]reps?)?"
         r"(?:[ ]left)?(?:[ ]in[ ](?:the[ ]tank|reserve|hand))\b"
         r"|\b(?:leav(?:e|ing)|with)[ ]([0-9](?:-[0-9])?)(?:[ ]reps?)?[ ]left\b"
         r"|\b(?:stop(?:ping)?[ ])?([0-9](?:-[0-9])?)(?:[ ]reps?)?[ ](?:short|shy)[ ]of[ ]failure\b"
         r"|\b([0-9](?:-[0-9])?)(?:[ ]reps?)?[ ](?:left[ ])?in[ ]the[ ]tank\b", _short_of,
         "Back squat 5 × 5 leaving 2 in the tank", "Back squat 5 × 5, RIR 2"),
    # Tempo.
    rule(rf"({NUMBER})[ ]?s(?:ec(?:onds?)?)?[ ](?:down|low(?:er|ering)|eccentrics?|negatives?)\b",
         _slow_down, "", ""),
    rule(r"(?:with[ ])?(?:a[ ])?\b([1-9])[ ]?s(?:ec(?:onds?)?)?[ ]pauses?\b[^,;(0-9]{0,30}",
         _paused, "", ""),
    rule(r"(?:@|\bat)[ ]?([0-9][0-9][0-9x][0-9]|[0-9]x[0-9]x?)(?![0-9]|[ ]?(?:kg|lb|%|m\b|[.,]))",
         r"tempo \1", "Back squat 5 × 5 @ 30X1", "Back squat 5 × 5, tempo 30X1"),
    rule(r"(?<![0-9x×-])([0-9]{3,4}|[0-9]{2}x[0-9])[ ]tempo\b(?![ :]{0,3}(?:[0-9]{3}|[0-9x]-))",
         r"tempo \1",
         "Back squat 5 × 5, 3010 tempo", "Back squat 5 × 5, tempo 3010"),
    # Rest.
    rule(r"\bas[ ](?:required|necessary|you[ ](?:need|like|want)|long as needed)\b", "as needed",
         "Back squat 5 × 5, rest as required", "Back squat 5 × 5, rest as needed"),
    rule(r"\b(?:full|complete)[ ](?:rest|recovery)\b|\brest[ ]fully\b", "rest as needed",
         "Back squat 5 × 5, full rest", "Back squat 5 × 5, rest as needed"),
    rule(rf"\br(?:est)?[ ]?[-:=][ ]?(?=[0-9])|\br[ ]?(?=(?:{TIME}))|\bbreak[ ]?:?[ ]?(?=[0-9])",
         "rest ", "Back squat 5 × 5, R: 90 s", "Back squat 5 × 5, rest 90 s"),
    rule(rf"\bpause[ ]?:?[ ]?(?=(?:[2-9][0-9]|[0-9]{{3}})[ ]?(?:s\b|sec)|{NUMBER}[ ]?min)", "rest ",
         "Back squat 5 × 5, pause 90 s", "Back squat 5 × 5, rest 90 s"),
    rule(r"\br([0-9]{2,3})\b(?!')", r"rest \1 s",
         "Back squat 5 × 5 r90", "Back squat 5 × 5, rest 90 s"),
    rule(rf"(?:(?:with|w/|and)[ ]?)?(?:rest(?:ing)?[ ]:?[ ]?)?((?:{NUMBER}[ ]?-[ ]?)?(?:{TIME}))[ ]"
         r"(?:of[ ])?"
         r"(?:break|recovery|(?:rest[ ])?between[ ](?:all[ ])?sets)\b",
         r"rest \1", "Back squat 5 × 5, 90 s break", "Back squat 5 × 5, rest 90 s"),
    rule(rf"({NUMBER}|{NUMBER}[ ]?-[ ]?{NUMBER})[ ]?m[ ](?=rest)", r"\1 min ",
         "Back squat 5 × 5, 2m rest", "Back squat 5 × 5, rest 2 min"),
    rule(rf"\b(?:with|w/)[ ]?(?=(?:{NUMBER}[ ]?-[ ]?)?(?:{TIME})[ ](?:of[ ])?rest\b)", "",
         "Back squat 5 × 5 w/ 90 s rest", "Back squat 5 × 5, rest 90 s"),
    rule(rf"\brest[ ]({NUMBER})[ ]?m\b", r"rest \1 min",
         "Back squat 5 × 5, rest 2m", "Back squat 5 × 5, rest 2 min"),
    rule(rf"\brest[ ]({NUMBER})(?:[ ]?(?:-|to)[ ]?({NUMBER}))?"
         r"(?![ ]?(?:[a-z0-9%'\":.,/-]))(?=[ ]?(?:[;)]|$|,))", _rest,
         "Back squat 5 × 5, rest 90", "Back squat 5 × 5, rest 90 s"),
)  # fmt: skip
"""In the order in which they are tried."""


def _left(share: str) -> str:
    return f"{100 - float(share.replace(',', '.')):g}"
