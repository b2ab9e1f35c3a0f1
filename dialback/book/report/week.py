"""A week on one page for the coach's file: what was signed, or what stands at the moment."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any, Final

from dialback.book.report.words import (
    CAUTION,
    date_text,
    in_short,
    session_head,
    week_span,
    week_title,
)
from dialback.core.baseline import TOLERANCE
from dialback.core.measures import BY_MEASURE, MEASURES, TITLES
from dialback.core.rules import RULES, Rules
from dialback.core.verdict import KINDS, worst_open
from dialback.core.vocabulary import MUSCLES, PAIRS, label
from dialback.core.weeks import Week
from dialback.core.words import Unit, capital, number, percent, weight_text

Cell = str | dict[str, Any]
"""What stands in a cell: text, ``strong`` where it lies outside its band, or a drawing
(``dose``, ``beam``, ``mark``, ``weeks``), its lengths as shares of the longest."""
Trend = Mapping[str, Sequence[float | None]]
"""Of each measure what was done week by week, up to the one in hand."""

_RULES: Final = {entry.name: entry for entry in RULES}


@dataclass(frozen=True, slots=True)
class Standing:
    """A week's document, and what has changed since it was signed.

    ``frozen`` tells what was kept with the signature from what was made on ``day``.
    """

    document: Mapping[str, Any]
    frozen: bool
    day: date
    since: Sequence[str] = ()

    @property
    def week(self) -> Week:
        """The week it is of."""
        return Week.parse(self.document["audit"]["week"])

    @property
    def told(self) -> str:
        """Who signed it and when, or that nobody did."""
        signer, now = self.document["signed_by"], date_text(self.day)
        if not signer:
            return f"Not signed; as it stood on {now}"
        told = f"Signed by {signer} on {date_text(date.fromisoformat(self.document['signed_on']))}"
        return told if self.frozen else f"{told}; figures as they stood on {now}"


def week_content(
    standing: Standing, changes: Sequence[str], unit: Unit, house: str, trend: Trend
) -> dict[str, Any]:
    """What the page of a week says."""
    document, audit = standing.document, standing.document["audit"]
    rules = Rules.model_validate(document["rules"])
    causes, alone = verdict(document)
    return {
        "house": house,
        "title": f"{audit['athlete']}, {week_title(standing.week)}",
        "span": week_span(standing.week),
        "signed": standing.told,
        "since": list(standing.since),
        "measures": _measures(audit, unit, trend),
        "past": f"{max(map(len, trend.values()))} weeks",
        "days": _days(standing),
        "loads": _loads(audit),
        "news": told(document),
        "causes": causes,
        "alone": alone,
        "pairs": _pairs(audit, rules),
        "muscles": _muscles(audit, rules),
        "sessions": [
            {
                "head": session_head(session),
                "text": in_short(session["sets"]),
                # A week that was signed long ago has no remarks.
                "said": "; ".join(session.get("said", ())),
            }
            for session in document["sessions"]["completed"]
        ],
        "changes": list(changes),
        "rules": rules_told(rules),
        "foot": CAUTION,
    }


def amount(value: float | None, measure: str, unit: Unit) -> str:
    """A figure of a measure in a column: the unit where it is not the measure's name."""
    if value is None:
        return "–"
    words = BY_MEASURE[measure]
    match words.unit:
        case "itself":
            return number(value, 1)
        case "weight":
            return weight_text(value, unit, words.digits)
        case "s":
            return f"{number(value, words.digits)} s"


def share(value: float | None) -> str:
    """A share in whole per cent."""
    return "–" if value is None else f"{number(value * 100, 0)} %"


def _measures(audit: Mapping[str, Any], unit: Unit, trend: Trend) -> list[list[Cell]]:
    done, jumps = audit["compliance"], audit["jumps"]["totals"]
    sessions = done["sessions"]
    rows: list[list[Cell]] = [
        ["Sessions", "", str(sessions["planned"]), str(sessions["done"]), "", "", "", ""]
    ]
    for name in MEASURES:
        change = jumps[name]["change"]
        three = {
            **{key: done[name][key] for key in ("planned", "done")},
            "base": jumps[name]["base"],
        }
        rows.append(
            [
                capital(TITLES[name]),
                {"dose": _of_the_longest(three)},
                amount(done[name]["planned"], name, unit),
                amount(done[name]["done"], name, unit),
                share(done[name]["share"]),
                amount(jumps[name]["base"], name, unit),
                "–" if change is None else percent(change),
                {"weeks": shares_of(trend[name])},
            ]
        )
    return rows


def _of_the_longest(lengths: Mapping[str, float | None]) -> dict[str, float]:
    most = max((value or 0.0 for value in lengths.values()), default=0.0)
    return {name: (value or 0.0) / most if most else 0.0 for name, value in lengths.items()}


def shares_of(values: Sequence[float | None]) -> list[float | None]:
    """How high values stand in a small line, from 0 to 1; a gap stays one.

    The line begins at half of the highest value, or at the lowest where that is less: what is
    about the same lies flat, and what differs is seen.
    """
    known = [value for value in values if value is not None]
    most = max(known, default=0.0)
    least = min([most / 2, *known])
    tall = most - least
    return [None if one is None else (one - least) / tall if tall else 0.0 for one in values]


def _days(standing: Standing) -> list[dict[str, Any]]:
    """How many sets are written for each day of the week, planned and done."""
    sessions = standing.document["sessions"]

    def count(basis: str, day: date) -> int:
        mine = (one for one in sessions[basis] if one["date"] == day.isoformat())
        return sum(len(one["sets"]) for one in mine)

    return [
        {
            "day": f"{day:%a}",
            "planned": count("planned", day),
            "done": count("completed", day),
        }
        for day in (standing.week.monday + timedelta(days=at) for at in range(7))
    ]


def _loads(audit: Mapping[str, Any]) -> str:
    loads = audit["sessions"]
    told = [
        f"{name} {number(loads[key], digits)}"
        for name, key, digits in (
            ("session load", "load", 0),
            ("monotony", "monotony", 2),
            ("strain", "strain", 0),
        )
        if loads[key]
    ]
    totals = audit["totals"]
    for key, says in (
        ("estimated_rep_sets", "sets with estimated reps"),
        ("assumed_tempo_sets", "sets with an assumed tempo"),
    ):
        if totals[key]:
            told.append(f"{totals[key]} {says}")
    text = ", ".join(told)
    return text[:1].upper() + text[1:] + ("." if text else "")


def told(document: Mapping[str, Any]) -> list[dict[str, str]]:
    """The lines of the verdict that are not accepted; a week signed long ago has none."""
    accepted = {_key(one) for one in document["accepted"]}
    return [
        {
            "level": line["level"],
            "kind": KINDS[line["kind"]],
            "sentence": f"{line['sentence']} {line['ask']}".strip(),
        }
        for line in document["audit"].get("verdict", ())
        if not accepted.issuperset(map(tuple, line["explains"]))
    ]


def verdict(document: Mapping[str, Any]) -> tuple[list[dict[str, Any]], list[str]]:
    """The causes with their levels and the reasons they were accepted for; notes beside them."""
    findings = {_key(one): one for one in document["audit"]["findings"]}
    reasons = {_key(one): one["reason"] for one in document["accepted"]}
    causes, explained = [], set()
    for cause in document["audit"]["causes"]:
        keys = [(key[0], key[1], key[2]) for key in cause["explains"]]
        explained.update(keys)
        causes.append(
            {
                "level": worst_open((findings[key]["level"], key in reasons) for key in keys),
                "sentence": cause["sentence"],
                "follow": len(keys),
                "accepted": list(dict.fromkeys(reasons[key] for key in keys if key in reasons)),
            }
        )
    return causes, [one["sentence"] for key, one in findings.items() if key not in explained]


def _key(one: Mapping[str, Any]) -> tuple[str, str, str]:
    return one["code"], one["subject"], one["measure"]


def _pairs(audit: Mapping[str, Any], rules: Rules) -> list[list[Cell]]:
    rows: list[list[Cell]] = []
    for pair in PAIRS:
        weighed = audit["balance"][pair.name]["sets"]
        if not weighed["a"] and not weighed["b"]:
            continue
        band = rules.balance_bands.get(pair.name)
        rows.append(
            [
                capital(pair.title),
                {"beam": beam(weighed, band)},
                f"{number(weighed['a'], 1)} : {number(weighed['b'], 1)}",
                _marked(
                    "all : 0" if weighed["ratio"] is None else number(weighed["ratio"]),
                    band is not None and not _within(weighed["ratio"], band),
                ),
                "none" if band is None else band_text(band),
            ]
        )
    return rows


def beam(weighed: Mapping[str, Any], band: Sequence[float] | None) -> dict[str, Any]:
    """A pair as a balance beam; ``ratio`` is ``None`` where the other side has nothing."""
    low, high = (None, None) if band is None else band
    empty = not weighed["a"] and not weighed["b"]
    return {"ratio": weighed["ratio"], "low": low, "high": high, "empty": empty}


def band_text(band: Sequence[float]) -> str:
    """The two ends of a band."""
    return f"{number(band[0])}–{number(band[1])}"


def _muscles(audit: Mapping[str, Any], rules: Rules) -> list[list[Cell]]:
    cells: list[list[Cell]] = []
    for muscle in MUSCLES:
        sets, band = audit["muscles"][muscle]["sets"], rules.muscle_bands[muscle]  # type: ignore[index]
        outside = not _within(sets, band)
        # A muscle that is allowed nothing, and had nothing, has no band to draw.
        most = max(sets, band[1]) * 1.1 or 1.0
        mark = {"value": sets / most, "low": band[0] / most, "high": band[1] / most}
        cells.append(
            [
                capital(label(muscle)),
                {"mark": mark},
                _marked(number(sets, 1), outside),
                band_text(band),
            ]
        )
    half = (len(cells) + 1) // 2
    return [left + right for left, right in zip(cells[:half], cells[half:], strict=True)]


def _within(value: float | None, band: Sequence[float]) -> bool:
    return value is not None and band[0] - TOLERANCE <= value <= band[1] + TOLERANCE


def _marked(text: str, outside: bool) -> Cell:
    return {"strong": text} if outside else text


def rules_told(rules: Rules) -> list[str]:
    """The rules that are not the defaults, by their titles."""
    return [_RULES[name].title for name in rules.changes() if name in _RULES]
