"""The squad file: the books of several athletes in one zip, with an index that names them.

Source: Dial Back's contract, *Squads*.
"""

from __future__ import annotations

import io
import json
import lzma
import zipfile
import zlib
from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path, PurePosixPath, PureWindowsPath
from typing import Any, Final, Literal, TypeVar

from pydantic import Field, ValidationError

from dialback.book.book import MAX_BYTES, Book, read_book, warnings
from dialback.book.errors import BadInputError, Problem, bad_input, from_validation
from dialback.book.json_text import read_document
from dialback.core.movements import Value
from dialback.core.sessions import Title
from dialback.core.squads import Member

FORMAT: Final = "dialback-squad"
VERSION: Final = 1
INDEX: Final = "squad.json"
MAX_BOOKS: Final = 2000
"""Books of a squad; a club has a tenth of that."""
MAX_UNPACKED: Final = 2_000_000_000
"""Bytes of the index and the named books together."""
_SIGNATURES: Final = (b"PK\x03\x04", b"PK\x05\x06")
"""What a zip file begins with: an entry, or the end of one without any."""
_DAMAGED: Final = (
    zipfile.BadZipFile, RuntimeError, NotImplementedError, EOFError, OSError, ValueError,
    zlib.error, lzma.LZMAError,
)  # fmt: skip
"""What reading a damaged, locked or oddly packed entry raises."""


T = TypeVar("T")


class SquadIndex(Value):
    """``dialback-squad`` version 1: whose books are in the file, in the order of the roster."""

    format: Literal["dialback-squad"]
    version: Literal[1]
    name: Title
    books: tuple[str, ...] = Field(strict=False, min_length=1, max_length=MAX_BOOKS)


@dataclass(frozen=True, slots=True)
class Squad:
    """A squad as it was read: its name, and its books in the order of the roster."""

    name: str
    books: tuple[Book, ...]

    @property
    def members(self) -> tuple[Member, ...]:
        """Its athletes, each with a ledger of their own."""
        return tuple(Member(book.athlete.name, book.ledger()) for book in self.books)

    def warnings(self) -> list[str]:
        """What was read and has no effect, each with whose book it is in."""
        return [f"{book.athlete.name}: {told}" for book in self.books for told in warnings(book)]


def is_squad(path: Path) -> bool:
    """Whether a file is a zip, or says so by its name; a book is neither."""
    if path.suffix.casefold() == ".zip":
        return True
    try:
        with path.open("rb") as file:
            return file.read(4) in _SIGNATURES
    except OSError:
        return False


def read_squad(source: Path | bytes) -> Squad:
    """Read and check a squad file. Raises ``BadInputError`` that names the place that is wrong."""
    with _opened(source) as package:
        entries = Counter(package.namelist())
        index = _index(_content(package, entries, INDEX))
        there = [name for name in (INDEX, *index.books) if name in entries]
        unpacked = sum(package.getinfo(name).file_size for name in there)
        if unpacked > MAX_UNPACKED:
            raise bad_input(
                INDEX,
                f"the squad has {unpacked // 10**6} MB unpacked; at most {MAX_UNPACKED // 10**6} "
                "are taken: split it",
            )
        books = tuple(_book(package, entries, name) for name in index.books)
    _refuse_namesakes(index, books)
    return Squad(index.name, books)


def write_squad(name: str, books: Sequence[bytes]) -> bytes:
    """A squad file of books that are written already, in the order of the roster."""
    names = [f"{at:0{max(2, len(str(len(books))))}}.book.json" for at in range(1, len(books) + 1)]
    index = {"format": FORMAT, "version": VERSION, "name": name, "books": names}
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as package:
        entries = [(INDEX, json.dumps(index, ensure_ascii=False, indent=1).encode())]
        for entry, content in [*entries, *zip(names, books, strict=True)]:
            # The same squad is the same file, whenever it is written.
            info = zipfile.ZipInfo(entry)
            info.compress_type = zipfile.ZIP_DEFLATED
            package.writestr(info, content)
    return buffer.getvalue()


def schema() -> dict[str, Any]:
    """The JSON Schema (2020-12) of the index of a squad file."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": f"urn:{FORMAT}:{VERSION}",
        **SquadIndex.model_json_schema(mode="validation"),
        "title": FORMAT,
    }


@contextmanager
def _opened(source: Path | bytes) -> Iterator[zipfile.ZipFile]:
    try:
        package = zipfile.ZipFile(io.BytesIO(source) if isinstance(source, bytes) else source)
    except FileNotFoundError as error:
        raise bad_input(str(source), f"cannot be read: {error.strerror}") from None
    except _DAMAGED:
        place = str(source) if isinstance(source, Path) else ""
        raise bad_input(place, "is not a zip file, or a damaged one") from None
    with package:
        yield package


def _content(package: zipfile.ZipFile, entries: Counter[str], name: str) -> bytes:
    if name not in entries:
        raise bad_input(name, "is not in the zip file")
    if entries[name] > 1:
        raise bad_input(name, f"is in the zip file {entries[name]} times")
    try:
        with package.open(name) as file:
            # A byte more than a book may have: what is too long is told by whoever reads it.
            return file.read(MAX_BYTES + 1)
    except _DAMAGED:
        raise bad_input(
            name, "is damaged, encrypted, or compressed in a way this program cannot read"
        ) from None


def _index(data: bytes) -> SquadIndex:
    index = _at(INDEX, lambda: _validated(read_document(data, "squad", FORMAT, VERSION)))
    seen: dict[str, int] = {}
    for at, name in enumerate(index.books):
        place = f"{INDEX}: books[{at}]"
        windows, posix = PureWindowsPath(name), PurePosixPath(name)
        if windows.drive or windows.root or posix.is_absolute() or ".." in windows.parts:
            raise bad_input(place, f"{name!r} points outside the zip file: name a file inside it")
        first = seen.setdefault(name, at)
        if first != at:
            raise bad_input(place, f"{name!r} is already there as books[{first}]")
    return index


def _validated(document: dict[str, Any]) -> SquadIndex:
    try:
        return SquadIndex.model_validate(document)
    except ValidationError as error:
        raise from_validation(error) from None


def _book(package: zipfile.ZipFile, entries: Counter[str], name: str) -> Book:
    content = _content(package, entries, name)
    return _at(name, lambda: read_book(content))


def _at(place: str, read: Callable[[], T]) -> T:
    """What is read, or the problems of it with the file that they are in."""
    try:
        return read()
    except BadInputError as error:
        problems = [
            Problem(": ".join(filter(None, (place, one.place))), one.message)
            for one in error.problems
        ]
        raise BadInputError(problems) from None


def _refuse_namesakes(index: SquadIndex, books: Sequence[Book]) -> None:
    seen: dict[str, str] = {}
    for file, book in zip(index.books, books, strict=True):
        name = book.athlete.name.strip().casefold()
        first = seen.setdefault(name, file)
        if first != file:
            raise bad_input(
                f"{file}: athlete.name",
                f"{book.athlete.name!r} is already the athlete of {first}: each has one book",
            )
