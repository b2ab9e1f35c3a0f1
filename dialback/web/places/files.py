"""Files: books in and out."""

from __future__ import annotations

from http import HTTPStatus

from flask import Response, request

from dialback import __version__
from dialback.book.book import read_book, warnings, write_book
from dialback.book.doubtful import doubtful
from dialback.core.weeks import Week
from dialback.store.athletes import (
    NameTakenError,
    export_book,
    house,
    import_book,
    look_at_book,
)
from dialback.store.copies import KEPT, copies, folder_of
from dialback.web.blueprint import blueprint
from dialback.web.columns import last_week_done
from dialback.web.desk import answer, attachment, desk, range_of, the_athlete
from dialback.web.document import file_answer
from dialback.web.problems import RefusedError
from dialback.web.shapes.common import AthletePath, RangeQuery
from dialback.web.shapes.files import Copies, CopyOut, Health, ImportLook, ImportOut, ImportQuery
from dialback.web.sheet import athlete_out

api = blueprint("files", __name__)

_BOOK_BODY = {
    "requestBody": {
        "description": "A book, dialback-book version 1",
        "required": True,
        "content": {"application/json": {"schema": {"type": "object"}}},
    }
}


@api.post("/import/look", responses={200: ImportLook}, openapi_extensions=_BOOK_BODY)
def look_before_import() -> Response:
    """What a book is, and what it would bring into the house; nothing is stored."""
    book = read_book(request.get_data())
    look = look_at_book(book)
    days = [session.date for session in (*book.planned, *book.completed)]
    return answer(
        ImportLook(
            name=book.athlete.name,
            taken=look.taken,
            planned=len(book.planned),
            completed=len(book.completed),
            sets=sum(len(session.sets) for session in (*book.planned, *book.completed)),
            first=min(days).isoformat() if days else None,
            last=max(days).isoformat() if days else None,
            new_movements=list(look.new_movements),
            own_movements=list(look.own_movements),
            warnings=[*warnings(book), *doubtful(book, desk().today())],
        )
    )


@api.post("/import", responses={201: ImportOut}, openapi_extensions=_BOOK_BODY)
def import_one(query: ImportQuery) -> Response:
    """Import a book whole, or refuse it with every place that is wrong."""
    book = read_book(request.get_data())
    try:
        done = import_book(book, desk().today(), query.name, replace=query.replace)
    except NameTakenError as taken:
        raise RefusedError(HTTPStatus.CONFLICT, "name-taken", f"{taken}.") from None
    ledger = desk().ledgers.of(the_athlete(done.athlete.id))
    latest = Week.to_audit(desk().today())
    week = last_week_done(ledger, latest) or latest
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
            warnings=[*warnings(book), *doubtful(book, desk().today())],
        ),
        HTTPStatus.CREATED,
    )


@api.get(
    "/athletes/<int:athlete_id>/book",
    responses={200: file_answer("application/json", "A book, dialback-book version 1")},
)
def export_one(path: AthletePath, query: RangeQuery) -> Response:
    """The athlete's book as a file, whole or of some days."""
    athlete = the_athlete(path.athlete_id)
    book = write_book(export_book(athlete, desk().ledgers, *range_of(query)))
    return attachment(book, athlete, "application/json", "book.json")


@api.get("/copies", responses={200: Copies})
def list_copies() -> Response:
    """The daily copies of the data file, and where they lie."""
    data = desk().data
    found = copies(data) if data is not None else []
    return answer(
        Copies(
            folder=str(folder_of(data)) if data is not None else "",
            kept=KEPT,
            copies=[
                CopyOut(
                    day=one.day.isoformat(),
                    name=one.path.name,
                    megabytes=round(one.bytes / 1_000_000, 1),
                )
                for one in found
            ],
        )
    )


@api.get("/health", responses={200: Health})
def health() -> Response:
    """Whether the server answers and reads its data file; for whoever watches over it."""
    house()
    return answer(Health(status="ok", version=__version__))
