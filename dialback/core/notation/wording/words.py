"""Signs and emphasis around a line: they say nothing of how much."""

from __future__ import annotations

import re
from typing import Final

from dialback.core.movements import Movement
from dialback.core.notation.vocabulary import WEIGHT_UNIT
from dialback.core.notation.wording.rule import Rule, rule


def _behind(match: re.Match[str], movement: Movement | None) -> str:
    return f" (note: {match[1].strip()})"


WORDS: Final[tuple[Rule, ...]] = (
    rule(r"\*\*|__|(?<![0-9 ])\*(?![0-9])|(?<![0-9])\*(?=[a-z])|(?<=[a-z])_\b|\b_(?=[a-z])", "",
         "**Back squat** 5 × 5", "Back squat 5 × 5", anywhere=True),
    rule(r"(?<=[^\s])[ ]{0,8}[\U0001F300-\U0001FAFF\u2600-\u27BF\uFE0F]+", "",
         "Back squat 5 × 5 \U0001F4AA", "Back squat 5 × 5", anywhere=True),
    rule(r"(?-i:(?<=[a-z][a-z])\.[ ]{1,8}(?=[A-Z]))", ", ",
         "Back squat 5 × 5 at 80 kg. Keep tall.", "Back squat 5 × 5 at 80 kg (Keep tall)"),
    rule(r"!+", "", "Back squat 5 × 5!!", "Back squat 5 × 5", anywhere=True),
    rule(r"\[([^\[\]()]{1,200})\]", r"(\1)",
         "Back squat 5 × 5 [belt on]", "Back squat 5 × 5 (belt on)", anywhere=True),
    rule(r"(?<![0-9'(])\"([a-z][^\"0-9()]{2,200})\"", r"(\1)",
         'Back squat 5 × 5 "push the floor away"', "Back squat 5 × 5 (push the floor away)",
         anywhere=True),
    rule(r"(?<=[^ ])[ ]{1,4}(?://|#|--)[ ]{1,4}([^()]{1,300})$", _behind,
         "Back squat 5 × 5 # belt on", "Back squat 5 × 5 (belt on)", anywhere=True),
    rule(r"(?<![0-9])(?<!bw)(?<!weight)[ ]{1,4}-[ ]{1,4}|[ ]{1,4}-[ ]{1,4}(?![0-9])", ", ",
         "Back squat 5 × 5 - knees out", "Back squat 5 × 5, knees out"),
    rule(rf"(?<=[0-9])[ ]{{1,4}}-[ ]{{1,4}}(?=[0-9]{{1,4}}(?:[.,][0-9]{{1,2}})?[ ]?{WEIGHT_UNIT})",
         ", ", "Back squat 5 × 5 - 80 kg", "Back squat 5 × 5, 80 kg"),
)  # fmt: skip
