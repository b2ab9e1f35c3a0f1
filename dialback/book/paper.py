"""A session on paper, as PDF: one page, read from the floor, with a box for each set."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from importlib import resources
from io import BytesIO
from typing import Final, Literal

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

CAUTION: Final = (
    "Stop on sharp pain, chest pain, dizziness or numbness, and see a doctor. Form before load; "
    "heavy bar work needs a spotter or safeties."
)

_PLAIN, _STRONG = "SourceSerif4-Regular", "SourceSerif4-SemiBold"
_MARGIN: Final = 15 * mm
_LARGEST, _SMALLEST = 15.0, 8.0
_MOST_BOXES: Final = 12


@dataclass(frozen=True, slots=True)
class PaperLine:
    """A line of the session: what it says, and how many sets it comes to."""

    text: str
    kind: Literal["part", "line", "inside"]
    sets: int = 0


@dataclass(frozen=True, slots=True)
class PaperSession:
    """A session with its head."""

    athlete: str
    title: str
    head: str
    lines: Sequence[PaperLine]


@lru_cache(maxsize=1)
def _fonts() -> None:
    for name in (_PLAIN, _STRONG):
        font = resources.files("dialback.book").joinpath("fonts", f"{name}.ttf")
        with font.open("rb") as file:
            pdfmetrics.registerFont(TTFont(name, BytesIO(file.read())))


def session_paper(session: PaperSession) -> bytes:
    """The session as a PDF of A4 pages: one, unless it is too long to be read on one."""
    _fonts()
    buffer = BytesIO()
    canvas = Canvas(buffer, pagesize=A4, invariant=1)
    canvas.setTitle(f"{session.athlete}: {session.title}")
    canvas.setAuthor("Dial Back")
    size = _LARGEST
    while size > _SMALLEST and _height(session, size) > _room():
        size -= 0.5
    _draw(canvas, session, size)
    canvas.save()
    return buffer.getvalue()


def _room() -> float:
    """Points of a page for the lines, below the head and above the foot."""
    return A4[1] - 2 * _MARGIN - 52 - 46


def _boxes_width(line: PaperLine, size: float) -> float:
    return min(line.sets, _MOST_BOXES) * (size * 1.9) if line.sets else 0.0


def _wrapped(line: PaperLine, size: float) -> list[str]:
    indent = size * 1.2 if line.kind == "inside" else 0.0
    width = A4[0] - 2 * _MARGIN - indent - _boxes_width(line, size) - 8
    font = _STRONG if line.kind == "part" else _PLAIN
    return simpleSplit(line.text, font, size, max(width, 120)) or [""]


def _line_height(line: PaperLine, size: float) -> float:
    lead = size * (0.9 if line.kind == "part" else 0.55)
    return len(_wrapped(line, size)) * size * 1.22 + lead


def _height(session: PaperSession, size: float) -> float:
    return sum(_line_height(line, size) for line in session.lines)


def _draw(canvas: Canvas, session: PaperSession, size: float) -> None:
    top = _head(canvas, session)
    y = top
    for line in session.lines:
        height = _line_height(line, size)
        if y - height < _MARGIN + 46 and y != top:
            _foot(canvas)
            canvas.showPage()
            y = top = _head(canvas, session)
        _line(canvas, line, y, size)
        y -= height
    _foot(canvas)


def _head(canvas: Canvas, session: PaperSession) -> float:
    y = A4[1] - _MARGIN - 18
    canvas.setFont(_STRONG, 20)
    title = simpleSplit(f"{session.athlete}: {session.title}", _STRONG, 20, A4[0] - 2 * _MARGIN)
    canvas.drawString(_MARGIN, y, title[0] if title else "")
    canvas.setFont(_PLAIN, 11)
    canvas.drawString(_MARGIN, y - 18, session.head)
    for offset in (25, 27):
        canvas.setLineWidth(0.6)
        canvas.line(_MARGIN, y - offset, A4[0] - _MARGIN, y - offset)
    return y - 34


def _line(canvas: Canvas, line: PaperLine, y: float, size: float) -> None:
    canvas.setFont(_STRONG if line.kind == "part" else _PLAIN, size)
    x = _MARGIN + (size * 1.2 if line.kind == "inside" else 0.0)
    base = y - size * (1.4 if line.kind == "part" else 1.05)
    for at, text in enumerate(_wrapped(line, size)):
        canvas.drawString(x, base - at * size * 1.22, text)
    width, height = size * 1.6, size * 1.15
    for box in range(min(line.sets, _MOST_BOXES)):
        left = A4[0] - _MARGIN - _boxes_width(line, size) + box * size * 1.9 + size * 0.3
        canvas.setLineWidth(0.7)
        canvas.rect(left, base - size * 0.25, width, height)
    if line.kind != "part":
        canvas.setLineWidth(0.25)
        below = y - _line_height(line, size) + size * 0.12
        canvas.line(_MARGIN, below, A4[0] - _MARGIN, below)


def _foot(canvas: Canvas) -> None:
    y = _MARGIN + 24
    canvas.setFont(_PLAIN, 11)
    x = _MARGIN
    for words, width in (("Exertion (0 to 10)", 40), ("Minutes", 40), ("Notes", 230)):
        canvas.drawString(x, y, words)
        x += pdfmetrics.stringWidth(words, _PLAIN, 11) + 6
        canvas.setLineWidth(0.7)
        canvas.rect(x, y - 5, width, 18)
        x += width + 16
    canvas.setFont(_PLAIN, 8)
    canvas.drawString(_MARGIN, _MARGIN, CAUTION)
