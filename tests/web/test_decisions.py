"""Decisions that outlive their week, and kinds of weeks, over the API and with the book."""

from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from dialback.book.book import read_book
from dialback.core.audit import audit
from dialback.core.decisions import Decision
from dialback.core.verdict import news
from dialback.core.vocabulary import MUSCLES
from tests.build import MONDAY, WEEK, as_bytes, book, document, session, sets
from tests.core.test_news import EVEN, LEANS, LEANS_MORE, after, told
from tests.web.test_api import get, send

Bring = Callable[..., Any]
KEY = ["balance", "horizontal_push_pull", "sets"]
NAMED = dict(zip(("code", "subject", "measure"), KEY, strict=True))
RULES = {"muscle_bands": {muscle: [0, 100] for muscle in MUSCLES}}


def decided(**more: Any) -> dict[str, Any]:
    code, subject, measure = KEY
    return {"code": code, "subject": subject, "measure": measure, "level": "caution"} | more


def of_athlete(*decisions: dict[str, Any]) -> dict[str, Any]:
    return {"athlete": {"name": "Ada Test", "bodyweight_kg": 70, "decisions": list(decisions)}}


class TestInTheVerdict:
    def test_what_is_intended_is_not_told_until_it_ends(self) -> None:
        weeks = (EVEN, LEANS, LEANS, LEANS, LEANS)
        since = str(WEEK.plus(-3).monday)
        assert told(after(*weeks))
        for until, silent in (
            (None, True),
            (str(MONDAY), True),
            (str(WEEK.plus(-1).sunday), False),
        ):
            made = of_athlete(decided(since=since, value=2.0, until=until))
            assert (told(after(*weeks, of_book=made)) == []) == silent

    def test_it_is_told_again_when_it_grows(self) -> None:
        made = of_athlete(decided(since=str(WEEK.plus(-3).monday), value=2.0))
        assert told(after(EVEN, LEANS, LEANS, LEANS, of_book=made)) == []
        (line,) = told(after(EVEN, LEANS, LEANS, LEANS_MORE, of_book=made))
        assert line.kind == "worse"

    def test_what_was_taken_back_holds_no_more(self) -> None:
        weeks = (EVEN, LEANS, LEANS, LEANS, LEANS)
        made = decided(since=str(WEEK.plus(-3).monday), value=2.0, ended_on=str(MONDAY))
        assert told(after(*weeks, of_book=of_athlete(made)))

    @pytest.mark.parametrize(
        ("now", "kind", "says"), [(EVEN, "eased", "it is."), (LEANS, "standing", "still there.")]
    )
    def test_what_was_to_be_gone_is_looked_at_on_its_day(
        self, now: list, kind: str, says: str
    ) -> None:
        made = decided(
            since=str(WEEK.plus(-3).monday), value=2.0, kind="watched", until=str(WEEK.sunday)
        )
        (line,) = told(after(EVEN, LEANS, LEANS, LEANS, now, of_book=of_athlete(made)))
        assert line.kind == kind
        assert line.sentence.startswith("Imbalance (horizontal push : horizontal pull) was to be")
        assert line.sentence.endswith(says)

    def test_a_signal_that_was_to_be_gone_is_looked_at_too(self) -> None:
        made = {
            "code": "no_lighter", "subject": "total", "measure": "sets", "kind": "watched",
            "since": str(WEEK.plus(-4).monday), "until": str(WEEK.sunday),
        }  # fmt: skip
        (line,) = [
            one
            for one in news(after(*[EVEN] * 12, of_book=of_athlete(made)))
            if one.explains[0][0] == "no_lighter"
        ]
        assert line.kind == "standing"
        assert line.sentence.endswith("it is still there.")

    def test_a_signal_can_be_decided_about(self) -> None:
        twelve = [EVEN] * 9
        assert [one for one in news(after(*twelve)) if one.explains[0][0] == "no_lighter"]
        made = {"code": "no_lighter", "subject": "total", "measure": "sets", "since": str(MONDAY)}
        lines = news(after(*twelve, of_book=of_athlete(made)))
        assert not [one for one in lines if one.explains[0][0] == "no_lighter"]


def newest(client: FlaskClient) -> str:
    """The address of whoever was brought last."""
    return f"/api/athletes/{max(one['id'] for one in get(client, '/api/roster')['athletes'])}"


def leaning(*, blocks: bool = True) -> dict[str, Any]:
    done = [session(7 * back + 2, *(LEANS if back > -4 else EVEN)) for back in range(-5, 1)]
    more = {"blocks": [{"week": str(WEEK.plus(-1)), "weeks": 3, "title": "B"}]} if blocks else {}
    return document(done, rules=RULES, **more)


class TestOverTheApi:
    def test_until_the_blocks_end_then_taken_back_and_reinstated(
        self, client: FlaskClient, bring: Bring
    ) -> None:
        bring(leaning(), "?name=Other")
        base = newest(client)
        body = {"basis": "completed", "keys": [NAMED], "lasts": "block", "reason": "as planned"}
        send(client, "post", f"{base}/weeks/{WEEK}/decisions", body, 201)
        # Said again, for the answer was lost: it stands once.
        send(client, "post", f"{base}/weeks/{WEEK}/decisions", body, 201)
        (one,) = get(client, f"{base}/decisions")["decisions"]
        until = WEEK.plus(1).sunday
        assert one["decision"]["until"] == str(until)
        assert one["words"].endswith(f"intended until {until:%a} {until.day} {until:%b}")
        sheet = get(client, f"{base}/weeks/{WEEK}/sheet")
        mine = next(f for f in sheet["findings"] if [f["code"], f["subject"], f["measure"]] == KEY)
        assert (mine["accepted"], mine["reason"]) == (True, "as planned")
        # It was made in this week: the one before has it open.
        before = get(client, f"{base}/weeks/{WEEK.plus(-1)}/sheet")["findings"]
        assert not any(f["accepted"] for f in before)
        send(client, "post", f"{base}/decisions/{one['id']}/end", {})
        (ended,) = get(client, f"{base}/decisions")["decisions"]
        assert ended["decision"]["ended_on"] is not None
        assert not ended["holds"]
        send(client, "post", f"{base}/decisions/{one['id']}/end", {}, 409)
        entry = next(
            one
            for one in get(client, "/api/journal")["entries"]
            if one["says"].startswith("Withdrew a decision")
        )
        send(client, "post", f"/api/journal/{entry['id']}/undo", {})
        assert get(client, f"{base}/decisions")["decisions"][0]["decision"]["ended_on"] is None

    def test_what_is_watched_stays_open_and_is_worked_on(
        self, client: FlaskClient, bring: Bring
    ) -> None:
        bring(leaning(), "?name=Watched")
        base = newest(client)
        body = {"basis": "completed", "keys": [NAMED], "lasts": "watch", "reason": "more rows"}
        send(client, "post", f"{base}/weeks/{WEEK}/decisions", body, 201)
        (one,) = get(client, f"{base}/decisions")["decisions"]
        assert one["words"].startswith(
            "Imbalance (horizontal push : horizontal pull): to be gone by"
        )
        sheet = get(client, f"{base}/weeks/{WEEK}/sheet")
        assert not any(found["accepted"] for found in sheet["findings"])
        # It is not told again until its day.
        assert not any(NAMED in line["keys"] for line in sheet["news"])

    def test_what_happens_once_is_accepted_for_its_week(
        self, client: FlaskClient, bring: Bring
    ) -> None:
        done = [session(7 * back, sets("Press", 4, 8, load_kg=50)) for back in (-2, -1)]
        done.append(session(0, sets("Press", 4, 8, load_kg=80)))
        bring(document(done), "?name=Heavy")
        base = newest(client)
        key = {"code": "load_step", "subject": "Press", "measure": "load_kg"}
        body = {
            "basis": "completed",
            "keys": [key],
            "lasts": "good",
            "reason": "a test",
        }
        send(client, "post", f"{base}/weeks/{WEEK}/decisions", body, 201)
        assert get(client, f"{base}/decisions")["decisions"] == []
        found = get(client, f"{base}/weeks/{WEEK}/sheet")["findings"]
        assert next(one for one in found if one["code"] == "load_step")["accepted"]

    def test_what_is_not_there_and_a_block_that_is_not_are_refused(
        self, client: FlaskClient, bring: Bring
    ) -> None:
        bring(leaning(blocks=False), "?name=Free")
        base = newest(client)
        path = f"{base}/weeks/{WEEK}/decisions"
        body = {"basis": "completed", "keys": [NAMED], "lasts": "block", "reason": "as planned"}
        told = send(client, "post", path, body, 422)
        assert told["detail"].startswith("The end: no block is planned")
        other = {**body, "lasts": "good", "keys": [{**NAMED, "subject": "nothing"}]}
        send(client, "post", path, other, 404)
        assert get(client, f"{base}/decisions")["decisions"] == []

    def test_a_step_that_is_declined_is_not_proposed_again(
        self, client: FlaskClient, bring: Bring
    ) -> None:
        bring(leaning(), "?name=Declining")
        base = newest(client)
        week = f"{base}/weeks/{WEEK.plus(1)}"
        asked = {"sessions": get(client, f"{week}/draft")["sessions"], "ladder": False}

        def proposed() -> set[tuple[str, str]]:
            steps = send(client, "post", f"{week}/draft/proposal", asked)["steps"]
            return {
                (one["movement"], "more" if one["count_to"] > one["count_from"] else "fewer")
                for one in steps
            }

        steps = proposed()
        assert steps
        body = {"steps": [{"movement": name, "direction": way} for name, way in sorted(steps)]}
        made = send(client, "post", f"{week}/draft/decline", body, 201)["decisions"]
        assert len(made) == len(steps)
        # Said again, for the answer was lost: it stands once.
        assert send(client, "post", f"{week}/draft/decline", body, 201)["decisions"] == []
        assert not proposed() & steps
        listed = get(client, f"{base}/decisions")["decisions"]
        until = WEEK.plus(1).sunday
        assert {one["words"] for one in listed} == {
            f"{way.capitalize()} sets of {name}: not proposed again until "
            f"{until:%a} {until.day} {until:%b}"
            for name, way in steps
        }
        exported = read_book(client.get(f"{base}/book").data)
        assert {one.kind for one in exported.athlete.decisions} == {"declined"}
        for number in made:
            send(client, "post", f"{base}/decisions/{number}/end", {})
        assert proposed() == steps
        body["steps"][0]["direction"] = "sideways"
        send(client, "post", f"{week}/draft/decline", body, 422)

    def test_a_week_is_marked_and_an_ordinary_one_again(
        self, client: FlaskClient, bring: Bring
    ) -> None:
        bring(leaning(), "?name=Marked")
        base = newest(client)
        week = f"{base}/weeks/{WEEK}"
        send(client, "put", f"{week}/kind", {"kind": "test"})
        assert get(client, week)["kind"] == "test"
        assert get(client, f"{week}/sheet")["news"] == []
        exported = read_book(client.get(f"{base}/book").data)
        assert [(one.week, one.kind) for one in exported.kinds] == [(str(WEEK), "test")]
        send(client, "put", f"{week}/kind", {"kind": None})
        assert get(client, week)["kind"] is None
        entry = get(client, "/api/journal")["entries"][0]
        send(client, "post", f"/api/journal/{entry['id']}/undo", {})
        assert get(client, week)["kind"] == "test"
        send(client, "put", f"{week}/kind", {"kind": "holiday"}, 422)


def test_decisions_travel_with_the_book() -> None:
    one = decided(
        since="2026-09-07", until="2026-12-20", value=2.0, reason="rowing season", mood="?"
    )
    made = book([], athlete={"name": "Ada Test", "bodyweight_kg": 70, "decisions": [one]})
    (kept,) = made.athlete.decisions
    assert isinstance(kept, Decision)
    assert kept.model_extra == {"mood": "?"}
    again = read_book(as_bytes(made.model_dump(mode="json")))
    assert again.athlete.decisions == made.athlete.decisions
    assert audit(made.ledger(), WEEK).ledger.decisions == (kept,)
