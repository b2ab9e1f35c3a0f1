"""What stands beside a week or a text: restrictions, and what the kit cannot give."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from datetime import date

from dialback.core.cautions import Care
from dialback.core.cues import Cues
from dialback.core.kit import NoBand, NoKit, Unmade, check, sentence
from dialback.core.notation import Load, Mistake, Reading
from dialback.core.notation.characters import lines_of
from dialback.core.notation.expand import PlacedSet
from dialback.core.notation.habit import WRITTEN, asked_in, form_of
from dialback.core.notation.pieces import load_text
from dialback.core.notation.values import loads_in
from dialback.core.restrictions import Restriction, set_breach
from dialback.core.sense import Doubt, Knowing, doubts
from dialback.core.sense.doubt import AS_WRITTEN
from dialback.core.sessions import KG_PER_LB
from dialback.core.tally import Ledger
from dialback.core.words import Unit
from dialback.store.athletes import Athlete
from dialback.store.cues import own_cues
from dialback.web.shapes.common import CareNote, DoubtOut, MarkOut, MistakeOut, RestrictionNote
from dialback.web.shapes.cues import Cue
from dialback.web.shapes.write import KitChoice, KitMiss


def notes(restrictions: Iterable[Restriction], unit: Unit) -> list[RestrictionNote]:
    """Restrictions in words, and on whose."""
    return [
        RestrictionNote(
            words=restriction.words(unit),
            by=restriction.by,
            since=restriction.since.isoformat(),
            word=restriction.word,
            lifted_on=restriction.lifted_on and restriction.lifted_on.isoformat(),
        )
        for restriction in restrictions
    ]


def care_notes(care: Iterable[Care]) -> list[CareNote]:
    """What to mind about an athlete, in words, and on whose."""
    return [
        CareNote(
            kind=one.kind,
            usual=one.usual,
            word=one.word,
            by=one.by,
            since=one.since.isoformat() if one.since else None,
        )
        for one in care
    ]


def cue_notes(cues: Cues) -> list[Cue]:
    """Words to say at a movement, in the order in which they are said."""
    return [Cue(title=title, says=says) for title, says in cues.said()]


def own_cue_notes(athlete: Athlete) -> list[Cue]:
    """What one athlete is told, each with its movement."""
    return [Cue(title=one.movement, says=one.says) for one in own_cues(athlete)]


def restricted_lines(
    text: str, sets: Iterable[PlacedSet], ledger: Ledger, day: date
) -> list[MarkOut]:
    """What restrictions do not allow of a text, once for each line and restriction."""
    holding = [one for one in ledger.restrictions if one.holds(day)]
    if not holding:
        return []
    lines = lines_of(text)
    found: dict[tuple[int, str], MarkOut] = {}
    for placed in sets:
        movements = [ledger.movements[name] for name, _ in placed.set.named_moves()]
        for restriction in holding:
            breach = set_breach(placed.set, movements, restriction, ledger.rules, ledger.unit)
            if breach is None:
                continue
            touched = next(
                movement for movement in movements if restriction.touches(movement, ledger.rules)
            )
            column, length = _place(lines[placed.line - 1], (touched.name, *touched.aliases))
            says = f"{breach}, on the word of {restriction.by}"
            found.setdefault(
                (placed.line, says),
                MarkOut(line=placed.line, column=column + 1, length=length, message=says),
            )
    return list(found.values())


def _place(line: str, names: Iterable[str]) -> tuple[int, int]:
    """Where one of the names stands in a line; the words of the line if none is written out."""
    for name in names:
        at = re.search(re.escape(name), line, re.IGNORECASE)
        if at:
            return at.start(), at.end() - at.start()
    bare = line.strip()
    return line.index(bare), max(1, len(bare))


def kit_misses(text: str, sets: Iterable[PlacedSet], ledger: Ledger) -> list[KitMiss]:
    """What the room cannot give, once for each place in the text."""
    kit = ledger.kit
    if kit is None:
        return []
    lines = lines_of(text)
    misses: dict[tuple[int, int], KitMiss] = {}
    for placed in sets:
        found = check(placed.set, kit, ledger.movements)
        if found is None:
            continue
        line = lines[placed.line - 1]
        if isinstance(found, NoBand):
            at = re.search(rf"band\s+{re.escape(found.band)}", line, re.IGNORECASE)
            column, length = (at.start(), at.end() - at.start()) if at else (0, len(line))
            choices = [KitChoice(text=f"band {band}", step=0) for band in found.bands]
        elif isinstance(found, NoKit):
            column, length, choices = 0, len(line), []
        else:
            written = next(
                (one for one in loads_in(line) if one.load.kg == placed.set.load_kg), None
            )
            column, length = (written.at, written.length) if written else (0, len(line))
            choices = [] if written is None else _choices(found, written.load)
        misses.setdefault(
            (placed.line, column),
            KitMiss(
                line=placed.line,
                column=column + 1,
                length=max(1, length),
                message=sentence(found, ledger.unit),
                choices=choices,
            ),
        )
    return list(misses.values())


def _choices(found: Unmade, load: Load) -> list[KitChoice]:
    per_unit = KG_PER_LB if load.unit == "lb" else 1.0
    return [
        KitChoice(
            text=load_text(replace(load, value=round(kg / per_unit, 2))),
            step=kg / found.wanted_kg - 1,
        )
        for kg in dict.fromkeys((found.below_kg, found.above_kg))
        if kg is not None
    ]


def mistakes_of(text: str, reading: Reading, habits: Mapping[str, str]) -> list[MistakeOut]:
    """What was not understood of a text, and what can stand in its place."""
    rows = lines_of(text)
    return [_mistake(mistake, rows, habits) for mistake in reading.mistakes]


def _mistake(mistake: Mistake, rows: Sequence[str], habits: Mapping[str, str]) -> MistakeOut:
    row = rows[mistake.line - 1] if mistake.line <= len(rows) else ""
    answers = [form_of(row, text) for text in mistake.instead]
    usual = [habits.get(asked_in(one)) for one in answers]
    return MistakeOut(
        line=mistake.line,
        column=mistake.column,
        length=mistake.length,
        message=mistake.message,
        question=mistake.question,
        instead=list(mistake.instead),
        form=WRITTEN,
        answers=answers,
        only=False,
        habit=next((at for at, one in enumerate(answers) if one == usual[at]), None),
    )


def doubts_of(
    text: str, reading: Reading, ledger: Ledger, day: date, habits: Mapping[str, str]
) -> list[DoubtOut]:
    """What makes little sense of what was read, with what else it can be."""
    return [_doubt(one, habits) for one in doubts(text, reading, Knowing(ledger, day))]


def _doubt(doubt: Doubt, habits: Mapping[str, str]) -> DoubtOut:
    answers = [*doubt.means, AS_WRITTEN] if doubt.form else []
    usual = habits.get(doubt.form) if doubt.form else None
    return DoubtOut(
        line=doubt.line,
        column=doubt.column,
        length=doubt.length,
        why=doubt.why,
        taken=doubt.taken,
        others=list(doubt.others),
        form=doubt.form,
        answers=answers,
        habit=answers.index(usual) if usual in answers else None,
        only=doubt.only,
    )
