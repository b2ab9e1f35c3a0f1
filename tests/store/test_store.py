"""The data file: migrations, books in and out, links, deletion."""

import json
from datetime import date
from pathlib import Path

import peewee as pw
import pytest
from hypothesis import HealthCheck, given
from peewee_migrate import Router

from dialback.book.audit_document import audit_document
from dialback.book.book import Book, read_book, write_book
from dialback.book.errors import BadInputError
from dialback.core.audit import audit
from dialback.core.plans.draft import DraftSession
from dialback.core.rules import merge
from dialback.library import library
from dialback.store import athletes, models
from dialback.store.athletes import Ledgers, NameTakenError, export_book, import_book
from dialback.store.database import MIGRATIONS, default_path, open_database
from dialback.store.models import Athlete, House, Movement, Session, SetRow
from dialback.store.unit import touch
from tests.build import WEEK, as_bytes, book, session, sets
from tests.conftest import a_book
from tests.core.test_properties import RULES, SETS
from tests.properties import tried

TODAY = date(2026, 10, 12)
CASES = sorted((Path(__file__).parent.parent / "cases").glob("*.book.json"))


def audits(one: Book) -> list[dict]:
    return [
        audit_document(audit(one.ledger(), WEEK, basis), "") for basis in ("planned", "completed")
    ]


def out_and_in(one: Book, **more: object) -> Book:
    athlete = import_book(one, TODAY, **more).athlete
    stored = export_book(Athlete.get_by_id(athlete.id), Ledgers())
    return read_book(write_book(stored))


def test_migrations_make_the_tables_that_the_models_describe(store: Path) -> None:
    made = {
        table: {column.name for column in models.database.get_columns(table)}
        for table in models.database.get_tables()
    }
    for model in models.TABLES:
        wanted = {field.column_name for field in model._meta.sorted_fields}
        assert made[model._meta.table_name] == wanted
        fresh = pw.SqliteDatabase(":memory:")
        with fresh.bind_ctx([model], bind_refs=False, bind_backrefs=False):
            fresh.create_tables([model])
            indexes = {tuple(index.columns) for index in fresh.get_indexes(model._meta.table_name)}
        there = {tuple(one.columns) for one in models.database.get_indexes(model._meta.table_name)}
        assert there == indexes


def test_opening_twice_changes_nothing(data: Path) -> None:
    open_database(data)
    open_database(data)
    with models.database.connection_context():
        assert Movement.select().count() == len(library())
        assert House.select().count() == 1


def test_drafts_of_older_files_come_along(tmp_path: Path) -> None:
    path = tmp_path / "old.sqlite"
    old = pw.SqliteDatabase(str(path))
    with old.connection_context():
        Router(old, migrate_dir=MIGRATIONS).run("007_maxima")
        press, row = ({"exercise": name, "reps": 8, "round": 1} for name in ("Press", "Row"))
        lines = [{"set": press, "count": 3}, {"set": press, "count": 1, "rounds": [[press, row]]}]
        sessions = json.dumps([{"date": "2026-10-12", "title": "", "lines": lines}])
        old.execute_sql(
            "INSERT INTO athlete (name, rules, change, note, extra, revision) "
            "VALUES ('A', '{}', 0, '', '{}', 0)"
        )
        old.execute_sql(
            "INSERT INTO draft (athlete_id, week, revision, sessions, start_total) "
            "VALUES (1, '2026-W42', 1, ?, 4)",
            (sessions,),
        )
    open_database(path)
    with models.database.connection_context():
        draft = models.Draft.get()
        stored = [DraftSession.model_validate(one) for one in draft.sessions]
    assert [(line.kind, len(line.units[0]), line.count) for line in stored[0].lines] == [
        ("sets", 1, 3),
        ("rounds", 2, 1),
    ]


def test_the_file_is_opened_as_it_should_be(store: Path) -> None:
    for pragma, value in (("journal_mode", "wal"), ("foreign_keys", 1), ("busy_timeout", 5000)):
        assert models.database.pragma(pragma) == value


def test_the_default_file_is_outside_the_source_tree() -> None:
    assert Path(__file__).parents[2] not in default_path().parents


def test_what_is_no_data_file_is_told(tmp_path: Path) -> None:
    path = tmp_path / "x.sqlite"
    path.write_bytes(b"this is no database" * 100)
    with pytest.raises(BadInputError, match="is not a data file"):
        open_database(path)
    with pytest.raises(BadInputError, match="cannot be made"):
        open_database(path / "below" / "x.sqlite")


@pytest.mark.parametrize("path", CASES, ids=lambda path: path.name)
def test_a_book_that_goes_in_and_out_audits_the_same(store: Path, path: Path) -> None:
    one = read_book(path.read_bytes())
    assert audits(out_and_in(one)) == audits(one)


@tried(15, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(SETS, SETS, RULES)
def test_any_book_goes_in_and_out(store: Path, before: list, now: list, rules: dict) -> None:
    one = book([session(-7, before), session(0, now)], [session(0, before)], rules=rules)
    assert audits(out_and_in(one, replace=True)) == audits(one)


@tried(25, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(SETS, SETS, SETS, RULES)
def test_columns_sum_as_sets_do(
    store: Path, before: list, now: list, next_day: list, rules: dict
) -> None:
    days = [session(-7, before), session(0, now), session(1, next_day)]
    athlete = import_book(book(days, rules=rules), TODAY, replace=True).athlete
    in_columns, by_sets = (Ledgers().of(athlete) for _ in range(2))
    in_columns.sum_up("completed", WEEK.plus(-4), WEEK.plus(4))
    assert not in_columns._entries
    for week in (WEEK.plus(-1), WEEK, WEEK.plus(1)):
        sums = in_columns._tallies.get(("completed", week), {})
        assert sums == pytest.approx(by_sets.tally("completed", week), abs=1e-6)


def test_summing_ahead_leaves_alone_what_is_summed(store: Path) -> None:
    athlete = import_book(book([session(0, sets("Press", 6, 6))]), TODAY).athlete
    ledger = Ledgers().of(athlete)
    before = ledger.tally("completed", WEEK)
    ledger.sum_up("completed", WEEK, WEEK)
    assert ledger.tally("completed", WEEK) is before


def test_house_rules_do_not_change_what_a_book_brings(store: Path) -> None:
    house = athletes.house()
    house.rules = {"indirect_credit": 1, "muscle_bands": {"chest": [1, 2]}}
    house.save()
    one = book([session(0, sets("Press", 6))], rules={"tension": "moving"})
    assert audits(out_and_in(one)) == audits(one)
    kept = Athlete.get().rules
    assert kept["indirect_credit"] == 0.5
    assert kept["muscle_bands"] == {"chest": [8, 20]}


def test_what_an_athlete_does_not_choose_follows_the_house(store: Path) -> None:
    athlete = import_book(book([session(0, sets("Press", 6))]), TODAY).athlete
    assert athlete.rules == {}
    house = athletes.house()
    house.rules = {"indirect_credit": 1}
    assert athletes.rules_of(athlete, house) == merge({"indirect_credit": 1})


def test_movements_known_otherwise_stay_the_athletes_own(store: Path) -> None:
    press_up = {
        "name": "press-UP",
        "pattern": "horizontal_push",
        "compound": True,
        "muscles": {"triceps": "direct"},
        "bodyweight_share": 0.5,
    }
    lift = {"name": "Stone lift", "pattern": "hinge", "compound": True, "muscles": {}}
    one = read_book(
        as_bytes(
            {
                **a_book(),
                "planned": [],
                "exercises": [press_up, lift],
                "completed": [session(0, sets("Press-up", 3))],
            }
        )
    )
    done = import_book(one, TODAY)
    assert (done.own_movements, done.new_movements) == (("press-UP",), ("Stone lift",))
    ledger = Ledgers().of(done.athlete)
    assert audit(ledger, WEEK).value("muscles/triceps/sets") == 3
    assert "Stone lift" in {movement.name for movement in ledger.movements}
    again = import_book(one, TODAY, name="Another")
    assert (again.own_movements, again.new_movements) == (("press-UP",), ())


def test_an_import_is_all_or_nothing(store: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    calls = iter([athletes.add_sessions])

    def fail_at_second(*args: object) -> object:
        return next(calls)(*args)  # StopIteration at the second call

    monkeypatch.setattr(athletes, "add_sessions", fail_at_second)
    before = Movement.select().count()
    with pytest.raises(StopIteration):
        import_book(read_book(as_bytes(a_book())), TODAY)
    for table in (Athlete, Session, SetRow):
        assert table.select().count() == 0
    assert Movement.select().count() == before


def test_a_name_is_taken_once(store: Path) -> None:
    one = read_book(as_bytes(a_book()))
    import_book(one, TODAY)
    with pytest.raises(NameTakenError, match="'Ada Test'"):
        import_book(one, TODAY, name="ADA test")
    assert Athlete.select().count() == 1
    done = import_book(one, TODAY, replace=True)
    assert done.replaced
    assert [one.id for one in athletes.athletes()] == [done.athlete.id]
    assert Athlete.select().count() == 2


def test_completed_sessions_are_linked_to_the_plan_of_their_day(store: Path) -> None:
    import_book(read_book(as_bytes(a_book())), TODAY)
    for row in Session.select().where(Session.basis == "completed"):
        assert row.plan.date == row.date


def test_ledgers_follow_changes(store: Path) -> None:
    athlete = import_book(read_book(as_bytes(a_book())), TODAY).athlete
    ledgers = Ledgers()
    first = ledgers.of(athlete)
    assert ledgers.of(athlete) is first
    touch(athlete)
    assert ledgers.of(athlete) is not first
    house = athletes.house()
    second = ledgers.of(athlete, house)
    house.change += 1
    assert ledgers.of(athlete, house) is not second


def test_a_ledger_speaks_the_unit_of_the_house_whoever_asks_first(store: Path) -> None:
    heavy = [session(-7, sets("Press", load_kg=40)), session(0, sets("Press", load_kg=60))]
    athlete = import_book(book(heavy), TODAY).athlete
    House.update(unit="lb", change=House.change + 1).execute()
    ledger = Ledgers().of(athlete)
    (step,) = [one for one in audit(ledger, WEEK).findings if one.code == "load_step"]
    assert "132.28 lb after 88.18 lb" in step.sentence
    assert "kg" not in step.sentence + step.clears


def test_what_a_set_has_without_a_column_comes_out_again_and_counts_the_same(store: Path) -> None:
    combined = {
        "moves": [
            {"exercise": "Press", "sides": "left"},
            {"exercise": "Row", "load_kg": 12, "implements": 2},
        ],
        "reps": 5,
        "load_kg": 20,
    }
    kept = [
        {"exercise": "Squat", "loads": [{"reps": 6, "load_kg": 60}, {"reps": 4, "load_kg": 50}]},
        {"exercise": "Row", "seconds": 30, "load_kg": 20, "static": True, "seconds_to": 45},
        {
            "exercise": "Press",
            "reps": 8,
            "load_kg": 30,
            "range": "half",
            "rest_to_s": 90,
            "held": 2,
        },
        combined,
        {"exercise": "Press", "reps": 8, "load_kg": 30},
    ]
    blocks = [{"week": "2026-W41", "out_of_focus": ["chest"], "main": ["Squat"]}]
    known = book([session(0, kept)], rules={"partial_rep_credit": 0.5}, blocks=blocks)
    athlete = import_book(known, TODAY).athlete
    out = export_book(athlete, Ledgers())
    assert out.completed[0].sets == known.completed[0].sets
    assert out.blocks == known.blocks
    # Added up where it lies, and measured set by set: the same.
    by_columns = Ledgers().of(athlete)
    by_columns.sum_up("completed", WEEK, WEEK)
    assert by_columns.tally("completed", WEEK) == pytest.approx(
        known.ledger().tally("completed", WEEK)
    )
