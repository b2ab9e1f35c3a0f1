"""Several movements on one line: supersets, circuits, the clock; each becomes lines of its own."""

from __future__ import annotations

import re
from collections.abc import Sequence
from itertools import pairwise
from typing import Final

from dialback.core.notation.marks import INDENT
from dialback.core.notation.names import Names
from dialback.core.notation.slips import SlipError
from dialback.core.notation.vocabulary import LOAD, NUMBER, TIME
from dialback.core.notation.wording.heads import COUNT, HEADS, RUNGS, rungs_through
from dialback.core.notation.wording.placed import Placed, joined
from dialback.core.notation.wording.rules import name_spans, shielded, signed, worded

_JOINT: Final = re.compile(
    r"[ ]{0,8}(?P<turn>\+|&|->|=>|→|➔|>|\bs/s\b|\bsuper[- ]?set(?:ted)?(?:[ ]with)?\b|\bss\b"
    r"|\bpaired with\b|\binto\b)[ ]{0,8}"
    r"|[ ]{0,8}(?P<next>,(?![0-9])|;|\bthen\b|\bfollowed by\b|\band\b)[ ]{0,8}",
    re.IGNORECASE,
)
_DOSE_BEFORE: Final = re.compile(
    r"[ ]{0,8}(?:(?:[0-9]{1,3}[ ]?(?:[x×*]|sets?[ ]of)[ ]?)?"
    rf"(?:(?:{TIME})|{NUMBER}[ ]?m|[0-9]{{1,4}}(?:-[0-9]{{1,4}})?(?:[ ]?reps?\b|[ ]?[x×])?)"
    r"[ ](?:of[ ])?)?",
    re.IGNORECASE,
)
_SETS: Final = re.compile(
    rf"(?<![0-9.,])([0-9]{{1,2}})[ ]?(?:[x×*]|sets?\b(?:[ ]of\b)?)[ ]?"
    rf"(?!{NUMBER}[ ]?(?:kg|lb|kilo))",
    re.IGNORECASE,
)
_BRACED: Final = re.compile(
    rf"\A(?:({COUNT})[ ]?(?:[x×*]|rounds?(?:[ ]of)?|times)[ ]?:?[ ]?)?[{{(](.{{5,800}})[}})]"
    rf"(?:[ ]?[x×*][ ]?({COUNT})(?:[ ]rounds?)?)?[ ,]{{0,4}}(.{{0,80}})",
    re.IGNORECASE,
)
_BOUTS: Final = re.compile(
    rf"([0-9]{{1,2}})[ ]?(?:[x×*]|rounds?(?:[ ]of)?)[ ]?({TIME})[ ]?(?:on|work|hard)\b[ ,/]{{0,3}}"
    rf"({TIME})[ ]?(?:off|rest|easy)\b",
    re.IGNORECASE,
)
_LADDER: Final = re.compile(
    r"[ ,]{1,3}ladder[ ]?:?[ ]?([0-9]{1,3}(?:[ ]?(?:to|[-,/])[ ]?[0-9]{1,3}){1,12}"
    r"(?:[ ](?:and|&)[ ](?:back|down)(?:[ ]again)?)?)(?![0-9])",
    re.IGNORECASE,
)
_LOAD_FIRST: Final = re.compile(rf"[ ]{{0,40}}({LOAD})[ ]{{1,8}}(?=[^\W\d])", re.IGNORECASE)
_LABEL: Final = re.compile(r"([ ]{0,40})([1-9])([a-d])[ ]?[.):][ ]{0,4}(?=[^\W\d])", re.IGNORECASE)
_SUPERSET: Final = re.compile(
    r"(?:super|tri|giant)[- ]?sets?(?:[ ]of)?[ ]?:?[ ]{1,8}(?=[^\W_])", re.IGNORECASE
)
_ROUNDS: Final = r"(?=[ ]{0,8}:?[ ]{0,8}$|[ ]{0,8}:)"
_IN_A_HEAD: Final = tuple(
    (re.compile(pattern, re.IGNORECASE), new)
    for pattern, new in (
        # Rest as needed is none that the text says.
        (rf",?[ ](?:with[ ])?rest[ ]as[ ](?:needed|required)(?:[ ]between[ ]rounds)?{_ROUNDS}", ""),
        (rf"((?:rounds?|rds?|bouts?)\b)[ ]?\(([^()]{{3,60}})\){_ROUNDS}", r"\1, \2"),
        (rf"(,[ ]|[ ])(?:with[ ])?(?:a[ ])?({TIME})[ ](?:of[ ])?rest[ ](?:between(?:[ ]rounds)?"
         rf"|after[ ](?:each|every)[ ]round){_ROUNDS}", r", \2 between rounds"),
        (rf"(,[ ]|[ ])(?:with[ ])?rest(?:ing)?[ ]({TIME})[ ](?:between(?:[ ]rounds)?"
         rf"|after[ ](?:each|every)[ ]round){_ROUNDS}", r", \2 between rounds"),
        (r"^([ ]{0,40}every[ ][0-9.]{1,4}[ ]?[a-z]{1,8})[ ]?[x×][ ]?([0-9]{1,2})"
         r"(?:[ ]rounds)?(?=[ ]{0,8}:)",
         r"\1, \2 rounds"),
    )
)  # fmt: skip


def reworded(line: Placed, names: Names, *, in_rounds: bool) -> tuple[Placed, ...]:
    """A line in the notation's own words, and as several where it is of several movements.

    Left and right on one line are two turns ``in_rounds``. Raises ``SlipError``, with its place in
    the line that was typed.
    """
    line = signed(line, names)
    try:
        apart = _lines(line, names)
    except SlipError as slip:
        raise line.slip(slip) from None
    found = [worded(one, names) for one in apart]
    if in_rounds:
        found = [side for one in found for side in _sides(one, names)]
    return tuple(found)


_BOTH_SIDES: Final = re.compile(
    rf"[ ]{{0,8}}((?:{TIME}|[0-9]{{1,3}})[ ](?:left|right)\b)[ ]?(?:,|,?[ ]?then\b|/|;)[ ]?"
    rf"((?:{TIME}|[0-9]{{1,3}})[ ](?:left|right)\b)",
    re.IGNORECASE,
)


def _sides(line: Placed, names: Names) -> list[Placed]:
    """Left and right of a turn, each by itself, in the same round."""
    match = _BOTH_SIDES.search(shielded(line.text, names))
    if match is None or len(name_spans(line.text, names)) != 1:
        return [line]
    before, behind = line.cut(0, match.start()), line.cut(match.end(), len(line.text))
    sides = (line.cut(match.start(1), match.end(1)), line.cut(match.start(2), match.end(2)))
    return [joined([before, " ", side, behind], line.end) for side in sides]


def _lines(line: Placed, names: Names) -> list[Placed]:
    line = _name_first(_relabelled(_closed_ladders(line)), names)
    line = _plain_head(line, names)
    indent = len(line.text) - len(line.text.lstrip())
    margin, body = line.cut(0, indent), line.cut(indent, len(line.text))
    if names.begins(body.text) is None:
        if found := _headed(body, names):
            return [joined([margin, *one], line.end) for one in found]
        if found := _braced(body, names):
            return [joined([margin, *one], line.end) for one in found]
    for by in (_by_bouts, _by_ladder):
        if made := by(body, names):
            return [joined([margin, *one], line.end) for one in made]
    body, in_turn = _unheaded(body)
    pieces, joints = _pieces(body, names)
    if len(pieces) < 2:
        return [line]
    said = _in_turn(pieces) if in_turn or set(joints) == {"turn"} else None
    if said is None and set(joints) == {"next"} and all(map(_has_dose, pieces)):
        said = [[piece] for piece in pieces]
    return [joined([margin, *one], line.end) for one in said] if said else [line]


_Line = list["Placed | str"]


def _plain_head(line: Placed, names: Names) -> Placed:
    """With the head of rounds, if it has one, in the notation's words."""
    spans = name_spans(line.text, names)
    first = spans[0][0] if spans else len(line.text) + 1
    if spans and not 0 <= line.text.find(":") < first:
        return line
    for pattern, new in _IN_A_HEAD:
        match = pattern.search(line.text)
        if match and match.end() < first:
            line = line.put(match.start(), match.end(), match.expand(new))
    return line


def _unheaded(body: Placed) -> tuple[Placed, bool]:
    """Without the word that says that what follows is done in turn."""
    match = _SUPERSET.match(body.text)
    return (body.cut(match.end(), len(body.text)), True) if match else (body, False)


def _relabelled(line: Placed) -> Placed:
    """``1a)`` is the label A1."""
    label = _LABEL.match(line.text)
    if label is None:
        return line
    letter, number = chr(ord("A") + int(label[2]) - 1), ord(label[3].lower()) - ord("a") + 1
    return line.put(label.start(2), label.end(), f"{letter}{number} ")


def _name_first(line: Placed, names: Names) -> Placed:
    """``80 kg Back squat 5 × 5``: the load goes behind the movement."""
    match = _LOAD_FIRST.match(line.text)
    spans = name_spans(line.text, names)
    if match is None or not spans or spans[0][0] != match.end():
        return line
    start, end = match.span(1)
    before, load = line.cut(0, start), line.cut(start, end)
    name = line.cut(match.end(), spans[0][1])
    behind = line.cut(spans[0][1], len(line.text))
    return joined([before, name, behind, " at ", load], line.end)


def _closed_ladders(line: Placed) -> Placed:
    """``ladder 1 to 5`` has its rungs counted through, and back where it says so."""
    match = RUNGS.search(line.text)
    if match is None:
        return line
    return line.put(
        match.start(), match.end(), f"ladder {', '.join(map(str, rungs_through(match)))}"
    )


def _headed(body: Placed, names: Names) -> list[_Line] | None:
    """A head, and what is done in it, on one line or below."""
    text = body.text
    for head in HEADS:
        match = head.pattern.match(text)
        if match is None or not match.end():
            continue
        rest = body.cut(match.end(), len(text))
        if rest.text.strip() and not name_spans(rest.text, names):
            continue
        if name_spans(text[: match.end()], names):
            continue
        says = head.says(match)
        if not rest.text.strip():
            return [[says]]
        pieces, _ = _pieces(rest, names, in_head=True)
        if says.startswith("amrap"):
            return [_as_many(says, pieces, names)]
        return [[says], *_indented(pieces)]
    return None


def _indented(pieces: Sequence[Placed]) -> list[_Line]:
    return [[INDENT, piece] for piece in pieces]


def _as_many(says: str, pieces: Sequence[Placed], names: Names) -> _Line:
    """As many rounds as go into a time: ``8 min of 5 Pull-up + 10 Press-up``."""
    made: _Line = [f"{says.removeprefix('amrap ').removesuffix(':')} of "]
    for at, piece in enumerate(pieces):
        if at:
            made.append(" + ")
        (start, end), *_ = name_spans(piece.text, names)
        before, behind = piece.text[:start].strip(), piece.text[end:].strip(" ,")
        count = re.fullmatch(r"([0-9]{1,3})(?:[ ]?(?:reps?|[x×]))?(?:[ ]of)?", before)
        if count is None and not before:
            count = re.match(
                r"(?:[x×][ ]?)?([0-9]{1,3})(?:[ ]reps?)?\b(?![ ]?(?:kg|lb|s\b|m))", behind
            )
            behind = behind[count.end() :].strip(" ,") if count else behind
        if count is None:
            raise SlipError(
                start,
                end - start,
                "how many of it in a round? Write '5 Pull-up, 10 Press-up'",
            )
        made += [f"{count[1]} ", piece.cut(start, end)]
        if behind:
            made.append(f" {behind}")
    return made


def _braced(body: Placed, names: Names) -> list[_Line] | None:
    """``{Bench press 8, Row 8} × 3``, ``3 × (Press-up 10, Row 10)``."""
    match = _BRACED.fullmatch(body.text)
    if match is None or not name_spans(match[2], names):
        return None
    count = match[1] or match[3]
    if count is None or (match[1] and match[3]):
        raise SlipError(0, len(body.text), "how many rounds? Write '3 × (…)' or '3 rounds:'")
    pieces, _ = _pieces(body.cut(match.start(2), match.end(2)), names)
    head = f"{count} rounds"
    if match[4]:
        rest = re.fullmatch(
            rf"(?:rest[ ])?({TIME})(?:[ ]rest)?(?:[ ]between(?:[ ]rounds)?)?",
            match[4].strip(),
            re.I,
        )
        if rest is None:
            inside = body.cut(match.start(2), match.end(2))
            return _complex(inside, f" {count} × 1 {match[4]}", names)
        head += f", {rest[1]} between rounds"
    return [[f"{head}:"], *_indented(pieces)]


def _complex(inside: Placed, behind: str, names: Names) -> list[_Line] | None:
    """``3 × (1 Power clean + 2 Front squat) at 40 kg``: a combination."""
    spans = name_spans(inside.text, names)
    if any(re.search("[0-9]", inside.text[end:].partition("+")[0]) for _, end in spans):
        return None
    return [[inside, behind]] if "+" in inside.text else None


def _by_bouts(body: Placed, names: Names) -> list[_Line] | None:
    """``Kettlebell swing 8 × 20 s on, 10 s off``."""
    match = _BOUTS.search(shielded(body.text, names))
    if match is None or len(name_spans(body.text, names)) != 1:
        return None
    head = f"{match[1]} rounds, {match[2]} on, {match[3]} off:"
    before = body.cut(0, match.start())
    behind = body.cut(match.end(), len(body.text))
    return [[head], [INDENT, before, " ", behind]]


def _by_ladder(body: Placed, names: Names) -> list[_Line] | None:
    """``Pull-up ladder 1 to 5``."""
    spans = name_spans(body.text, names)
    match = _LADDER.search(shielded(body.text, names))
    if match is None or len(spans) != 1 or spans[0][0] != 0:
        return None
    rungs = RUNGS.fullmatch(f"ladder {match[1]}")
    said = rungs_through(rungs) if rungs else [int(one) for one in re.findall("[0-9]+", match[1])]
    head = f"ladder {', '.join(map(str, said))}:"
    before, behind = body.cut(0, match.start()), body.cut(match.end(), len(body.text))
    return [[head], [INDENT, before, behind]]


_COUNT_BEFORE: Final = re.compile(r"[ ]{1,8}([0-9]{1,3}[ ](?:x[ ])?)")


def _pieces(
    body: Placed, names: Names, *, in_head: bool = False
) -> tuple[list[Placed], tuple[str, ...]]:
    """A line apart, a piece for each movement, and what stands between: turn, or next.

    One piece where it is not plain how they are joined. Behind a head a number begins the next.
    """
    spans = name_spans(body.text, names)
    cuts: list[tuple[int, int]] = []
    joints: list[str] = []
    for (_, before), (start, _) in pairwise(spans):
        gap = body.text[before:start]
        joint = next(
            (
                one
                for one in reversed(list(_JOINT.finditer(gap)))
                if _DOSE_BEFORE.fullmatch(gap[one.end() :])
            ),
            None,
        )
        if joint is None and in_head and (bare := _COUNT_BEFORE.fullmatch(gap)):
            cuts.append((before, before + bare.start(1)))
            joints.append("next")
            continue
        if joint is None:
            return [body], ()
        cuts.append((before + joint.start(), before + joint.end()))
        joints.append("turn" if joint["turn"] else "next")
    if not cuts:
        return [body], ()
    starts = [0, *(end for _, end in cuts)]
    ends = [*(start for start, _ in cuts), len(body.text)]
    pieces = [body.cut(start, end) for start, end in zip(starts, ends, strict=True)]
    return pieces, tuple(joints)


def _has_dose(piece: Placed) -> bool:
    return bool(re.search(r"(?<![a-z-])[0-9]", piece.text, re.IGNORECASE))


def _in_turn(pieces: Sequence[Placed]) -> list[_Line] | None:
    """Movements with as many sets each, one after the other, as rounds."""
    found = [_SETS.search(piece.text) for piece in pieces]
    counts = [match[1] for match in found if match]
    if len(counts) < len(pieces) or any(" then " in piece.text for piece in pieces):
        return None
    if len(set(counts)) > 1:
        told = " and ".join(counts)
        raise SlipError(
            0,
            1,
            f"{told} sets: movements in turn have as many sets each; give each a line of its own "
            "if they are not done in turn",
        )
    lines: list[_Line] = [[f"{counts[0]} rounds:"]]
    for piece, match in zip(pieces, found, strict=True):
        if match is not None:
            lines.append([INDENT, piece.put(match.start(), match.end(), "")])
    return lines
