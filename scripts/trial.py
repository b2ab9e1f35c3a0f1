"""Trial: what is acknowledged is kept, whoever is killed and however many ask at once.

``make trial`` runs all of it against servers of their own and prints figures; it ends with status 1
if anything was lost. ``--small`` is the part that the tests run.
"""

from __future__ import annotations

import argparse
import http.client
import json
import os
import random
import re
import resource
import shutil
import signal
import sqlite3
import statistics
import subprocess
import sys
import tempfile
import threading
import time
import uuid
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

DIALBACK = Path(sys.executable).parent / "dialback"
WEEK = "2026-W41"
DAY = "2026-10-05"


class Server:
    """The application as a process on a data file; it can be killed and started again."""

    def __init__(self, data: Path, *command: str | Path, limit_bytes: int | None = None) -> None:
        self.data = data
        self.command = list(command) or [DIALBACK, "--data", data, "serve", "--port", "0"]
        self.limit_bytes = limit_bytes
        self.process: subprocess.Popen[str] | None = None
        self.port = 0

    def start(self) -> float:
        """Start it; seconds until it says where it is."""
        begun = time.perf_counter()
        limit = self.limit_bytes
        self.process = subprocess.Popen(
            self.command,
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
            text=True,
            preexec_fn=None
            if limit is None
            else lambda: resource.setrlimit(resource.RLIMIT_FSIZE, (limit, limit)),
        )
        assert self.process.stdout is not None
        for line in self.process.stdout:
            found = re.search(r":(\d+)/", line)
            if found:
                self.port = int(found[1])
                break
        return time.perf_counter() - begun

    def kill(self) -> None:
        """As a power cut does it."""
        assert self.process is not None
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()

    def memory_mb(self) -> float:
        """Resident memory."""
        assert self.process is not None
        status = Path(f"/proc/{self.process.pid}/status").read_text()
        return int(re.search(r"VmRSS:\s+(\d+)", status)[1]) / 1024  # type: ignore[index]

    def ask(self, method: str, path: str, body: Any = None) -> tuple[int, Any]:
        """One request on a connection of its own; status 0 where nobody answers."""
        connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=60)
        try:
            data = None if body is None else json.dumps(body)
            connection.request(method, path, data, {"Content-Type": "application/json"})
            answer = connection.getresponse()
            text = answer.read()
            kind = answer.headers.get("Content-Type", "")
            return answer.status, json.loads(text) if "json" in kind else text
        except (OSError, http.client.HTTPException, ValueError):
            return 0, None
        finally:
            connection.close()


@contextmanager
def served(data: Path) -> Iterator[Server]:
    """A server for as long as a trial lasts."""
    server = Server(data)
    server.start()
    try:
        yield server
    finally:
        server.kill()


def a_book(name: str, sessions: int = 8) -> dict[str, Any]:
    """An athlete with some weeks of training."""
    return {
        "format": "dialback-book",
        "version": 1,
        "athlete": {"name": name, "bodyweight_kg": 70},
        "exercises": [
            {"name": "Press", "pattern": "vertical_push", "muscles": {"side_delts": "direct"}}
        ],
        "completed": [
            {
                "date": f"2026-{1 + at // 28:02d}-{1 + at % 28:02d}",
                "sets": [{"exercise": "Press", "reps": 5, "load_kg": 20}] * 5,
            }
            for at in range(sessions)
        ],
    }


def athletes_of(server: Server, count: int) -> None:
    """Bring athletes in."""
    for number in range(count):
        status, told = server.ask("POST", "/api/import", a_book(f"Athlete {number}"))
        assert status == 201, told


def with_mark(session: dict[str, Any] | None, mark: str) -> dict[str, Any]:
    """A log with one more set that carries a mark."""
    sets = [] if session is None else session["sets"]
    return {
        "date": DAY,
        "title": "",
        "sets": [
            *(
                {"exercise": one["exercise"], "reps": one["reps"], "note": one["note"]}
                for one in sets
                if "note" in one
            ),
            {"exercise": "Press", "reps": 5, "note": mark},
        ],
    }


def log_of(server: Server, athlete: int, client: str) -> dict[str, Any] | None:
    """The session of a week's log with that id, with what waits beside it."""
    status, week = server.ask("GET", f"/api/athletes/{athlete}/weeks/{WEEK}/log")
    if status != 200:
        return None
    return next(
        (one for one in week["sessions"] if one["log"] and one["log"]["client_id"] == client), None
    )


class Writers:
    """Hands that write into one log of one athlete, each over what it has just read."""

    def __init__(self, server: Server, athlete: int, hands: int, seed: int) -> None:
        self.server = server
        self.athlete = athlete
        self.client = f"trial-{uuid.uuid4().hex[:12]}"
        self.acknowledged: set[str] = set()
        self.statuses: Counter[int] = Counter()
        self.stop = threading.Event()
        self._lock = threading.Lock()
        self._threads = [
            threading.Thread(target=self._write, args=(random.Random(seed + at),))
            for at in range(hands)
        ]

    def _write(self, chance: random.Random) -> None:
        while not self.stop.is_set():
            found = log_of(self.server, self.athlete, self.client)
            mark = uuid.uuid4().hex
            log = found and found["log"]
            body = {
                "change": mark,
                "revision": log["revision"] if log else 0,
                "session": with_mark(log and log["session"], mark),
            }
            path = f"/api/athletes/{self.athlete}/logs/{self.client}"
            status, _ = self.server.ask("PUT", path, body)
            with self._lock:
                self.statuses[status] += 1
                if status == 200:
                    self.acknowledged.add(mark)
            time.sleep(chance.random() * 0.01)

    def start(self) -> None:
        """Let them write."""
        for thread in self._threads:
            thread.start()

    def end(self) -> None:
        """Let them finish what they are at."""
        self.stop.set()
        for thread in self._threads:
            thread.join()

    def lost(self) -> set[str]:
        """What was acknowledged and is neither in the log nor beside it."""
        found = log_of(self.server, self.athlete, self.client)
        if found is None:
            return set(self.acknowledged)
        kept = {one.get("note") for one in found["log"]["session"]["sets"]}
        for version in found["versions"]:
            kept |= {one.get("note") for one in version["session"]["sets"]}
        return self.acknowledged - kept


def many_hands(folder: Path, hands: int, seconds: float) -> int:
    """Writers on one log beside readers; how many acknowledged changes were lost."""
    with served(folder / f"hands-{hands}.sqlite") as server:
        athletes_of(server, 1)
        writers = Writers(server, 1, hands, seed=hands)
        reads: Counter[int] = Counter()

        def read() -> None:
            while not writers.stop.is_set():
                for path in ("/api/roster", f"/api/athletes/1/weeks/{WEEK}/sheet"):
                    reads[server.ask("GET", path)[0]] += 1

        readers = [threading.Thread(target=read) for _ in range(2)]
        writers.start()
        for reader in readers:
            reader.start()
        time.sleep(seconds)
        writers.end()
        for reader in readers:
            reader.join()
        lost = writers.lost()
        odd = {status for status in {*writers.statuses, *reads} if status not in (200, 409, 503)}
    print(
        f"{hands} hands on one log for {seconds:g} s: {len(writers.acknowledged)} changes "
        f"acknowledged, {len(lost)} lost; answers {dict(writers.statuses)}, "
        f"reads {dict(reads)}"
    )
    return len(lost) + len(odd)


def kills(folder: Path, rounds: int) -> int:
    """Killed in the middle of writes, again and again; what was lost, and damage."""
    server = Server(folder / "kills.sqlite")
    server.start()
    athletes_of(server, 1)
    acknowledged: set[str] = set()
    broken = 0
    writers = Writers(server, 1, 3, seed=0)
    client = writers.client
    chance = random.Random(7)
    for number in range(rounds):
        writers = Writers(server, 1, 3, seed=number * 10)
        writers.client = client
        writers.start()
        time.sleep(0.3 + chance.random())
        server.kill()
        writers.end()
        acknowledged |= writers.acknowledged
        with sqlite3.connect(server.data) as connection:
            broken += connection.execute("PRAGMA integrity_check").fetchone()[0] != "ok"
        connection.close()
        server.start()
        writers.acknowledged = set(acknowledged)
        lost = writers.lost()
        if lost:
            break
    server.kill()
    print(
        f"{rounds} kills -9: {len(acknowledged)} changes acknowledged, {len(lost)} lost, "
        f"{broken} damaged files"
    )
    return len(lost) + broken


def under_load(folder: Path, readers: int, each: int) -> int:
    """Readers beside writers and an import: statuses of 500 and more, and how long it takes."""
    with served(folder / "load.sqlite") as server:
        athletes_of(server, 12)
        took: list[float] = []
        statuses: Counter[int] = Counter()
        imports: Counter[int] = Counter()
        paths = [
            f"/api/athletes/{1 + at % 12}/weeks/{WEEK}/{what}"
            for at in range(24)
            for what in ("sheet", "log")
        ] + ["/api/roster"]
        writers = [Writers(server, 2 + at, 1, seed=at) for at in range(3)]

        def read(seed: int) -> None:
            chance = random.Random(seed)
            for _ in range(each):
                begun = time.perf_counter()
                status, _ = server.ask("GET", chance.choice(paths))
                took.append(time.perf_counter() - begun)
                statuses[status] += 1

        def bring() -> None:
            for number in range(4):
                # The same name, four times at once with others: one is taken, three are told so.
                book = a_book("Everybody", sessions=300 + number)
                imports[server.ask("POST", "/api/import", book)[0]] += 1

        threads = [threading.Thread(target=read, args=(seed,)) for seed in range(readers)]
        threads += [threading.Thread(target=bring) for _ in range(4)]
        for writer in writers:
            writer.start()
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        for writer in writers:
            writer.end()
        lost = sum(len(writer.lost()) for writer in writers)
        memory = server.memory_mb()
    written = sum((writer.statuses for writer in writers), Counter())
    bad = sum(
        count
        for status, count in (statuses + written + imports).items()
        if (status >= 500 and status != 503) or status == 0
    )
    took.sort()
    print(
        f"{readers} readers × {each} beside 3 writers and imports: {dict(statuses)}, writes "
        f"{dict(written)}, imports of one name {dict(imports)}, {lost} lost; "
        f"median {statistics.median(took) * 1000:.0f} ms, "
        f"p99 {took[int(len(took) * 0.99)] * 1000:.0f} ms, {memory:.0f} MB"
    )
    return lost + bad + statuses[503]


def memory_flat(folder: Path, requests: int) -> int:
    """Memory over many requests."""
    with served(folder / "memory.sqlite") as server:
        athletes_of(server, 3)
        seen = []
        for at in range(requests):
            server.ask("GET", f"/api/athletes/{1 + at % 3}/weeks/{WEEK}/sheet")
            if at % (requests // 4) == requests // 4 - 1:
                seen.append(server.memory_mb())
    print(f"{requests} requests: {', '.join(f'{one:.0f}' for one in seen)} MB after each quarter")
    return int(seen[-1] > seen[0] * 1.15)


def starts(folder: Path) -> int:
    """How soon a server answers, new and over a club."""
    server = Server(folder / "starts.sqlite")
    new = server.start()
    athletes_of(server, 12)
    server.kill()
    again = server.start()
    begun = time.perf_counter()
    status, _ = server.ask("GET", "/api/roster")
    roster = time.perf_counter() - begun
    server.kill()
    print(f"start: {new:.1f} s on a new file, {again:.1f} s on a club, its roster {roster:.2f} s")
    return int(status != 200)


FAST_DAYS = """
import sys, time
from datetime import date, timedelta
from pathlib import Path
from dialback.store.database import open_database
from dialback.web.serve import Reach, serve
data, day_s, step = Path(sys.argv[1]), float(sys.argv[2]), int(sys.argv[3])
begun, first = time.monotonic(), date(2026, 11, 1)
def today():
    return first + timedelta(days=step * int((time.monotonic() - begun) / day_s))
open_database(data)
serve(data, Reach(port=0), lambda line: print(line, flush=True), today=today, keep_every_s=0.2)
"""
"""A server whose days last as long as it is told; with a step of -1 they go back."""


def beside(folder: Path, seconds: float, day_s: float, step: int = 1) -> int:
    """Whatever else opens the data file beside eight writers, and midnights with their copies."""
    data = folder / f"beside{step}.sqlite"
    fast = [sys.executable, "-c", FAST_DAYS, str(data), str(day_s), str(step)]
    server = Server(data, *fast)
    server.start()
    athletes_of(server, 1)
    base = [DIALBACK, "--data", data]
    out = folder / f"out{step}"
    out.mkdir()
    copy = out / "copy.sqlite"
    commands: list[tuple[list[Any], set[int]]] = [
        ([*base, "backup", copy], {0}),
        ([*base, "check"], {0}),
        ([*base, "account", "list"], {0}),
        ([*base, "report", "Athlete 0", "--week", WEEK, "--out", out / "week.pdf"], {0}),
        ([*base, "export", "Athlete 0", "--output", out / "a.book.json"], {0}),
        ([*base, "restore", copy], {2}),
        ([*base, "demo", "--fresh", "--yes"], {2}),
    ]
    writers = Writers(server, 1, 8, seed=5)
    ended: Counter[str] = Counter()
    wrong: list[str] = []
    kept_before: list[tuple[Path, set[str]]] = []

    def others(mine: list[tuple[list[Any], set[int]]]) -> None:
        while not writers.stop.is_set():
            for command, expected in mine:
                before = set(writers.acknowledged)
                done = subprocess.run(command, capture_output=True, text=True, check=False)
                ended[command[3]] += 1
                if done.returncode not in expected:
                    wrong.append(f"{command[3]}: {done.returncode} {done.stderr.strip()[:200]}")
                if command[3] == "backup" and done.returncode == 0:
                    target = out / f"copy-{ended['backup']}.sqlite"
                    shutil.copyfile(copy, target)
                    kept_before.append((target, before))

    def second() -> None:
        while not writers.stop.is_set():
            other = Server(data)
            other.start()
            status, _ = other.ask("GET", "/api/roster")
            ended["second serve"] += 1
            if status not in (200, 503):
                wrong.append(f"a second server answered {status}")
            other.kill()

    hands = [
        threading.Thread(target=others, args=(commands[:4],)),
        threading.Thread(target=others, args=(commands[4:],)),
        threading.Thread(target=second),
    ]
    writers.start()
    for hand in hands:
        hand.start()
    time.sleep(seconds)
    writers.end()
    for hand in hands:
        hand.join()
    lost = writers.lost()
    broken = [status for status in writers.statuses if status not in (200, 409, 503)]
    missing = sum(len(before - marks_in(path)) for path, before in kept_before)
    server.kill()
    # Killed between making a copy and clearing the oldest away, it leaves one more than it keeps.
    days = sorted((folder / f"beside{step}-copies").glob("*.sqlite"))
    unwhole = sum(not is_whole(path) for path in [*days, *(path for path, _ in kept_before)])
    print(
        f"{seconds:g} s of 8 writers beside {dict(ended)}: {len(writers.acknowledged)} changes "
        f"acknowledged, {len(lost)} lost; answers {dict(writers.statuses)}; {len(kept_before)} "
        f"backups lack {missing} of what was acknowledged before; {len(days)} daily copies, "
        f"{unwhole} not whole"
    )
    for line in wrong[:5]:
        print(f"  {line}")
    return len(lost) + len(broken) + missing + unwhole + len(wrong) + (len(days) > 15)


def marks_in(data: Path) -> set[str]:
    """The marks of all sets in a data file, those of versions that wait among them."""
    with sqlite3.connect(data) as look:
        texts = [
            text
            for (text,) in look.execute(
                'SELECT extra FROM "set" WHERE extra IS NOT NULL UNION ALL SELECT body FROM version'
            )
        ]
    look.close()
    return set(re.findall(r"[0-9a-f]{32}", " ".join(texts)))


def is_whole(data: Path) -> bool:
    """Whether every page of a data file can be read, and every reference leads somewhere."""
    with sqlite3.connect(data) as look:
        state = look.execute("PRAGMA integrity_check").fetchone()[0]
        astray = look.execute("PRAGMA foreign_key_check").fetchone()
    look.close()
    return state == "ok" and astray is None


def power_cuts(folder: Path, rounds: int) -> int:
    """The file and its log as they are at random instants: each has all that was acknowledged."""
    chance = random.Random(11)
    missing = broken = 0
    with served(folder / "power.sqlite") as server:
        athletes_of(server, 1)
        assert server.process is not None
        writers = Writers(server, 1, 6, seed=3)
        writers.start()
        for number in range(rounds):
            time.sleep(0.05 + chance.random() * 0.3)
            before = set(writers.acknowledged)
            # Nothing moves while both are copied, as nothing moves when the power is gone.
            server.process.send_signal(signal.SIGSTOP)
            cut = folder / f"cut-{number}.sqlite"
            for suffix in ("", "-wal"):
                there = server.data.with_name(server.data.name + suffix)
                if there.exists():
                    shutil.copyfile(there, cut.with_name(cut.name + suffix))
            server.process.send_signal(signal.SIGCONT)
            broken += not is_whole(cut)
            missing += len(before - marks_in(cut))
        writers.end()
        lost = writers.lost()
    print(
        f"{rounds} power cuts: {len(writers.acknowledged)} changes acknowledged, {missing} "
        f"missing in a copy of the moment, {broken} damaged, {len(lost)} lost"
    )
    return missing + broken + len(lost)


def full_disk(folder: Path, seconds: float) -> int:
    """No room to write in the middle of it: what was acknowledged stays, and it is said so."""
    data = folder / "full.sqlite"
    with served(data) as server:
        athletes_of(server, 1)
    # A little more than there is: the log of the data file soon has no room.
    server = Server(data, limit_bytes=data.stat().st_size + 150_000)
    server.start()
    writers = Writers(server, 1, 4, seed=9)
    writers.start()
    time.sleep(seconds)
    writers.end()
    reads = {server.ask("GET", "/api/roster")[0]}
    server.kill()
    with served(data) as server:
        writers.server = server
        lost = writers.lost()
        again = log_of(server, 1, writers.client)
    refused = sum(count for status, count in writers.statuses.items() if status == 507)
    odd = {status for status in writers.statuses if status not in (200, 409, 503, 507)}
    print(
        f"a full disk for {seconds:g} s: {len(writers.acknowledged)} changes acknowledged, "
        f"{len(lost)} lost, {refused} refused in words, reads {reads}, "
        f"other answers {odd or 'none'}; whole: {is_whole(data)}"
    )
    return len(lost) + len(odd) + (again is None) + (not is_whole(data)) + (not refused)


def main() -> None:
    """All of it, or the small part."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--small", action="store_true")
    small = parser.parse_args().small
    os.environ.setdefault("PYTHONUNBUFFERED", "1")
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        wrong = many_hands(folder, 2, 1.5 if small else 15)
        wrong += many_hands(folder, 8, 2 if small else 15)
        wrong += kills(folder, 3 if small else 30)
        wrong += beside(folder, *((3, 0.2) if small else (300, 15)))
        if not small:
            wrong += beside(folder, 20, 1, step=-1)
        wrong += power_cuts(folder, 4 if small else 60)
        wrong += full_disk(folder, 2 if small else 10)
        wrong += under_load(folder, *((8, 15) if small else (32, 200)))
        if not small:
            wrong += memory_flat(folder, 20_000)
            wrong += starts(folder)
    print(f"{wrong} wrong")
    sys.exit(int(wrong > 0))


if __name__ == "__main__":
    main()
