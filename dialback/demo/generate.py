"""Sixteen weeks of plans and logs for the club, laid relative to a day; same day, same data."""

from __future__ import annotations

import json
import random
import zlib
from collections.abc import Iterator
from datetime import date, timedelta
from typing import Any, Final

from dialback.book.book import Book, read_book
from dialback.core.cautions import ADULT
from dialback.core.sessions import KG_PER_LB
from dialback.core.tempo import parse_tempo
from dialback.core.weeks import Week
from dialback.demo.club import ROWERS, WEEKS, Rower
from dialback.demo.programmes import LOADS, Day, Line
from dialback.library import library

AHEAD: Final = 2
"""Weeks of plans after the one to audit: the one that runs, and the next."""
LIGHTER_EVERY: Final = 4
LIGHTER_SETS: Final = 0.6
GAIN_PER_WEEK: Final = 0.006
_TEMPI: Final = {movement.name: movement.tempo or "2-0-1-0" for movement in library()}


def books(today: date) -> Iterator[tuple[Book, Rower]]:
    """A book for every rower of the club."""
    week = Week.to_audit(today)
    for rower in ROWERS:
        yield read_book(json.dumps(_document(rower, week, today)).encode()), rower


def _document(rower: Rower, week: Week, today: date) -> dict[str, Any]:
    # A seed of the name alone: the story of a rower does not hang on the others.
    seed = zlib.crc32(rower.name.encode())
    # Nor does the end of it hang on how long ago it began.
    chance, early = random.Random(seed), random.Random(seed + 1)
    planned, completed = [], []
    for back in range(1 - rower.weeks, AHEAD + 1):
        if back in rower.absent:
            continue
        for day in rower.programme(back):
            session = _plan(rower, day, week, back)
            planned.append(session)
            on = date.fromisoformat(session["date"])
            skipped = back in rower.missed or (back, day[0]) in rower.missed_days
            if on < today and not skipped:
                fate = early if back <= -WEEKS else chance
                completed.append(_log(rower, session, fate, back))
    _tell(
        rower,
        [one for one in completed if Week.of(date.fromisoformat(one["date"])) == week],
        chance,
    )
    names = {
        name
        for session in [*planned, *completed]
        for one in session["sets"]
        for name in [one.get("exercise"), *(move["exercise"] for move in one.get("moves", ()))]
        if name
    }
    return {
        "format": "dialback-book",
        "version": 1,
        "athlete": {
            "name": rower.name,
            "bodyweight_kg": rower.bodyweight_kg,
            "restrictions": [
                {"since": (week.plus(back).monday + timedelta(days=2)).isoformat(), **one}
                for back, one in rower.restrictions
            ],
            "cautions": [
                {"since": week.plus(back).monday.isoformat(), **one} for back, one in rower.care
            ],
            "decisions": [
                {"since": week.plus(back).monday.isoformat(), **one}
                for back, one in rower.decisions
            ],
            **({"born_in": week.monday.year - ADULT} if rower.turns_18 else {}),
        },
        "exercises": [
            movement.model_dump(mode="json") for movement in library() if movement.name in names
        ],
        "kinds": [{"week": str(week.plus(back)), "kind": "test"} for back in rower.tests],
        "planned": planned,
        "completed": completed,
    }


def _plan(rower: Rower, day: Day, week: Week, back: int) -> dict[str, Any]:
    number, title, lines = day
    lighter = back < 0 and back % LIGHTER_EVERY == 0
    sets: list[dict[str, Any]] = []
    tested = [line for line in lines if line.get("exercise") in LOADS and not line.get("warm_up")]
    for line in _tests(tested[:2]) if back in rower.tests else lines:
        count = line["count"]
        if lighter and not line.get("warm_up"):
            count = max(1, round(count * LIGHTER_SETS))
        sets += _sets(rower, line, count, back)
    monday = week.plus(back).monday
    return {
        "date": (monday + timedelta(days=number)).isoformat(),
        "title": f"{title}, lighter week" if lighter else title,
        "sets": sets,
    }


def _tests(lines: list[Line]) -> Iterator[Line]:
    """Up to a heavy single, by fives and threes."""
    for line in lines:
        for reps, share in ((5, 0.6), (3, 0.8), (1, 1.02), (1, 1.08), (1, 1.14)):
            lighter = {"warm_up": True} if share < 1 else {}
            yield {**line, "count": 1, "reps": reps, "share": share, "rest_s": 180, **lighter}


def _sets(rower: Rower, line: Line, count: int, back: int) -> Iterator[dict[str, Any]]:
    keys = (
        "exercise",
        "moves",
        "reps",
        "seconds",
        "sides",
        "tempo",
        "rest_s",
        "warm_up",
        "part",
        "round",
        "place",
    )
    plain = {key: line[key] for key in keys if line.get(key) is not None}
    kit = LOADS.get(line.get("kit") or line.get("exercise", ""))
    if kit is not None and not line.get("bare"):
        gained = 1 + GAIN_PER_WEEK * (back + WEEKS)
        total = kit.share * rower.bodyweight_kg * rower.strength * gained * line.get("share", 1.0)
        if back >= 0 and not line.get("warm_up"):
            total *= rower.load_jump.get(line.get("exercise", ""), 1.0)
        each = max(kit.step, round(total / kit.implements / kit.step) * kit.step)
        plain["load_kg"] = each
        if kit.implements > 1:
            plain["implements"] = kit.implements
    for _ in range(count):
        if line.get("sides") == "sided":
            yield {**plain, "sides": "left"}
            yield {**plain, "sides": "right"}
        else:
            yield dict(plain)


def _log(rower: Rower, plan: dict[str, Any], chance: random.Random, back: int) -> dict[str, Any]:
    sets = []
    working = [one for one in plan["sets"] if not one.get("warm_up")]
    for one in plan["sets"]:
        done = dict(one)
        done.pop("rest_s", None)
        if not one.get("warm_up"):
            done["rpe"] = chance.choice((6.5, 7, 7, 7.5, 7.5, 8, 8, 8.5))
        if done.get("sides") == "left" and "reps" in done:
            done["reps"] = max(1, round(done["reps"] * rower.weak_side))
            done["rpe"] = 9.0
        elif "reps" in done and not one.get("warm_up") and chance.random() < 0.08:
            done["reps"] = max(1, done["reps"] - 1)
            done["rpe"] = 9.0
        if rower.in_pounds and "load_kg" in done:
            pounds = round(done["load_kg"] / KG_PER_LB / 5) * 5
            done["load_kg"] = round(max(5, pounds) * KG_PER_LB, 3)
            done["unit"] = "lb"
        sets.append(done)
    if back == 0 and rower.extra_rounds:
        last = [one["exercise"] for one in working]
        for name in dict.fromkeys(last[:2]):
            extra = next(a_set for a_set in reversed(sets) if a_set.get("exercise") == name)
            sets += [dict(extra) for _ in range(rower.extra_rounds)]
    minutes = (12 + 2.6 * len(working)) * (1 + rower.drag * max(0, back + 8))
    return {
        "date": plan["date"],
        "title": plan["title"],
        "rpe": chance.choice((6, 6.5, 7, 7.5, 8)),
        "duration_min": round(minutes + chance.uniform(-4, 6)),
        "sets": sets,
    }


def _tell(rower: Rower, audited: list[dict[str, Any]], chance: random.Random) -> None:
    """What happened in the week to audit, session by session."""
    if not audited:
        return
    last = audited[-1]
    if rower.half_logged:
        last["sets"] = last["sets"][: len(last["sets"]) // 2]
        last["rpe"] = last["duration_min"] = None
    if rower.rounds_more:
        first = audited[0]["sets"]
        names = [one.get("exercise") for one in first]
        # A round is what stands between two of the movement that the circuit begins with.
        begins = [at for at, name in enumerate(names) if name == "Goblet squat"]
        length = begins[1] - begins[0]
        end = begins[-1] + length
        more = [dict(one) for one in first[begins[-1] : end]] * rower.rounds_more
        audited[0]["sets"] = [*first[:end], *more, *first[end:]]
    for session in audited:
        for one in session["sets"]:
            if rower.swap and one.get("exercise") == rower.swap[0]:
                one["exercise"] = rower.swap[1]
                one["load_kg"] = max(1.0, round(one["load_kg"] * 0.2))
            if one.get("exercise") in rower.measured and not one.get("warm_up"):
                cycle = parse_tempo(_TEMPI[one["exercise"]]).cycle
                spread = chance.uniform(0.94, 1.04)
                one["measured_reps"] = one["reps"]
                one["measured_tension_s"] = round(one["reps"] * cycle * spread, 1)
    if rower.pain:
        last["pain"] = [{"exercise": rower.pain[0], "note": rower.pain[1]}]
        last["notes"] = "Stopped early; told the coach on the stairs."
