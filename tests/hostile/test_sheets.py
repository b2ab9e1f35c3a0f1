"""Spreadsheets that never end, that hide rows, that are meant to do harm: told, and quickly."""

from __future__ import annotations

import io
import zipfile
from collections.abc import Callable

import pytest

from dialback.book import workbook as workbook_module
from dialback.book.errors import BadInputError
from dialback.book.grid import read_grid, write_csv, write_xlsx
from dialback.book.workbook import LAST_COLUMN, LAST_ROW

NAMESPACE = "http://schemas.openxmlformats.org/spreadsheetml/2006/main"
HEAD = '<row r="1"><c r="A1" t="str"><v>date</v></c><c r="B1" t="str"><v>movement</v></c></row>'
ROW = '<row r="2"><c r="A2" t="str"><v>2026-10-05</v></c><c r="B2" t="str"><v>Press</v></c></row>'


def workbook(rows: str, *, dimension: str = "", before: str = "", **parts: bytes) -> bytes:
    """A workbook with that sheet data, and parts in place of its own."""
    out = io.BytesIO()
    good = zipfile.ZipFile(io.BytesIO(write_xlsx(["a", "b"], [[1, 2]])))
    said = f'<dimension ref="{dimension}"/>' if dimension else ""
    sheet = (
        f'<?xml version="1.0"?>{before}<worksheet xmlns="{NAMESPACE}">{said}'
        f"<sheetData>{rows}</sheetData></worksheet>"
    ).encode()
    named = {name.replace("__", "/").replace("_xml", ".xml"): part for name, part in parts.items()}
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        for entry in good.infolist():
            own = sheet if entry.filename.startswith("xl/worksheets/") else good.read(entry)
            packed.writestr(entry.filename, named.get(entry.filename, own))
    return out.getvalue()


@pytest.mark.parametrize("dimension", ["A1", "A1:B1", "A1:XFD1048576", "A1:B999999999", ""])
def test_what_a_sheet_says_of_its_size_is_not_believed(dimension: str) -> None:
    rows = HEAD + "".join(ROW.replace('2"', f'{at}"') for at in range(2, 52))
    grid = read_grid(workbook(rows, dimension=dimension))
    assert len(grid.rows) == 50
    assert grid.heads == ("date", "movement")


HOSTILE: dict[str, tuple[str, str]] = {
    "a row far beyond": (ROW.replace("2\"", '1000000000000"'), "cannot come after row"),
    "a row before the last": (ROW + ROW, "cannot come after row"),
    "a row of no number": (ROW.replace('r="2"', 'r="x"'), "cannot come after row"),
    "a column beyond": (ROW.replace("B2", "XFE2"), "is in no column"),
    "a column of another alphabet": (ROW.replace("B2", "22"), "is in no column"),
    "a text that is not there": (ROW.replace('t="str"><v>Press', 't="s"><v>77'), "damaged"),
    "an end in the middle": (ROW[:-9], "is damaged"),
    "a wide row": (
        '<row r="2">' + "".join(f'<c r="A2"><v>{at}</v></c>' for at in range(3)) + "</row>",
        "stands twice",
    ),
    "prefixed names": (
        ROW.replace("<row", "<x:row").replace("</row", "</x:row").replace('2"', '99999999"'),
        "cannot come after row",
    ),
}  # fmt: skip


@pytest.mark.parametrize("what", HOSTILE)
def test_damage_is_told_with_its_place(what: str) -> None:
    rows, words = HOSTILE[what]
    with pytest.raises(BadInputError, match=words):
        read_grid(workbook(HEAD + rows))


def test_a_gap_of_a_million_rows_costs_nothing() -> None:
    last = ROW.replace('2"', f'{LAST_ROW}"')
    grid = read_grid(workbook(HEAD + last))
    assert [number for number, _ in grid.rows] == [LAST_ROW]
    assert LAST_COLUMN == 16_384


def test_a_million_rows_are_refused_by_looking(monkeypatch: pytest.MonkeyPatch) -> None:
    """Before anything is read: the reader is not even asked."""
    monkeypatch.setattr(workbook_module, "CalamineWorkbook", None)
    row = '<row r="{}"><c r="A{}"><v>1</v></c></row>'
    rows = "".join(row.format(at, at) for at in range(1, 300_000))
    with pytest.raises(BadInputError, match="more than 250000 rows"):
        read_grid(workbook(rows))
    far = HEAD + ROW.replace("B2", "XFD2").replace('2"', f'{LAST_ROW}"')
    with pytest.raises(BadInputError, match="spreads over"):
        read_grid(workbook(far))


ENTITIES = '<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]>'
OUTSIDE = '<!DOCTYPE x [<!ENTITY f SYSTEM "file:///etc/passwd">]>'


@pytest.mark.parametrize("before", [ENTITIES, OUTSIDE])
def test_entities_are_refused(before: str) -> None:
    named = before.split("ENTITY ")[-1][0]
    rows = HEAD + ROW.replace("Press", f"&{named};")
    with pytest.raises(BadInputError, match="file"):
        read_grid(workbook(rows, before=before))
    strings = f'{before}<sst xmlns="{NAMESPACE}"><si><t>&{named};</t></si></sst>'.encode()
    for part in ("xl__styles_xml", "xl__workbook_xml"):
        with pytest.raises(BadInputError, match="file"):
            read_grid(workbook(HEAD + ROW, **{part: strings}))


def test_what_unpacks_to_more_than_a_log_is_refused() -> None:
    with pytest.raises(BadInputError, match="that is not a log"):
        read_grid(workbook(HEAD + ROW, xl__styles_xml=b"<a>" + b" " * 9_000_000 + b"</a>"))


class StopError(Exception):
    """Somebody cancels."""


def test_reading_can_be_stopped() -> None:
    told: list[int] = []

    def seen(count: int) -> None:
        told.append(count)
        if count > 300:
            raise StopError

    rows = [["2026-10-05", "Press", number] for number in range(2000)]
    makers: list[Callable[..., bytes]] = [write_csv, write_xlsx]
    for make in makers:
        told.clear()
        with pytest.raises(StopError):
            read_grid(make(["date", "movement", "reps"], rows), seen)
        assert max(told) < 500


@pytest.mark.parametrize(
    "text", ["=1+1", "+1", "-1", "@x", "\t=1", "\r=1", "\n=1", "＝1", "＋1", "＠x"]
)
def test_no_cell_of_an_export_is_a_formula(text: str) -> None:
    csv = write_csv(["note"], [[text]]).decode("utf-8-sig").split("\r\n", 1)[1]
    assert csv.lstrip('"').startswith("'")
    grid = read_grid(write_xlsx(["note", "more"], [[text, "x"]]))
    assert grid.rows[0][1][0] == "'" + text.replace("\r", "\n")
