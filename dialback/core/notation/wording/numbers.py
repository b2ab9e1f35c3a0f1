"""Numbers as they are typed and told: fractions, words, blanks between thousands."""

from __future__ import annotations

import re
from typing import Final

from dialback.core.movements import Movement
from dialback.core.notation.wording.rule import Rule, rule

NUMBER_WORDS: Final = {
    "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8,
    "nine": 9, "ten": 10, "eleven": 11, "twelve": 12, "fifteen": 15, "twenty": 20, "thirty": 30,
    "forty": 40, "a dozen": 12,
}  # fmt: skip
_NUMBER_WORD: Final = rf"\b(?:{'|'.join(NUMBER_WORDS)})\b"
_COUNTED: Final = (
    r"(?:x\b|×|by\b|sets?\b|reps?\b|rounds?\b|rds?\b|times\b|singles?\b|doubles?\b|triples?\b"
    r"|seconds?\b|secs?\b|minutes?\b|mins?\b|kg\b|kilos?\b|metres?\b|each\b|per\b)"
)
_FRACTIONS: Final = {"½": "5", "¼": "25", "¾": "75"}


def _fraction(match: re.Match[str], movement: Movement | None) -> str:
    return f"{match[1] or '0'}.{_FRACTIONS[match[2]]}"


def _word(match: re.Match[str], movement: Movement | None) -> str:
    return str(NUMBER_WORDS[match[0].lower()])


NUMBERS: Final[tuple[Rule, ...]] = (
    rule(r"(?:([0-9]{1,4})[ ]?)?([½¼¾])", _fraction,
         "Bench press 3 × 8 at 62½ kg", "Bench press 3 × 8 at 62.5 kg"),
    rule(r"\b([0-9]{1,4})[ ]1/2(?=[ ]?(?:kg|lb|min|kilos?|pounds?)\b)", r"\1.5",
         "Bench press 3 × 8 at 62 1/2 kg", "Bench press 3 × 8 at 62.5 kg"),
    rule(r"(?<![0-9.,])([0-9]{1,2})[ ]000(?=[ ]?m(?:et(?:er|re)s?)?\b)", r"\g<1>000",
         "Rowing machine, steady 2 000 m", "Rowing machine, steady 2000 m"),
    rule(rf"{_NUMBER_WORD}(?=[ ]{_COUNTED})", _word,
         "Bench press three sets of 8", "Bench press 3 × 8"),
    rule(rf"(?<=sets of ){_NUMBER_WORD}|(?<=[ ](?:by|of) ){_NUMBER_WORD}|(?<=[0-9] x )"
         rf"{_NUMBER_WORD}|(?<=[0-9] × ){_NUMBER_WORD}", _word,
         "Deadlift three by five at 100 kg", "Deadlift 3 × 5 at 100 kg"),
    rule(r"(?<![a-z])([0-9]{1,3}(?:[.,][0-9]{1,2})?)#", r"\1 lb",
         "Back squat 5 × 5 at 135#", "Back squat 5 × 5 at 135 lb"),
)  # fmt: skip
