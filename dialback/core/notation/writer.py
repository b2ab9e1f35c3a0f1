"""The canonical text of a written session: what ``read`` takes, in one way of writing it."""

from __future__ import annotations

from collections.abc import Iterable

from dialback.core.notation.session import (
    Bout,
    Line,
    Load,
    Moves,
    Part,
    Rounds,
    Step,
    Turn,
    WrittenSession,
)

_SIDES = {"each": "each side", "alternating": "alternating", "left": "left", "right": "right"}


def write(*sessions: WrittenSession) -> str:
    """The text of sessions, one after the other; it ends with a line end unless it is empty."""
    text = "\n\n".join("\n".join(_session(one)) for one in sessions)
    return text + "\n" if text else ""


def _session(session: WrittenSession) -> Iterable[str]:
    if session.day is not None:
        yield f"{session.day.isoformat()} {session.title}".rstrip()
    for at, part in enumerate(session.parts):
        head = _part_head(part)
        # A plain main part needs no head, unless it would run into the part before it.
        if head != "main:" or at > 0 or not part.items:
            yield head
        for item in part.items:
            yield from _rounds(item) if isinstance(item, Rounds) else [_line(item)]
        if part.rest_s is not None:
            yield f"rest {time_text(part.rest_s)}"


def _part_head(part: Part) -> str:
    name = f"{part.kind} {part.label}".rstrip()
    return f"{name}{', pre-exhaust' if part.pre_exhaust else ''}:"


def _line(line: Line) -> str:
    return f"{_moves(line.moves)} {', then '.join(_step(step) for step in line.steps)}"


def _rounds(rounds: Rounds) -> Iterable[str]:
    if rounds.form == "ladder":
        head = f"ladder {', '.join(map(str, rounds.rungs))}"
    else:
        word = rounds.form if rounds.count != 1 else rounds.form[:-1]
        head = f"{rounds.count} {word}"
    for seconds, word in (
        (rounds.on_s, "on"), (rounds.off_s, "off"), (rounds.between_s, "between rounds"),
    ):  # fmt: skip
        if seconds is not None:
            head += f", {time_text(seconds)} {word}"
    yield f"{head}:"
    for turn in rounds.turns:
        yield f"  {_turn(turn)}"


def _turn(turn: Turn) -> str:
    pieces = []
    before: Moves | None = None
    for moves, bout in turn.alternatives:
        text = _step(Step(bout))
        # A change of the dose alone need not name the movement again, if it begins like a dose.
        same = moves == before and bout.has_dose
        pieces.append(text if same else f"{_moves(moves)} {text}".rstrip())
        before = moves
    return " / ".join(pieces)


def _moves(moves: Moves) -> str:
    return " + ".join(name if times == 1 else f"{times:g} {name}" for name, times in moves)


def _step(step: Step) -> str:
    bout = step.bout
    dose = _dose(bout)
    words = [f"{step.sets} × {dose}" if step.sets != 1 else dose]
    if bout.seconds is not None and _counted(bout):
        words[0] += f" in {time_text(bout.seconds)}"
    if bout.sides != "both":
        words[0] += f" {_SIDES[bout.sides]}"
    if bout.load is not None:
        words[0] += f" {_load(bout.load)}"
    words.append(f"band {bout.band}" if bout.band else "")
    words.append(f"tempo {bout.tempo}" if bout.tempo else "")
    words.append(f"{bout.range} range" if bout.range in ("half", "full") else bout.range or "")
    words.append(f"hold {time_text(bout.hold_s)}" if bout.hold_s else "")
    words.append(f"RPE {bout.rpe:g}" if bout.rpe is not None else "")
    words.append("to failure" if bout.to_failure else "")
    words.append("for time" if bout.for_time else "")
    words.append("warm-up" if bout.warm_up else "")
    words.append(f"rest {time_text(bout.rest_s)}" if bout.rest_s is not None else "")
    text = ", ".join(word.strip() for word in words if word.strip())
    return f"{text} ({bout.note})".strip() if bout.note else text


def _dose(bout: Bout) -> str:
    if bout.clusters:
        return " + ".join(map(str, bout.clusters))
    if bout.ranges:
        return " + ".join(f"{reps} {span}" for reps, span in bout.ranges)
    if bout.reps_to is not None:
        return f"{bout.reps}–{bout.reps_to}"
    if bout.reps is not None:
        return str(bout.reps)
    return time_text(bout.seconds) if bout.seconds is not None else ""


def _counted(bout: Bout) -> bool:
    return bool(bout.clusters or bout.ranges or bout.reps is not None)


def _load(load: Load) -> str:
    several = f"{load.implements} × " if load.implements > 1 else ""
    return f"{'help' if load.help else 'at'} {several}{load.value:g} {load.unit}"


def time_text(seconds: float) -> str:
    """Seconds as they are written: ``90 s``, whole minutes from two on as ``8 min``."""
    if seconds >= 120 and seconds % 60 == 0:
        return f"{seconds / 60:g} min"
    return f"{seconds:g} s"
