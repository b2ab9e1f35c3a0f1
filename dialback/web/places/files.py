"""Files: books in and out, and athletes taken off the roster and put back."""

from __future__ import annotations

from http import HTTPStatus

from flask import Response, request

from dialback.book.book import read_book, warnings, write_book
from dialback.core.weeks import Week
from dialback.store.athletes import NameTakenError, export_book, find_athlete, import_book
from dialback.store.models import Athlete
from dialback.store.unit import unit
from dialback.web.blueprint import blueprint
from dialback.web.desk import answer, attachment, desk, the_athlete
from dialback.web.places.roster import last_week_done
from dialback.web.places.sheets import range_of
from dialback.web.problems import RefusedError, not_found
from dialback.web.shapes import AthletePath, Done, ImportOut, ImportQuery, RangeQuery
from dialback.web.sheet import athlete_out

api = blueprint("files", __name__)

_BOOK_BODY = {
    "requestBody": {
        "description": "A book, dialback-book version 1",
        "required": True,
        "content": {"application/json": {"schema": {"type": "object"}}},
    }
}


@api.post("/import", responses={201: ImportOut}, openapi_extensions=_BOOK_BODY)
def import_one(query: ImportQuery) -> Response:
    """Import a book whole, or refuse it with every place that is wrong."""
    book = read_book(request.get_data())
    try:
        done = import_book(book, desk().today(), query.name, replace=query.replace)
    except NameTakenError as taken:
        raise RefusedError(HTTPStatus.CONFLICT, "name-taken", f"{taken}.") from None
    ledger = desk().ledgers.of(Athlete.get_by_id(done.athlete.id))
    week = last_week_done(ledger, Week.to_audit(desk().today()))
    return answer(
        ImportOut(
            athlete=athlete_out(done.athlete),
            week=str(week),
            planned=done.planned,
            completed=done.completed,
            sets=done.sets,
            new_movements=list(done.new_movements),
            own_movements=list(done.own_movements),
            replaced=done.replaced,
            warnings=warnings(book),
        ),
        HTTPStatus.CREATED,
    )


@api.get("/athletes/<int:athlete_id>/book")
def export_one(path: AthletePath, query: RangeQuery) -> Response:
    """The athlete's book as a file, whole or of some days."""
    athlete = the_athlete(path.athlete_id)
    book = write_book(export_book(athlete, desk().ledgers, *range_of(query)))
    return attachment(book, athlete, "application/json", "book.json")


@api.delete("/athletes/<int:athlete_id>", responses={200: Done})
def remove_athlete(path: AthletePath) -> Response:
    """Take an athlete off the roster; nothing is lost."""
    with unit():
        athlete = the_athlete(path.athlete_id)
        athlete.deleted_on = desk().today()
        athlete.save()
    return answer(Done())


@api.post("/athletes/<int:athlete_id>/restore", responses={200: Done})
def restore_athlete(path: AthletePath) -> Response:
    """Put an athlete back on the roster."""
    with unit():
        athlete = Athlete.get_or_none(
            Athlete.id == path.athlete_id, Athlete.deleted_on.is_null(False)
        )
        if athlete is None:
            raise not_found(f"No athlete off the roster has the number {path.athlete_id}.")
        if find_athlete(athlete.name) is not None:
            raise RefusedError(
                HTTPStatus.CONFLICT, "name-taken", f"Another {athlete.name!r} is on the roster now."
            )
        athlete.deleted_on = None
        athlete.save()
    return answer(Done())
