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

    def __init__(self, data: Path) -> None:
        self.data = data
        self.process: subprocess.Popen[str] | None = None
        self.port = 0

    def start(self) -> float:
        """Start it; seconds until it says where it is."""
        begun = time.perf_counter()
        command = [DIALBACK, "--data", self.data, "serve", "--port", "0"]
        self.process = subprocess.Popen(
            command, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True
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
        "format": "dialback-book", "version": 1,
        "athlete": {"name": name, "bodyweight_kg": 70},
        "exercises": [{"name": "Press", "pattern": "vertical_push",
                       "muscles": {"side_delts": "direct"}}],
        "completed": [{"date": f"2026-{1 + at // 28:02d}-{1 + at % 28:02d}",
                       "sets": [{"exercise": "Press", "reps": 5, "load_kg": 20}] * 5}
                      for at in range(sessions)],
    }  # fmt: skip


def athletes_of(server: Server, count: int) -> None:
    """Bring athletes in."""
    for number in range(count):
        status, told = server.ask("POST", "/api/import", a_book(f"Athlete {number}"))
        assert status == 201, told


def with_mark(session: dict[str, Any] | None, mark: str) -> dict[str, Any]:
    """A log with one more set that carries a mark."""
    sets = [] if session is None else session["sets"]
    return {"date": DAY, "title": "", "sets": [
        *({"exercise": one["exercise"], "reps": one["reps"], "note": one["note"]}
          for one in sets if "note" in one),
        {"exercise": "Press", "reps": 5, "note": mark}]}  # fmt: skip


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
            body = {"change": mark, "revision": log["revision"] if log else 0,
                    "session": with_mark(log and log["session"], mark)}  # fmt: skip
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
    print(f"{hands} hands on one log for {seconds:g} s: {len(writers.acknowledged)} changes "
          f"acknowledged, {len(lost)} lost; answers {dict(writers.statuses)}, "
          f"reads {dict(reads)}")  # fmt: skip
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
    print(f"{rounds} kills -9: {len(acknowledged)} changes acknowledged, {len(lost)} lost, "
          f"{broken} damaged files")  # fmt: skip
    return len(lost) + broken


def under_load(folder: Path, readers: int, each: int) -> int:
    """Readers beside writers and an import: statuses of 500 and more, and how long it takes."""
    with served(folder / "load.sqlite") as server:
        athletes_of(server, 12)
        took: list[float] = []
        statuses: Counter[int] = Counter()
        imports: Counter[int] = Counter()
        paths = [f"/api/athletes/{1 + at % 12}/weeks/{WEEK}/{what}"
                 for at in range(24) for what in ("sheet", "log")] + ["/api/roster"]  # fmt: skip
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
    bad = sum(count for status, count in (statuses + written + imports).items()
              if (status >= 500 and status != 503) or status == 0)  # fmt: skip
    took.sort()
    print(f"{readers} readers × {each} beside 3 writers and imports: {dict(statuses)}, writes "
          f"{dict(written)}, imports of one name {dict(imports)}, {lost} lost; "
          f"median {statistics.median(took) * 1000:.0f} ms, "
          f"p99 {took[int(len(took) * 0.99)] * 1000:.0f} ms, {memory:.0f} MB")  # fmt: skip
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
        wrong += under_load(folder, *((8, 15) if small else (32, 200)))
        if not small:
            wrong += memory_flat(folder, 20_000)
            wrong += starts(folder)
    print(f"{wrong} wrong")
    sys.exit(int(wrong > 0))


if __name__ == "__main__":
    main()
