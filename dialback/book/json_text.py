"""JSON from outside: read with its place when it cannot be, and only if it can be kept."""

from __future__ import annotations

import json
from typing import Any

from dialback.book.errors import BadInputError, Problem, bad_input
from dialback.core.plain import MAX_DEPTH, unplain


class NotJsonError(BadInputError):
    """Bytes that are not a JSON document at all."""

    def __init__(self, message: str) -> None:
        super().__init__([Problem("", message)])


def read_document(data: bytes, what: str, kind: str, version: int) -> dict[str, Any]:
    """A JSON document of ours: an object that says its format and version.

    ``kind`` is the format, as in ``dialback-book``; ``what`` it is called, for the refusal. Raises
    ``BadInputError``.
    """
    document = read_json(data, f"the {what}")
    if not isinstance(document, dict) or document.get("format") != kind:
        raise bad_input(
            "format", f'this is not a {what}: a {what} is an object with "format": "{kind}"'
        )
    if document.get("version") != version or isinstance(document.get("version"), bool):
        raise bad_input(
            "version",
            f"version {document.get('version')!r:.40} is not known here: this program reads "
            f"version {version}",
        )
    return document


def read_json(data: bytes, what: str, deepest: int = MAX_DEPTH) -> Any:
    """A JSON document of plain values; ``what`` it is, for the refusal.

    Raises ``NotJsonError`` with line and column, and ``BadInputError`` with the place of what
    cannot be kept.
    """
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise NotJsonError(f"{what} is not a UTF-8 text: byte {error.start} is damaged") from None
    try:
        document = json.loads(text)
    except json.JSONDecodeError as error:
        raise NotJsonError(
            f"{what} is not JSON: {error.msg} at line {error.lineno}, column {error.colno}"
        ) from None
    except RecursionError:
        raise NotJsonError(f"{what} is not JSON that can be read: nested too deep") from None
    except ValueError:
        raise NotJsonError(f"{what} is not JSON that can be read: a number is too long") from None
    wrong = unplain(document, deepest=deepest)
    if wrong is not None:
        raise bad_input(*wrong)
    return document
