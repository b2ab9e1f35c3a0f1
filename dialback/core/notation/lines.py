"""One line of a text: a movement with its steps, a movement in rounds, or the head of rounds."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from typing import Any, Final

from lark import Token, Tree
from lark.exceptions import UnexpectedInput

from dialback.core.notation import values
from dialback.core.notation.grammar import HEAD, span
from dialback.core.notation.items import Item, items
from dialback.core.notation.messages import explain
from dialback.core.notation.names import Names
from dialback.core.notation.pieces import load_is_open, load_text
from dialback.core.notation.session import (
    LOADING,
    Bout,
    Line,
    Load,
    Moves,
    Rounds,
    Step,
    Turn,
)
from dialback.core.notation.slips import SlipError
from dialback.core.notation.steps import (
    Piece,
    Spoken,
    between,
    carried,
    pieces,
    settled,
    steps,
    sure_of_more,
)
from dialback.core.notation.vocabulary import LOAD, NO_LOAD, NUMBER, TIME, WHOLE

_TIME_OF: Final = re.compile(rf"({TIME})[ \t]{{1,8}}of[ \t]{{1,8}}", re.IGNORECASE)
_SEVERAL: Final = re.compile(r"[ \t]{0,8}\+[ \t]{0,8}")
_TIMES_BEFORE: Final = re.compile(r"([0-9]{1,3})[ \t]{0,8}(?:per rep|[x×])?[ \t]{1,8}(?=[^\W\d])")
_PER_REP: Final = re.compile(r"([0-9]{1,3}(?:\.[0-9]+)?)[ \t]{1,8}per rep[ \t]{1,8}", re.IGNORECASE)
_LEAD: Final = re.compile(
    rf"(?:(?:[0-9]{{1,2}}(?:-|[ ]to[ ]))?[0-9]{{1,3}}[ \t]{{0,8}}"
    rf"(?:[x×*]|sets?[ \t]{{1,8}}of)[ \t]{{0,8}})?"
    rf"(?:[0-9]{{1,2}}[ \t]{{1,8}}sets?|(?:{TIME})|{NUMBER}[ \t]{{0,8}}(?:m|met(?:er|re)s?)\b"
    rf"|{WHOLE}[ \t]{{0,8}}(?:-[ \t]{{0,8}}{WHOLE})?"
    r"(?:[ \t]{0,8}reps\b|[ \t]{0,8}[x×*])?)(?:[ \t]{1,8}of)?[ \t]{1,8}(?=[^\W\d])",
    re.IGNORECASE,
)
_TIMES_WORD: Final = re.compile(r"[ \t]{1,8}of$|[ \t]{0,8}[x×*]$", re.IGNORECASE)
_SO_MANY_TIMES: Final = re.compile(
    r"([0-9]{1,3})[ \t]{0,8}(?:[x×*]|times|sets?(?:[ \t]{1,8}of)?)", re.IGNORECASE
)
_SLASH: Final = re.compile(
    r"(?<![0-9])[ \t]{0,8}/[ \t]{0,8}(?![^()]{0,600}\))"
    r"|(?<=[0-9])[ \t]{1,8}/[ \t]{0,8}(?![^()]{0,600}\))"
    r"|(?<=[0-9])/[ \t]{1,8}(?![^()]{0,600}\))|(?<=[0-9])/(?![0-9 \t])(?![^()]{0,600}\))"
)
_NO_JOINT: Final = re.compile(
    r"/(?:(?:side|arm|leg|hand|foot|limb)\b(?![ \t]{1,8}[^\W\d])|[su]\b)|\b[ew]/", re.IGNORECASE
)
_MORE_NUMBERS: Final = re.compile(rf"[ \t,:]{{0,8}}(?!{LOAD})[0-9]", re.IGNORECASE)
_OWN_LOAD: Final = re.compile(
    rf"[ \t]{{1,8}}(?:(?:at|@)?[ \t]{{0,8}}({LOAD})|{NO_LOAD})(?=[ \t]{{0,8}}\+[ \t]{{0,8}}"
    r"(?:[0-9]{1,3}[ \t]{0,8}(?:per rep|[x×])?[ \t]{1,8})?[^\W\d])",
    re.IGNORECASE,
)
_LEVEL: Final = re.compile(r"[ \t,]{0,8}\b(easier|harder)\b", re.IGNORECASE)
_GROUP_WORD: Final = re.compile(
    r"(?:circuit|(?:super|tri|giant)[- ]?set)[ \t]{0,8}[,:×x]?[ \t]{0,8}", re.IGNORECASE
)
HOW_MUCH: Final = "how much? Write sets × reps, as in 3 × 8, or a time"
_LIKE_A_TEMPO: Final = re.compile(r"(?<![0-9-])[0-9](?:-[0-9]){2,3}(?![0-9-])")


@dataclass(frozen=True, slots=True)
class Opening:
    """What a line begins with: movements, where they end, and a dose that stood before them.

    ``loads`` are those of the movements of a combination, ``None`` for the set's own.
    """

    moves: Moves
    end: int
    lead: Item | None = None
    loads: tuple[Load | None, ...] = ()

    def with_loads(self, bout: Bout) -> Bout:
        """A bout with the loads that its movements have of their own."""
        return replace(bout, piece_loads=self.loads) if any(self.loads) else bout


def line_of(line: str, raw: str, begin: int, number: int, names: Names) -> Line:
    """A movement, or a combination, with its steps. Raises ``SlipError``.

    ``raw`` is the line as it was typed: notes are taken from it.
    """
    if timed := _TIME_OF.match(line, begin):
        opened = _moves(line, timed.end(), names)
        if len(opened.moves) > 1 or opened.moves[0][1] != 1:
            seconds = values.seconds(timed[1], begin)
            return _as_many(line, raw, opened, seconds, number, names)
    opened = _opening(line, raw, begin, names)
    spoken = Spoken(names, opened.moves, at=begin, length=opened.end - begin)
    found = steps(line, raw, opened.end, spoken, opened.lead)
    for step in found:
        if not step.bout.has_dose:
            raise _how_much(line, begin)
    kept = tuple(replace(step, bout=opened.with_loads(step.bout)) for step in found)
    return Line(opened.moves, kept, number)


def _how_much(line: str, begin: int) -> SlipError:
    """A line that says of no set how much; what is read as a tempo may be reps."""
    like = _LIKE_A_TEMPO.search(line, begin)
    if like is None or "tempo" in line.lower():
        return SlipError(begin, len(line.strip()), HOW_MUCH)
    reps = like[0].replace("-", ", ")
    return SlipError(
        like.start(),
        len(like[0]),
        f"a tempo, or a set for each number? Write '{reps}' for sets; a tempo stands behind "
        f"the reps, as in '8, tempo {like[0]}'",
    )


def _as_many(
    line: str, raw: str, opened: Opening, seconds: float, number: int, names: Names
) -> Line:
    """Eight minutes of this and that: one timed set of them all."""
    end = opened.end
    (bounds, *more) = between(re.compile("(?!)"), line, end)
    found = pieces(items(line, raw, *bounds, names, words=True), line, None)
    if more or len(found) != 1 or found[0].has_dose or found[0].sets is not None:
        raise SlipError(
            end,
            len(line) - end,
            "the number of each movement goes before it, as in '8 min of 5 Pull-up + 10 Press-up'",
        )
    fields: dict[str, Any] = {**found[0].says, "seconds": seconds}
    return Line(opened.moves, (Step(opened.with_loads(Bout(**fields))),), number)


def turn_of(
    line: str, raw: str, begin: int, number: int, names: Names, rounds: Rounds | None
) -> Turn:
    """A movement in rounds; what stands behind a slash is done in the next round.

    ``rounds`` is their head, ``None`` where it was not understood. Raises ``SlipError``.
    """
    count = rounds.count if rounds is not None and rounds.form != "bouts" else 1
    timed = rounds is None or rounds.form == "ladder" or rounds.on_s is not None
    alternatives: list[tuple[Moves, Bout]] = []
    for start, end in _alternatives(line, begin):
        own, own_raw = line[:end], raw[:end]
        before = alternatives[-1] if alternatives else None
        opened, level = _alternative(own, own_raw, start, before, names)
        spoken = Spoken(names, opened.moves, count, timed, start, opened.end - start or end - start)
        found = _pieces_in_rounds(own, own_raw, opened, spoken, again=before is not None)
        for piece in found:
            kept = dict(piece.says)
            if before is not None and (level or before[0] == opened.moves):
                _sure_of_level(piece, before[1], opened, level=level)
                kept = carried(piece, before[1])
            elif before is not None:
                _sure_of_load(piece, before[1], spoken, own)
            bout = opened.with_loads(settled(piece, kept, spoken))
            _sure_of_dose(bout, piece, spoken, rounds)
            alternatives.append((opened.moves, bout))
            before = alternatives[-1]
    return Turn(_cycle(alternatives), number)


def _cycle(alternatives: list[tuple[Moves, Bout]]) -> tuple[tuple[Moves, Bout], ...]:
    """Alternatives that are all alike are one."""
    return tuple(alternatives[:1] if len(set(alternatives)) == 1 else alternatives)


def _alternatives(line: str, begin: int) -> list[tuple[int, int]]:
    """Where the alternatives of a line in rounds stand."""
    bounds = []
    start = begin
    for match in _SLASH.finditer(line, begin):
        around = line[max(begin, match.start() - 1) : match.end() + 8].lstrip()
        if _NO_JOINT.match(line[match.start() :].lstrip()) or _NO_JOINT.match(around):
            continue
        bounds.append((start, match.start()))
        start = match.end()
    bounds.append((start, len(line)))
    if len(bounds) > values.MAX_ROUNDS:
        raise SlipError(begin, len(line) - begin, f"at most {values.MAX_ROUNDS} rounds take turns")
    return [(at, at + len(line[at:end].rstrip(" \t,"))) for at, end in bounds]


def _alternative(
    own: str, raw: str, start: int, before: tuple[Moves, Bout] | None, names: Names
) -> tuple[Opening, bool]:
    if before is None:
        return _opening(own, raw, start, names), False
    level = _LEVEL.match(own, start)
    if level and len(before[0]) == 1:
        # The same movement, a level up or down.
        ((name, times),) = before[0]
        moves = ((names.level(name, level[1], level.start(1)), times),)
        return Opening(moves, level.end()), True
    if not _names_movement(own[start:], names):
        return Opening(before[0], start), False
    return _opening(own, raw, start, names), False


def _names_movement(text: str, names: Names) -> bool:
    """Whether a piece begins with a movement rather than with how much of the one before."""
    lead = _PER_REP.match(text) or _TIMES_BEFORE.match(text) or _LEAD.match(text)
    if names.begins(text[lead.end() :] if lead else text):
        # A band row is a movement, not a band of that level: names go before the notation.
        return True
    try:
        pieces(items(text, text, 0, len(text)), text, None)
    except SlipError:
        return not text[:1].isdigit()
    return False


def _sure_of_level(piece: Piece, before: Bout, opened: Opening, *, level: bool) -> None:
    """Refuse to guess the load of another level."""
    loaded = any(getattr(before, key) is not None for key in LOADING)
    if level and loaded and not piece.has_loading:
        raise SlipError(
            piece.at,
            max(1, piece.length),
            f"with which load? {opened.moves[0][0]} is "
            "another level: write its load, or 'BW' for none",
            (f"{piece.text} BW",) if piece.text else (),
        )


def _sure_of_load(piece: Piece, before: Bout, spoken: Spoken, own: str) -> None:
    """Refuse to guess whether another movement is done with the load of the one before."""
    load = before.load
    if load is None or piece.has_loading or not load_is_open(before, spoken.movements):
        return
    said = own[spoken.at :].rstrip()
    raise SlipError(
        spoken.at,
        max(1, len(said)),
        f"with which load? Write 'at {load_text(load)}' behind it, too, or 'BW' for none",
        (f"{said} at {load_text(load)}", f"{said} BW"),
    )


def _pieces_in_rounds(
    own: str, raw: str, opened: Opening, spoken: Spoken, *, again: bool
) -> list[Piece]:
    ((start, end),) = between(re.compile("(?!)"), own, opened.end)
    said = items(own, raw, start, end, spoken.names, words=True)
    if again and said and not spoken.timed:
        sure_of_more(said, at=start, length=end - start)
    share = next((item for item in said if item.kind == "of_before"), None)
    if share is not None:
        raise SlipError(
            share.at, share.length, "in rounds there is no set before: write the load itself"
        )
    if opened.lead is not None:
        said = [opened.lead, *said]
    counted = next((item for item in said if item.sets is not None), None)
    if counted is not None:
        raise SlipError(
            counted.at,
            counted.length,
            "in rounds a line is one set: the number of rounds goes in their head",
        )
    found = pieces(said, own, spoken)
    if len(found) > 1 and not any(item.kind in ("list", "loads") for item in said):
        raise SlipError(
            start,
            end - start,
            "in rounds a line is one set: a slash goes between one round and the next",
        )
    return found


def _sure_of_dose(bout: Bout, piece: Piece, spoken: Spoken, rounds: Rounds | None) -> None:
    if not bout.has_dose and not spoken.timed:
        raise SlipError(
            spoken.at,
            spoken.length,
            "how much? Write reps or a time, or give the "
            "rounds a time, as in '4 rounds, 35 s on, 25 s off:'",
        )
    climbing = not bout.has_dose and rounds is not None and rounds.form == "ladder"
    if climbing and (spoken.held or spoken.carried):
        raise SlipError(
            spoken.at,
            spoken.length,
            f"{spoken.movements[0].name} has no reps to climb: write its own time, as in '30 s'",
        )
    timed_again = piece.behind_load and "seconds" in piece.says and bout.reps is None
    if timed_again and rounds is not None and rounds.on_s is not None:
        raise SlipError(
            piece.at,
            piece.length,
            "the head gives the time already: write 'rest …' for a rest, or leave it out",
        )


def _opening(line: str, raw: str, begin: int, names: Names) -> Opening:
    """The movements that a line begins with, and a dose before them: ``3 × 10 Press-ups``."""
    lead = None if _PER_REP.match(line, begin) else _LEAD.match(line, begin)
    if lead and not names.begins(line[begin:]):
        dose_end = lead.end()
        after = names.begins(line[dose_end:])
        if after is None:
            # The name is told from its own place, with its own message.
            names.split(line[dose_end:], dose_end)
        plain_number = lead[0].strip().isdigit()
        end = dose_end + (after[1] if after else 0)
        if not (plain_number and (_SEVERAL.match(line, end) or _OWN_LOAD.match(line, end))):
            opened = _moves(line, dose_end, names)
            moves, end = opened.moves, opened.end
            if len(moves) > 1:
                raise SlipError(
                    begin,
                    dose_end - begin,
                    "of a combination the sets and reps stand behind the "
                    "last movement, as in '2 Kettlebell swing + Goblet squat 3 × 5'",
                )
            said = _TIMES_WORD.sub("", lead[0].rstrip())
            (dose,) = items(line[: begin + len(said)], raw, begin, begin + len(said), names)
            if plain_number and dose.bare and _MORE_NUMBERS.match(line, end):
                count = lead[0].strip()
                raise SlipError(
                    begin,
                    len(count),
                    f"{count} what? Write the sets and reps behind "
                    f"the movement, as in '{moves[0][0]} {count} × 5'",
                )
            return Opening(moves, end, replace(dose, bare=False))
    return _moves(line, begin, names)


def _moves(line: str, at: int, names: Names) -> Opening:
    """The movements at a place of a line, and where they end."""
    found: list[tuple[str, float]] = []
    loads: list[Load | None] = []
    while True:
        times = 1.0
        if (match := _PER_REP.match(line, at)) or (match := _TIMES_BEFORE.match(line, at)):
            times, at = float(match[1]), match.end()
        name, length = names.split(line[at:], at)
        found.append((name, times))
        at += length
        own = _OWN_LOAD.match(line, at)
        loads.append(_own_load(own) if own else None)
        if own:
            at = own.end()
        more = _SEVERAL.match(line, at)
        # Behind a name a + may as well add a load: ``Pull-up +10 kg``.
        if not more or re.match(rf"{NUMBER}[ \t]{{0,8}}(?:kg|lb|pound|kilo)", line[more.end() :]):
            return Opening(tuple(found), at, loads=tuple(loads) if any(loads) else ())
        at = more.end()


def _own_load(said: re.Match[str]) -> Load:
    """The load of one movement in a combination."""
    return values.load(said[1], said.start(1)) if said[1] else Load(0.0)


# Heads of rounds.


def is_head(text: str) -> bool:
    """Whether a line without a colon is the head of rounds all the same: ``3 rounds``."""
    try:
        HEAD.parse(text)
    except UnexpectedInput:
        return False
    return bool(re.search(r"\b(?:rounds?|rds?|bouts?|ladder|every)\b", text, re.IGNORECASE))


def head_of(text: str, begin: int, number: int) -> Rounds:
    """The head of rounds, without its colon. Raises ``SlipError``."""
    if group := _GROUP_WORD.match(text):
        rest = text[group.end() :]
        if not rest:
            raise SlipError(begin, len(text), "how many rounds? Write '3 rounds:'")
        text = " " * group.end() + rest
    if named := _SO_MANY_TIMES.fullmatch(text.strip()):
        raise SlipError(
            begin,
            len(text),
            f"rounds in turn, or sets of each? Write '{named[1]} "
            f"rounds:' for the movements in turn",
        )
    if re.fullmatch(r"[^\W\d][^\d]{0,60}", text.strip()) and not text.strip().lower().startswith(
        ("ladder", "every", "bouts", "rounds", "emom", "amrap")
    ):
        word = text.strip()
        raise SlipError(
            begin,
            len(text),
            f"{word!r} is not a part: write 'main {word}:' for a part of that "
            "name, or '3 rounds:' for rounds",
        )
    try:
        tree: Tree[Token] = HEAD.parse(text)
    except UnexpectedInput as error:
        raise explain(error, text, begin, None, head=True) from None
    return _rounds(tree, text, begin, number)


def _rounds(tree: Tree[Token], text: str, begin: int, number: int) -> Rounds:
    form: Tree[Token] | None = None
    times: dict[str, float] = {}
    tops: dict[str, float] = {}
    plain_rest: tuple[int, int] | None = None
    for_time = False
    for child in tree.children:
        if not isinstance(child, Tree):
            continue
        start, stop = (begin + one for one in span(child))
        kind = str(child.data)
        if kind in ("rounds", "ladder", "bouts"):
            if form is not None:
                raise SlipError(start, 1, "one form for all of them: rounds, a ladder or bouts")
            form = child
            continue
        if kind == "for_time":
            for_time = True
            continue
        said = next((str(one) for one in child.children if str(one)[:1].isdigit()), "1 min")
        if kind == "total" and kind in times:
            raise SlipError(
                start, len(said), f"work and rest? Write '{times[kind]:g} s on, {said} off'"
            )
        if kind in times:
            raise SlipError(start, 1, "this was said already on the line")
        times[kind], top = values.time_span(said, start)
        if top is not None:
            tops[kind] = top
        if kind == "off" and any(str(one).lower() == "rest" for one in child.children):
            plain_rest = (start, stop - start)
    if plain_rest is not None and "on" not in times:
        time = times["off"]
        raise SlipError(
            *plain_rest,
            f"a rest after each movement or after each round? Write '{time:g} s off' or "
            f"'{time:g} s between rounds'",
        )
    rounds = _form(form, times, text, begin, number)
    return replace(
        rounds,
        on_to_s=tops.get("on"),
        off_to_s=tops.get("off"),
        between_to_s=tops.get("between"),
        for_time=for_time,
    )


def _form(
    form: Tree[Token] | None, times: dict[str, float], text: str, begin: int, number: int
) -> Rounds:
    every, total = times.get("every"), times.get("total")
    if total is not None and (every is None or form is not None):
        raise SlipError(
            begin, len(text), "a time of what? Write '35 s on', '25 s off' or '90 s between rounds'"
        )
    if every is not None and (times.keys() & {"on", "off", "between"}):
        raise SlipError(
            begin,
            len(text),
            "on the clock the rest is what remains: leave out on, off and between rounds",
        )
    rungs: tuple[int, ...] = ()
    count_to: int | None = None
    name: Any = str(form.data) if form is not None else "rounds"
    words = [str(token) for token in form.children] if form is not None else []
    if every is not None and name != "rounds":
        raise SlipError(begin, len(text), "on the clock there are rounds: 'every 60 s, 10 rounds:'")
    if form is None:
        count = _rounds_in(every, total, text, begin)
    elif name == "ladder":
        rungs = tuple(
            values.whole(rung, begin, 1, values.MAX_REPS, "reps")
            for rung in re.findall(r"[0-9]+", words[0])
        )
        if not rungs:
            raise SlipError(begin, len(words[0]), "a ladder needs its rungs, as in ladder 4, 7, 10")
        count = len(rungs)
    else:
        low, *high = re.findall(r"[0-9]+", words[0])
        count = values.whole(low, begin, 1, values.MAX_ROUNDS, name)
        count_to = values.whole(high[0], begin, 1, values.MAX_ROUNDS, name) if high else None
        if count_to is not None and count_to <= count:
            raise SlipError(begin, len(words[0]), "a span of rounds goes up, as in '3-5 rounds:'")
    return Rounds(
        name,
        count,
        (),
        rungs,
        times.get("on"),
        times.get("off"),
        times.get("between"),
        every,
        count_to,
        at=number,
    )


def _rounds_in(every: float | None, total: float | None, text: str, begin: int) -> int:
    if every is None or total is None:
        raise SlipError(begin, len(text), "how many rounds? Write them, as in '3 rounds, 35 s on:'")
    count = total / every if every else 0
    if count != int(count) or not 1 <= count <= values.MAX_ROUNDS:
        raise SlipError(
            begin,
            len(text),
            f"{total:g} s are not whole rounds of {every:g} s: write "
            "how many, as in 'every 60 s, 10 rounds:'",
        )
    return int(count)
