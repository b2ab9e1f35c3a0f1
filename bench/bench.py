"""Measure what a coach waits for, and print the medians.

One athlete with three years of training (about 500 sessions, 12 000 sets), a club of forty such
athletes in one data file. HTTP figures go through a real server on the loopback address.
"""

from __future__ import annotations

import gc
import json
import random
import re
import shutil
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import date, timedelta
from functools import partial
from pathlib import Path
from typing import Any

import pandas as pd

from bench.clubs import FORTY, SIZES, VISITS, club, count_everybody, spread_verdicts
from dialback.book.book import Book, SessionsByWeek, read_book
from dialback.book.grid import write_csv, write_xlsx
from dialback.book.logsheet.rows import export_heads, rows_of
from dialback.core.adjusting import Options, adjust, wave_week
from dialback.core.audit import audit
from dialback.core.body import BodyWeight
from dialback.core.causes import causes
from dialback.core.measures import MEASURES
from dialback.core.movements import MovementTable
from dialback.core.notation import Setting, expand, read
from dialback.core.notation.items import forget_lines
from dialback.core.reconcile import match_sets
from dialback.core.rules import DEFAULT_RULES
from dialback.core.sense import Knowing, doubts
from dialback.core.sessions import Session, Set
from dialback.core.squads import Member, audit_squad
from dialback.core.squads.adjusting import adjust_squad
from dialback.core.tally import Ledger, Tally, tally
from dialback.core.tempo import ASSUMED, parse_tempo
from dialback.core.vocabulary import PAIRS
from dialback.core.weeks import Week
from dialback.demo.generate import books
from dialback.library import library
from dialback.store.athletes import Ledgers, import_book
from dialback.store.database import open_database
from dialback.store.models import Athlete, database
from dialback.web.serve import KEEP_EVERY_S

TODAY = date.today()
WEEKS = 156
CLUB = FORTY
CLUBS = Path(__file__).parent.parent / ".clubs"
ROUNDS = 15
WORK = [one for one in library() if one.counted and not one.isometric]


def a_book(name: str, seed: int) -> dict[str, Any]:
    """Three years in blocks of four weeks: three or four days of six movements, four sets each."""
    chance = random.Random(seed)
    last = Week.to_audit(TODAY)
    completed = []
    for back in range(1 - WEEKS, 1):
        if (back - 1 + WEEKS) % 4 == 0:
            block = [chance.sample(WORK, 6) for _ in range(4)]
            loads = {one.name: chance.randrange(8, 100, 2) for day in block for one in day}
        monday = last.plus(back).monday
        for day, work in zip((0, 1, 3, 5) if back % 5 == 0 else (0, 2, 4), block, strict=False):
            sets = []
            for movement in work:
                loads[movement.name] += chance.choice((0, 0, 1, 2))
                reps = chance.randint(6, 10)
                sets += [
                    {
                        "exercise": movement.name,
                        "reps": reps - (at == 3 and chance.random() < 0.4),
                        "load_kg": loads[movement.name],
                        "rpe": chance.choice((7, 7.5, 8, 8.5)),
                    }
                    for at in range(4)
                ]
            completed.append({"date": (monday + timedelta(days=day)).isoformat(), "sets": sets})
    return {
        "format": "dialback-book",
        "version": 1,
        "athlete": {"name": name, "bodyweight_kg": 75},
        "exercises": [one.model_dump(mode="json") for one in library()],
        "completed": completed,
        "planned": completed[-30:],
    }


def median_ms(call: Callable[[], Any], rounds: int = ROUNDS) -> float:
    """Median of some rounds, in milliseconds."""
    taken = []
    for _ in range(rounds):
        start = time.perf_counter()
        call()
        taken.append((time.perf_counter() - start) * 1000)
    return statistics.median(taken)


def say(what: str, value: float, goal: str) -> None:
    """One line of the result."""
    print(f"{what:<62}{value:9.1f} ms   {goal}")


def from_store(athlete: Athlete) -> Ledger:
    """The athlete's three years, read from the data file; nothing measured yet."""
    ledger = Ledgers().of(athlete)
    weeks = ledger.source.weeks("completed")
    ledger.read_ahead(weeks[0], weeks[-1])
    return ledger


def in_columns(athlete: Athlete) -> dict[Week, Tally]:
    """Weekly sums of every figure straight from the data file; nothing kept from before."""
    ledger = Ledgers().of(athlete)
    weeks = ledger.source.weeks("completed")
    ledger.sum_up("completed", weeks[0], weeks[-1])
    return {week: ledger.tally("completed", week) for week in weeks}


def say_side_by_side(calls: tuple[tuple[str, Callable[[], Any], str], ...]) -> None:
    """Medians of calls made in turn: what is compared is measured in the same minutes."""
    rounds = [[median_ms(call, 3) for _, call, _ in calls] for _ in range(5)]
    for (what, _, goal), taken in zip(calls, zip(*rounds, strict=True), strict=True):
        say(what, statistics.median(taken), goal)


def ours(read: Ledger) -> dict[Week, Tally]:
    """Weekly sums of every figure, of sets in memory; nothing kept from before."""
    ledger = Ledger(read.source, read.movements, read.rules, read.body)
    return {week: ledger.tally("completed", week) for week in ledger.source.weeks("completed")}


_COLUMNS = (
    "reps",
    "seconds",
    "load_kg",
    "implements",
    "sides",
    "tempo",
    "hold_s",
    "partial_reps",
    "rpe",
    "warm_up",
    "rest_s",
    "part",
)


def fetch(athlete: Athlete) -> list[tuple[Any, ...]]:
    """The same rows for pandas, as SQLite gives them."""
    columns = ", ".join(f"t.{one}" for one in _COLUMNS)
    found = database.execute_sql(
        f'SELECT s.date, m.name, {columns} FROM "set" t '
        "JOIN session s ON s.id = t.session_id JOIN movement m ON m.id = t.movement_id "
        "WHERE s.athlete_id = ? AND s.basis = 'completed' AND s.deleted_on IS NULL",
        (athlete.id,),
    )
    return list(found.fetchall())


def by_pandas(fetched: list[tuple[Any, ...]], bodyweight_kg: float) -> dict[str, pd.DataFrame]:
    """The same sums of the same rows by pandas: merge with the movements, group by week.

    It leaves out what the generated rows do not have (sides, own tempo, seconds, combinations),
    and the pairs of muscles, which repeat the muscles.
    """
    rows = pd.DataFrame(fetched, columns=["date", "name", *_COLUMNS])
    rows = rows[rows["warm_up"] == 0]
    movements = pd.DataFrame(
        [
            (
                one.name,
                one.pattern,
                one.bodyweight_share,
                (parse_tempo(one.tempo) if one.tempo else ASSUMED).cycle,
            )
            for one in library()
        ],
        columns=["name", "pattern", "share", "cycle"],
    )
    roles = pd.DataFrame(
        [
            (one.name, muscle, 1.0 if role == "direct" else 0.5)
            for one in library()
            for muscle, role in one.muscles.items()
        ],
        columns=["name", "muscle", "credit"],
    )
    calendar = pd.to_datetime(rows["date"]).dt.isocalendar()
    rows["week"] = calendar["year"].astype(str) + "-W" + calendar["week"].astype(str).str.zfill(2)
    rows = rows.merge(movements, on="name")
    rows["sets"] = ((rows["rpe"].isna()) | (rows["rpe"] >= 6)).astype(float)
    rows["volume_load_kg"] = rows["reps"] * (
        rows["load_kg"] * rows["implements"] + rows["share"] * bodyweight_kg
    )
    rows["tut_s"] = rows["reps"] * rows["cycle"]
    measures = list(MEASURES)
    spread = rows.merge(roles, on="name")
    of_muscles = ["sets", "volume_load_kg", "tut_s"]
    for measure in of_muscles:
        spread[measure] = spread[measure] * spread["credit"]
    sides = pd.DataFrame(
        [
            (pattern, f"{pair.name}/{side}")
            for pair in PAIRS
            if pair.of == "pattern"
            for side, members in (("a", pair.a), ("b", pair.b))
            for pattern in members
        ],
        columns=["pattern", "side"],
    )
    weighed = rows.merge(sides, on="pattern")
    return {
        "totals": rows.groupby("week")[measures].sum(),
        "patterns": rows.groupby(["week", "pattern"])[measures].sum(),
        "movements": rows.groupby(["week", "name"])[measures].sum(),
        "balance": weighed.groupby(["week", "side"])[measures].sum(),
        "muscles": spread.groupby(["week", "muscle"])[of_muscles].sum(),
    }


def check_same(one: dict[Week, Tally], two: dict[str, pd.DataFrame]) -> None:
    """A yardstick that measures something else is none."""
    for kind, frame in two.items():
        for index, values in frame.iterrows():
            week, *subject = index if isinstance(index, tuple) else (index,)
            for name, value in values.items():
                key = "/".join((kind, *subject, name))
                found = one[Week.parse(week)].get(key, 0.0)
                assert abs(found - value) < 1e-6, (week, key, found, value)


def measured(text: str, movements: MovementTable) -> Tally:
    """A text read, expanded and summed."""
    (written,) = read(text, movements).sessions
    ledger = Ledger(SessionsByWeek([], []), movements, DEFAULT_RULES, BodyWeight(75))
    return tally(ledger.measure([expand(written, Setting(movements), TODAY)]))


def http(base: str, path: str, body: Any = None) -> Any:
    """One request, as a browser sends it."""
    request = urllib.request.Request(base + path)
    if body is not None:
        request.data = json.dumps(body).encode()
        request.add_header("Content-Type", "application/json")
    with urllib.request.urlopen(request) as answer:
        return json.load(answer)


def main() -> None:
    """Generate, measure, print."""
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "bench.sqlite"
        print(f"{CLUB} athletes of {WEEKS} weeks …")
        shutil.copy(club(CLUBS, CLUB, a_book, Week.to_audit(TODAY)), data)
        opened = open_database(data)
        with opened.connection_context():
            book: Book = read_book(json.dumps(a_book("One more", CLUB)).encode())
            start = time.perf_counter()
            athlete = import_book(book, TODAY).athlete
            imported = (time.perf_counter() - start) * 1000
        print(
            f"each: {len(book.completed)} sessions, "
            f"{sum(len(session.sets) for session in book.completed)} sets done\n"
        )
        say("import of one such book", imported, "")

        path = Path(folder) / "three-years.json"
        path.write_text(json.dumps(a_book("Three years", 1)))
        week = str(Week.to_audit(TODAY))
        command = [
            Path(sys.executable).parent / "dialback",
            "audit",
            path,
            "--week",
            week,
            "--json",
        ]
        whole = median_ms(lambda: subprocess.run(command, check=True, capture_output=True), 7)
        say("dialback audit, three years, whole process", whole, "goal under 1000")

        with opened.connection_context():
            read, fetched = from_store(athlete), fetch(athlete)
            weight = athlete.bodyweight_kg
            check_same(ours(read), by_pandas(fetched, weight))
            check_same(in_columns(athlete), by_pandas(fetched, weight))
            # What the bench itself holds is not to be searched for garbage meanwhile.
            gc.collect()
            gc.freeze()
            say_side_by_side(
                (
                    (
                        "three years read and summed, ours",
                        lambda: in_columns(athlete),
                        "goal twice the plain SELECT",
                    ),
                    ("the same rows by a plain SELECT", lambda: fetch(athlete), ""),
                    (
                        "the same sums of rows read before, by pandas",
                        lambda: by_pandas(fetched, weight),
                        "ours, with reading, no slower",
                    ),
                    ("sums of sets in memory, ours", lambda: ours(read), ""),
                    ("the rows as sets", lambda: from_store(athlete), ""),
                )
            )

        text = "\n".join(
            f"{one.name} 3 × 8 at {20 + 2.5 * at:g} kg, RPE {6 + at % 4}, rest {60 + at} s"
            for at, one in enumerate(WORK[:20])
        )
        board = MovementTable(library())

        def anew() -> None:
            forget_lines()
            measured(text, board)

        say("reading and measuring 60 written sets, core", median_ms(anew), "goal under 15")
        say("the same at the next key", median_ms(lambda: measured(text, board)), "")
        with opened.connection_context():
            sense(text, from_store(athlete))

        planned = written_sets(text, board)
        done = [one for at, one in enumerate(planned) if at % 7] + planned[:4]
        say(
            "reconciling a session of 60 sets, core",
            median_ms(lambda: match_sets(planned, done, board)),
            "goal under 10",
        )
        for name, writer in (("CSV", write_csv), ("XLSX", write_xlsx)):
            sheet(name, writer(export_heads(), rows_of(hundred_thousand(planned))), board)

        judged_and_adjusted()
        squads()
        start = time.perf_counter()
        with served(data) as (base, process):
            count_everybody(lambda: http(base, "/api/roster"))
            first = (time.perf_counter() - start) * 1000
            say("start of the server to a roster of 41, nothing kept", first, "")
            over_http(base, week, text)
            print(f"{'memory of the server behind it all':<62}{resident_mb(process):9.0f} MB\n")
        grown()


def grown() -> None:
    """How cost grows with the club: the roster, a week sheet, memory."""
    week = Week.to_audit(TODAY)
    for size in SIZES:
        data = club(CLUBS, size, a_book, week)
        if size == FORTY:
            with served(data) as (base, _):
                count_everybody(lambda: http(base, "/api/roster"))
                time.sleep(KEEP_EVERY_S + 2)
        else:
            spread_verdicts(club(CLUBS, FORTY, a_book, week), data)
        start = time.perf_counter()
        with served(data) as (base, process):
            count_everybody(lambda: http(base, "/api/roster"))
            say(
                f"club of {size}: start of the server to its roster",
                (time.perf_counter() - start) * 1000,
                "goal 1500, the start itself aside" if size == 400 else "",
            )
            say(
                f"club of {size}: roster again",
                median_ms(lambda: http(base, "/api/roster"), 7),
                "goal under 250" if size == 400 else "",
            )
            sheets = [
                f"/api/athletes/{1 + at * (size - 1) // (VISITS - 1)}/weeks/{week}/sheet"
                for at in range(min(VISITS, size))
            ]
            taken = [median_ms(partial(http, base, path), 1) for path in sheets]
            say(f"club of {size}: week sheet, first look, median", statistics.median(taken), "")
            print(
                f"{f'club of {size}: memory after {len(sheets)} week sheets':<62}"
                f"{resident_mb(process):9.0f} MB"
            )


@contextmanager
def served(data: Path) -> Iterator[tuple[str, int]]:
    """The application on a port of its own, as a process: its address and its number."""
    command = [Path(sys.executable).parent / "dialback", "--data", data, "serve", "--port", "0"]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as process:
        assert process.stdout is not None
        for line in process.stdout:
            found = re.search(r"http://\S+", line)
            if found:
                break
        try:
            yield found[0].rstrip("/") if found else "", process.pid
        finally:
            process.terminate()


def resident_mb(process: int) -> float:
    """Resident memory of a process."""
    status = Path(f"/proc/{process}/status").read_text()
    return int(re.search(r"VmRSS:\s+(\d+)", status)[1]) / 1024


def eight_weeks(ledger: Ledger, first: Week) -> None:
    """A block proposed week by week, as the Block asks for it."""
    plans: dict[Week, tuple[Any, ...]] = {}
    for at in range(8):
        found = wave_week(ledger, first.plus(at), plans, Options(seconds=1.0), ease_in=True)
        plans[first.plus(at)] = found.proposal.sessions


def judged_and_adjusted() -> None:
    """Causes and proposals of the demo's weeks: how long, and how much there is to read."""
    week = Week.to_audit(TODAY)
    took, findings, causes_ = [], 0, 0
    proposed, eight = [], []
    for book, _ in books(TODAY):
        judged = audit(book.ledger(), week, as_of=TODAY)
        findings += sum(one.level != "note" for one in judged.findings)
        start = time.perf_counter()
        causes_ += len(causes(judged))
        took.append((time.perf_counter() - start) * 1000)
        start = time.perf_counter()
        adjust(book.ledger(), week.plus(1), Options(seconds=20))
        proposed.append((time.perf_counter() - start) * 1000)
        start = time.perf_counter()
        eight_weeks(book.ledger(), week.plus(1))
        eight.append((time.perf_counter() - start) * 1000)
    say("causes of a demo week, median", statistics.median(took), "")
    say("causes of a demo week, the longest", max(took), "goal under 60")
    say("a proposal with its ladder, demo, median", statistics.median(proposed), "")
    say("a proposal with its ladder, demo, the longest", max(proposed), "goal under 1500")
    say("eight weeks of a block, demo, median", statistics.median(eight), "goal under 3000")
    say("eight weeks of a block, demo, the longest", max(eight), "goal under 3000")
    print(f"the demo's week: {findings} findings above a note under {causes_} causes, 13 rowers\n")


def squads() -> None:
    """Forty athletes with four sessions in common, each with loads of their own."""
    week = Week.to_audit(TODAY)
    chance = random.Random(7)
    days = [chance.sample(WORK, 6) for _ in range(4)]
    members = []
    for at in range(40):
        sessions = [
            {
                "date": (week.plus(back).monday + timedelta(days=day)).isoformat(),
                "title": f"Day {day}",
                "sets": [
                    {"exercise": one.name, "reps": 8, "load_kg": 10 + at + number, "rpe": 8}
                    for number, one in enumerate(work)
                    for _ in range(2 + number % 3)
                ],
            }
            for back in range(-4, 1)
            for day, work in zip((0, 1, 3, 5), days, strict=True)
        ]
        body = a_book(f"Rower {at}", at) | {"completed": sessions[:-4], "planned": sessions}
        members.append(Member(f"Rower {at}", read_book(json.dumps(body).encode()).ledger()))
    start = time.perf_counter()
    judged = audit_squad(members, week, "planned")
    say("audit of a squad of 40", (time.perf_counter() - start) * 1000, "")
    start = time.perf_counter()
    found = adjust_squad(members, week, Options(seconds=5))
    say("a proposal for a squad of 40", (time.perf_counter() - start) * 1000, "goal under 10000")
    first, stop = found.ladder[0], found.ladder[found.stop]
    findings = sum(len(one.explains) for one in judged.causes)
    print(
        f"the squad: {findings} findings under {len(judged.causes)} causes in common; "
        f"{first.high} high and {first.caution} caution before, {stop.high} and {stop.caution} "
        f"after, at a cost of {stop.cost}\n"
    )


def over_http(base: str, week: str, text: str) -> None:
    """What a coach waits for in the browser."""
    say("roster of 40", median_ms(lambda: http(base, "/api/roster")), "goal under 250")

    place = f"/api/athletes/7/weeks/{week}"
    coming = f"/api/athletes/7/weeks/{Week.to_audit(TODAY).plus(1)}/draft"
    say("week sheet", median_ms(lambda: http(base, f"{place}/sheet")), "goal under 40")
    trail = f"{place}/trail?figure=muscles/chest/sets"
    say("trail of a figure", median_ms(lambda: http(base, trail)), "")
    say(
        "season of a year, first look",
        statistics.median(
            [
                median_ms(
                    partial(http, base, f"/api/athletes/{at}/weeks/{week}/season?weeks=52"), 1
                )
                for at in range(8, 15)
            ]
        ),
        "goal under 150",
    )
    draft = http(base, coming)
    body = {"sessions": draft["sessions"]}
    say(
        "live audit of a draft",
        median_ms(lambda: http(base, f"{coming}/audit", body)),
        "goal under 40",
    )
    say("next steps of a draft", median_ms(lambda: http(base, f"{coming}/next", body)), "")
    turn = {**body, "setting": draft["start_total"] - 7}
    say(
        "a turn of the dial",
        median_ms(lambda: http(base, f"{coming}/dial", turn)),
        "goal under 40",
    )
    say(
        "all notches of the dial",
        median_ms(lambda: http(base, f"{coming}/notches", body), 5),
        "",
    )
    board_body = {"date": Week.to_audit(TODAY).plus(1).monday.isoformat(), "text": text}
    check = f"/api/athletes/7/weeks/{Week.to_audit(TODAY).plus(1)}/written/check"
    say(
        "60 written sets in their week",
        median_ms(lambda: http(base, check, board_body)),
        "goal under 40",
    )
    long = {**board_body, "text": "Press-up 9\n" * 9000}
    say(
        "a text of 9 000 lines, refused",
        median_ms(lambda: http(base, check, long), 5),
        "goal under 1000",
    )
    rules = {"chosen": {"baseline": "ewma"}, "scope": "house", "basis": "completed"}
    say(
        "preview of a rule that needs all three years",
        median_ms(lambda: http(base, f"{place}/rules/preview", rules), 5),
        "",
    )


def sense(text: str, ledger: Ledger) -> None:
    """The twenty lines looked at for their sense, with three years behind them."""
    reading = read(text, ledger.movements)

    def anew() -> None:
        ledger.kept.clear()
        doubts(text, reading, Knowing(ledger, TODAY))

    say("sense of a written line, the first of a day", median_ms(anew) / 20, "goal under 2")
    again = median_ms(lambda: doubts(text, reading, Knowing(ledger, TODAY)))
    say("the same at the next key", again / 20, "")


def written_sets(text: str, board: MovementTable) -> list[Set]:
    """The flat sets of a text."""
    return list(expand(read(text, board).sessions[0], Setting(board), TODAY).sets)


def hundred_thousand(sets: list[Set]) -> Iterator[tuple[str, Session]]:
    """So many rows of a log, in sessions of fifty sets."""
    for at in range(2000):
        day = date(2019, 1, 1) + timedelta(days=at)
        yield "Athlete 7", Session(date=day, title="bench", sets=tuple(sets[:50]))


def sheet(name: str, data: bytes, board: MovementTable) -> None:
    """Time and memory of an import of 100 000 rows, in a process of its own."""
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "rows"
        file.write_bytes(data)
        command = [sys.executable, "-c", SHEET, str(file)]
        out = subprocess.run(command, check=True, capture_output=True, text=True).stdout.split()
        say(f"100 000 rows of {name}, read", float(out[0]), "")
        say(
            f"100 000 rows of {name}, read and stored",
            float(out[1]),
            f"goal 30 000; {out[2]} MB, goal 500",
        )


SHEET = """
import resource, sys, time
from datetime import date
from pathlib import Path
from dialback.book.grid import read_grid
from dialback.book.logsheet.columns import guess
from dialback.book.logsheet.taking import take
from dialback.core.adjusting import Options, adjust, wave_week
from dialback.core.audit import audit
from dialback.core.causes import causes
from dialback.core.movements import MovementTable
from dialback.store.athletes import Ledgers
from dialback.store.database import open_database
from dialback.store.imports import store_sheet
from dialback.store.models import Athlete
from dialback.store.movements import house_movements

file = Path(sys.argv[1])
with open_database(file.with_suffix(".sqlite")).connection_context():
    Athlete.create(name="Athlete 7", bodyweight_kg=75)
    movements = MovementTable(one for _, one in house_movements())
    start = time.perf_counter()
    grid = read_grid(file.read_bytes())
    choice = guess(grid).choice
    found = take(grid, choice, movements, date(2100, 1, 1))
    read = time.perf_counter()
    done = store_sheet("rows", found.sessions, choice, grid.heads, Ledgers(), date(2026, 11, 23))
    assert done.sets == 100_000
    stored = time.perf_counter()
    most = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss // 1024
    print((read - start) * 1000, (stored - start) * 1000, most)
"""


if __name__ == "__main__":
    main()
