"""Journal: who changed what, when and where; taken back, and made again."""

from __future__ import annotations

from typing import Final

from flask import Response

from dialback.store.journal import everybody_in_it, noted
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, desk
from dialback.web.shapes.journal import (
    EntryPath,
    Journal,
    JournalLine,
    JournalQuery,
    Swapped,
    WholeQuery,
)
from dialback.work import changes as work
from dialback.work.persons import anybody

api = blueprint("journal", __name__, "/journal")

PAGE: Final = 100
"""So many entries at a time."""


@api.get("", responses={200: Journal})
def journal(query: JournalQuery) -> Response:
    """Who changed what, the latest first: of the house, or of an athlete."""
    found = noted(
        desk().today(),
        athlete=None if query.athlete is None else anybody(query.athlete),
        who=query.who,
        words=query.words.strip(),
        undoable=query.undoable,
        before=query.before,
        most=PAGE + 1,
    )
    return answer(
        Journal(
            entries=[
                JournalLine(
                    id=one.number,
                    athlete=one.athlete,
                    name=one.name,
                    at=one.at,
                    until=one.until,
                    times=one.times,
                    who=one.who,
                    place=one.place,
                    says=one.says,
                    can_undo=one.can_undo,
                    undone=one.undone,
                    together=one.together,
                    change=one.change,
                )
                for one in found[:PAGE]
            ],
            more=len(found) > PAGE,
            people=everybody_in_it(),
        )
    )


@api.post("/<int:entry>/undo", responses={200: Swapped})
def undo_change(path: EntryPath, query: WholeQuery) -> Response:
    """Take a change back: what came goes, what went comes back."""
    return answer(Swapped(stays=work.take_back(path.entry, desk().today(), whole=query.whole)))


@api.post("/<int:entry>/redo", responses={200: Swapped})
def redo_change(path: EntryPath, query: WholeQuery) -> Response:
    """Make a change again that was taken back."""
    return answer(Swapped(stays=work.make_again(path.entry, desk().today(), whole=query.whole)))
