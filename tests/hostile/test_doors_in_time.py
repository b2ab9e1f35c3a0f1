"""Doors as a state machine: accounts, links, devices, passwords and restarts at random, against a
model of who may read what. Whatever the model forbids, nobody gets."""

from __future__ import annotations

import tempfile
from datetime import date, timedelta
from pathlib import Path
from typing import Any

from flask.testing import FlaskClient
from hypothesis import HealthCheck
from hypothesis import strategies as st
from hypothesis.stateful import (
    Bundle,
    RuleBasedStateMachine,
    consumes,
    initialize,
    invariant,
    precondition,
    rule,
)

from dialback.core.roles import ROLES, rights_of
from dialback.store.database import open_database
from dialback.store.models import database
from dialback.web.app import create_app
from tests.build import document, session, sets
from tests.properties import A_FEW, AT_LENGTH, tried

PASSWORDS = ("three quiet rivers", "five loud geese", "nine slow snails")
STAFF = [role for role in ROLES if role != "athlete"]
WEEK = "2026-W41"


class Doors(RuleBasedStateMachine):
    """The house, and beside it what each device should be."""

    accounts = Bundle("accounts")
    devices = Bundle("devices")
    links = Bundle("links")

    def __init__(self) -> None:
        super().__init__()
        self.folder = tempfile.TemporaryDirectory()
        self.data = Path(self.folder.name) / "house.sqlite"
        self.today = date(2026, 10, 12)
        self.app = self.served()
        self.names = 0
        self.known: dict[str, dict[str, Any]] = {}
        """Accounts that stand, by name: number, role, password, athlete."""
        self.doors: dict[str, int] = {}
        """Links that open, with the number of their athlete."""
        self.inside: dict[int, tuple[str, date]] = {}
        """Who each device is signed in as, by its place, and when it was last seen."""
        self.all: list[FlaskClient] = []

    def served(self) -> Any:
        return create_app(self.data, today=lambda: self.today)

    def teardown(self) -> None:
        database.close()
        self.folder.cleanup()

    def new_device(self) -> int:
        self.all.append(self.app.test_client())
        return len(self.all) - 1

    def owner(self) -> FlaskClient:
        """A device of an owner, signed in anew: whoever runs the house."""
        name = next(name for name, one in self.known.items() if one["role"] == "owner")
        device = self.new_device()
        assert self.enter(device, name, self.known[name]["password"]) == 200
        return self.all[device]

    def enter(self, device: int, name: str, password: str) -> int:
        body = {"name": name, "password": password}
        status = self.all[device].post("/api/sign-in", json=body).status_code
        if status == 200:
            self.inside[device] = (name, self.today)
        return int(status)

    def end(self, name: str, *, but: int | None = None) -> None:
        for device, (who, _) in list(self.inside.items()):
            if who == name and device != but:
                del self.inside[device]

    @initialize(target=accounts)
    def the_first_owner(self) -> str:
        desk = self.all[self.new_device()]
        for name in ("Ada", "Bo"):
            book = document([session(0, sets("Press"))], athlete={"name": name})
            assert desk.post("/api/import", json=book).status_code == 201
        made = {"name": "Owner", "role": "owner", "password": PASSWORDS[0]}
        assert desk.post("/api/accounts", json=made).status_code == 201
        self.known["Owner"] = {"number": 1, "role": "owner", "password": PASSWORDS[0]}
        self.inside[0] = ("Owner", self.today)
        return "Owner"

    @rule(target=accounts, role=st.sampled_from(STAFF), password=st.sampled_from(PASSWORDS))
    def somebody_comes(self, role: str, password: str) -> str:
        self.names += 1
        name = f"Person {'abcdefghijkmnpqrstuvwxyz'[self.names % 24] * (1 + self.names // 24)}"
        made = {"name": name, "role": role, "password": password}
        answer = self.owner().post("/api/accounts", json=made)
        assert answer.status_code == 201, answer.get_data(as_text=True)
        numbers = [one["number"] for one in self.known.values()]
        number = answer.get_json()["id"]
        assert number not in numbers
        self.known[name] = {"number": number, "role": role, "password": password}
        return name

    @rule(name=consumes(accounts))
    def somebody_goes(self, name: str) -> None:
        if name not in self.known:
            return
        owners = [one for one, known in self.known.items() if known["role"] == "owner"]
        status = self.owner().post(f"/api/accounts/{self.known[name]['number']}/remove", json={})
        if owners == [name]:
            assert status.status_code == 409
            return
        assert status.status_code == 200
        del self.known[name]
        self.end(name)

    @rule(target=devices, name=accounts, password=st.sampled_from(PASSWORDS))
    def a_device_signs_in(self, name: str, password: str) -> int:
        device = self.new_device()
        known = self.known.get(name)
        # Tries are another test's: the clock of the limits goes on.
        self.app.extensions["dialback"].tries._storage.reset()
        right = known is not None and known["password"] == password
        assert self.enter(device, name, password) == (200 if right else 401)
        return device

    @rule(device=devices)
    def a_device_signs_out(self, device: int) -> None:
        self.all[device].post("/api/sign-out", json={})
        self.inside.pop(device, None)

    @rule(name=accounts, password=st.sampled_from(PASSWORDS))
    def a_new_password(self, name: str, password: str) -> None:
        if name not in self.known:
            return
        owner = self.owner()
        mine = self.all.index(owner)
        number = self.known[name]["number"]
        body = {"password": password}
        assert owner.post(f"/api/accounts/{number}/password", json=body).status_code == 200
        self.known[name]["password"] = password
        self.end(name, but=mine)

    @rule(name=accounts, role=st.sampled_from(STAFF))
    def another_role(self, name: str, role: str) -> None:
        if name not in self.known:
            return
        owners = [one for one, known in self.known.items() if known["role"] == "owner"]
        number = self.known[name]["number"]
        status = self.owner().put(f"/api/accounts/{number}", json={"role": role}).status_code
        if owners == [name] and role != "owner":
            assert status == 409
            return
        assert status == 200
        self.known[name]["role"] = role
        self.end(name)

    @rule(target=links, athlete=st.sampled_from((1, 2)))
    def a_link_is_made(self, athlete: int) -> str:
        answer = self.owner().post(f"/api/athletes/{athlete}/door", json={})
        token = answer.get_json()["link"].partition("#")[2]
        assert token not in self.doors
        self.withdrawn(athlete)
        self.doors[token] = athlete
        return str(token)

    def withdrawn(self, athlete: int) -> None:
        self.doors = {one: who for one, who in self.doors.items() if who != athlete}
        self.end(f"athlete {athlete}")

    @rule(athlete=st.sampled_from((1, 2)))
    def a_link_is_withdrawn(self, athlete: int) -> None:
        there = athlete in self.doors.values()
        status = self.owner().post(f"/api/athletes/{athlete}/door/withdraw", json={}).status_code
        assert status == (200 if there else 404)
        self.withdrawn(athlete)

    @rule(target=devices, token=links)
    def a_phone_comes_by_a_link(self, token: str) -> int:
        device = self.new_device()
        status = self.all[device].post("/api/door", json={"token": token}).status_code
        self.app.extensions["dialback"].tries._storage.reset()
        assert status == (200 if token in self.doors else 401)
        if token in self.doors:
            self.inside[device] = (f"athlete {self.doors[token]}", self.today)
        return device

    @rule(days=st.sampled_from((1, 20, 31)))
    def days_pass(self, days: int) -> None:
        self.today += timedelta(days=days)
        for device, (_, seen) in list(self.inside.items()):
            if seen + timedelta(days=30) < self.today:
                del self.inside[device]

    @precondition(lambda self: self.known)
    @rule()
    def the_server_starts_anew(self) -> None:
        database.close()
        open_database(self.data)
        before, self.app = self.all, self.served()
        self.all = []
        for old in before:
            device = self.app.test_client()
            for name in ("dialback", "dialback-known"):
                cookie = old.get_cookie(name)
                if cookie is not None:
                    device.set_cookie(name, cookie.value)
            self.all.append(device)

    @invariant()
    def nobody_reads_or_writes_what_the_model_forbids(self) -> None:
        if not self.known:
            return
        # The last devices, and some of long ago.
        for device in {*range(max(0, len(self.all) - 4), len(self.all)), 0, len(self.all) // 2}:
            if device >= len(self.all):
                continue
            who = self.inside.get(device)
            browser = self.all[device]
            found = browser.get("/api/me").get_json()
            if who is None:
                assert found["state"] == "out", (device, found)
                assert browser.get("/api/roster").status_code == 401
                body = {"name": "Intruder", "role": "owner", "password": PASSWORDS[1]}
                assert browser.post("/api/accounts", json=body).status_code == 401
                continue
            name = who[0]
            self.inside[device] = (name, self.today)
            if name.startswith("athlete "):
                mine = int(name.split()[1])
                assert found["athlete"] == mine
                for athlete in (1, 2):
                    status = browser.get(f"/api/athletes/{athlete}/weeks/{WEEK}/log").status_code
                    assert status == (200 if athlete == mine else 403)
                assert browser.get("/api/athletes/1/restrictions").status_code == 403
                continue
            role = self.known[name]["role"]
            assert (found["name"], found["role"]) == (name, role)
            rights = rights_of(role)
            assert browser.get("/api/roster").status_code == (200 if "read" in rights else 403)
            may_run = "run the house" in rights
            gone = browser.put("/api/accounts/999999", json={"role": "viewer"}).status_code
            assert gone == (404 if may_run else 403)


def test_doors_in_time() -> None:
    from hypothesis.stateful import run_state_machine_as_test

    run_state_machine_as_test(
        Doors,
        settings=tried(
            AT_LENGTH or A_FEW, stateful_step_count=20, suppress_health_check=list(HealthCheck)
        ),
    )
