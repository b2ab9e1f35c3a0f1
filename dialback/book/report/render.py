"""From the content of a report to a tagged PDF, in the product's fonts.

The pages are typst templates beside this module; what is put into them is text and never markup.
"""

from __future__ import annotations

import json
from collections.abc import Mapping
from functools import lru_cache
from importlib import resources
from pathlib import Path
from typing import Any, Final

import typst

SIZES: Final = (15.0, 14.0, 13.0, 12.0, 11.0, 10.0, 9.5, 9.0, 8.5, 8.0, 7.5)
"""Points of the text: the largest at which it fits on one page; the smallest where none does."""
_BEFORE: Final = ("frame.typ", "drawings.typ", "tables.typ")
"""What every page begins with."""


def render(template: str, content: Mapping[str, Any], largest: float) -> bytes:
    """The PDF of a report: PDF/UA-1, with title and language, its text real text."""
    return rendered(template, content, fitting(template, content, largest))


def fitting(template: str, content: Mapping[str, Any], largest: float) -> float:
    """The largest type, in points, in which the content fits on one page; else the smallest."""
    source, data = _source(template), _data(content)
    for size in (size for size in SIZES if size <= largest):
        inputs = {"data": data, "size": str(size)}
        pages = typst.query(
            source, "<pages>", field="value", one=True, sys_inputs=inputs, font_paths=_fonts()
        )
        if json.loads(pages) == 1:
            break
    return size


def _data(content: Mapping[str, Any]) -> str:
    return json.dumps(content, ensure_ascii=False)


def rendered(template: str, content: Mapping[str, Any], size: float) -> bytes:
    """The PDF in type of that size, on as many pages as it takes."""
    source, inputs = _source(template), {"data": _data(content), "size": str(size)}
    try:
        return _compiled(source, inputs, pdf_standards=["ua-1"])
    except typst.TypstError:
        # A name in letters that no font at hand has: the page is still tagged, with boxes for them.
        return _compiled(source, inputs)


def _compiled(source: bytes, inputs: dict[str, str], **more: Any) -> bytes:
    pdf: bytes = typst.compile(source, format="pdf", sys_inputs=inputs, font_paths=_fonts(), **more)
    return pdf


@lru_cache(maxsize=1)
def _fonts() -> typst.Fonts:
    """The product's own fonts, so that a page is the same on every machine.

    What they lack (other scripts, arrows) comes from those that typst brings along.
    """
    folder = Path(str(resources.files("dialback.book").joinpath("fonts")))
    return typst.Fonts(include_system_fonts=False, font_paths=[folder])


@lru_cache(maxsize=8)
def _source(template: str) -> bytes:
    folder = resources.files("dialback.book.report")
    return b"\n".join(folder.joinpath(name).read_bytes() for name in (*_BEFORE, template))
