"""Tempo, weeks, movements, rules, words: the small values."""

from datetime import date

import pytest
from pydantic import ValidationError

from dialback.core.movements import Movement, MovementTable, UnknownMovementError
from dialback.core.rules import DEFAULT_RULES, JUMP_LIMITS, PRESETS, RULES, Rules, merge
from dialback.core.sessions import Set
from dialback.core.tempo import parse_tempo, tempo_words
from dialback.core.vocabulary import CLASSES, MUSCLES, PAIRS, PATTERNS
from dialback.core.weeks import Week
from dialback.core.words import amount_text, describe, explain, number, percent, target_text
from tests.build import audited, session, sets


@pytest.mark.parametrize(
    ("text", "phases"),
    [
        ("3-1-2-0", (3, 1, 2, 0)),
        ("3-1-2", (3, 1, 2, 0)),
        ("312", (3, 1, 2, 0)),
        ("30X1", (3, 0, 1, 1)),
        ("30x1", (3, 0, 1, 1)),
        ("10-0-X", (10, 0, 1, 0)),
        ("2.5-0-1-0", (2.5, 0, 1, 0)),
        ("5-0-0-0", (5, 0, 0, 0)),
    ],
)
def test_tempo(text: str, phases: tuple[float, ...]) -> None:
    assert parse_tempo(text) == phases


@pytest.mark.parametrize(
    "text", ["", "4-0", "40", "30101", "3-0-1-0-1", "-3-0-1", "3--1-0", "abc", "0-0-0-0", "3 0 1 0"]
)
def test_no_tempo(text: str) -> None:
    with pytest.raises(ValueError, match=r"is not a tempo.*3-1-2-0"):
        parse_tempo(text)


@pytest.mark.parametrize(
    ("tempo", "words"),
    [
        ("3-1-2", "lower in 3 s, hold 1 s at the bottom, lift in 2 s"),
        ("30X1", "lower in 3 s, lift as fast as you can, hold 1 s at the top"),
    ],
)
def test_a_tempo_in_words(tempo: str, words: str) -> None:
    assert tempo_words(tempo) == words
    assert "no pause" in tempo_words(tempo, every=True)


def test_what_a_set_asks_for_beside_dose_and_load() -> None:
    (asked,) = sets("Press", 1, rpe=8, rpe_to=9, tempo="3-1-2", range="half")
    read = Set.model_validate(asked)
    assert target_text(read) == (
        "RPE 8–9, half range, lower in 3 s, hold 1 s at the bottom, lift in 2 s"
    )
    assert target_text(read.model_copy(update={"rpe": 10, "rpe_to": None, "tempo": None})) == (
        "to failure, half range"
    )
    assert target_text(Set.model_validate(sets("Press", 1)[0])) == ""


def test_weeks() -> None:
    assert str(Week.of(date(2026, 10, 11))) == "2026-W41"
    assert Week.parse("2026-W41").plus(1).monday == date(2026, 10, 12)
    assert str(Week.of(date(2027, 1, 3))) == "2026-W53"
    assert str(Week.parse("2026-W53").plus(1)) == "2027-W01"
    for wrong in ("2026-41", "2026-W54", "2027-W53", "2026-W00", "W41", "2026-W1"):
        with pytest.raises(ValueError, match="is not a week"):
            Week.parse(wrong)


@pytest.mark.parametrize(
    ("today", "week"),
    [
        ("2026-11-22", "2026-W47"),
        ("2026-11-23", "2026-W47"),
        ("2026-11-28", "2026-W47"),
        ("2026-11-29", "2026-W48"),
    ],
)
def test_the_week_to_audit_is_the_last_that_is_over(today: str, week: str) -> None:
    assert str(Week.to_audit(date.fromisoformat(today))) == week


def test_movements_are_found_letter_case_and_spaces_apart() -> None:
    table = MovementTable([Movement(name="One-arm  row", pattern="horizontal_pull")])
    assert table["ONE-ARM row "].name == "One-arm row"
    with pytest.raises(UnknownMovementError, match="did you mean 'One-arm row'"):
        table["one-arm rwo"]


def test_every_pattern_has_a_place() -> None:
    of_class = frozenset().union(*CLASSES.values())
    assert of_class <= set(PATTERNS)
    for pair in PAIRS:
        known = set(PATTERNS) if pair.of == "pattern" else set(MUSCLES)
        assert pair.a | pair.b <= known
        assert not pair.a & pair.b


class TestRules:
    def test_the_table_describes_every_rule_and_nothing_else(self) -> None:
        assert {entry.name for entry in RULES} == set(Rules.model_fields)
        for entry in RULES:
            default = getattr(DEFAULT_RULES, entry.name)
            if entry.choices:
                # The default stands first among the choices.
                assert entry.choices[0][0] == default
                for value, _ in entry.choices:
                    merge({entry.name: value})
            assert entry.argument
            assert entry.changes
            assert entry.source

    def test_tables_are_merged_key_by_key_and_others_replaced(self) -> None:
        rules = merge(
            {"muscle_bands": {"chest": [1, 3]}, "load_step": [0.1, 0.2]},
            {"muscle_bands": {"lats": [2, 4]}},
        )
        assert rules.muscle_bands["chest"] == (1, 3)
        assert rules.muscle_bands["lats"] == (2, 4)
        assert rules.muscle_bands["quads"] == (8, 20)
        assert rules.load_step == (0.1, 0.2)

    def test_changes_are_sparse_and_give_the_rules_back(self) -> None:
        chosen = {"hard_set_rpe": None, "balance_bands": {"knee_hip": [0.5, 2]}}
        rules = merge(chosen)
        assert rules.changes() == {"hard_set_rpe": None, "balance_bands": {"knee_hip": [0.5, 2.0]}}
        assert merge(rules.changes()) == rules
        assert DEFAULT_RULES.changes() == {}
        assert DEFAULT_RULES.changes(since=rules)["hard_set_rpe"] == 6

    @pytest.mark.parametrize(
        "wrong",
        [
            {"indirect_credit": 2},
            {"baseline": "median"},
            {"muscle_bands": {"chest": [9, 3]}},
            {"muscle_bands": {"cheast": [1, 3]}},
            {"ewma_alpha": 0},
            {"load_step": [0.2]},
            {"count_warm_ups": "yes"},
            {"jump_limits": {"sets": [-0.1, 0.2]}},
        ],
    )
    def test_what_is_no_rule_is_refused(self, wrong: dict) -> None:
        with pytest.raises(ValidationError):
            merge(wrong)

    def test_unknown_names_are_kept_and_told(self) -> None:
        rules = merge({"moon": 1, "balance_bands": {"left_up": [0, 1]}})
        assert rules.unknown() == ["moon", "balance_bands.left_up"]
        assert rules.changes()["moon"] == 1

    def test_presets_are_rules(self) -> None:
        for choices in PRESETS.values():
            merge(choices)
        assert set(JUMP_LIMITS) == set(DEFAULT_RULES.jump_limits)


class TestWords:
    def test_numbers(self) -> None:
        assert [number(1240.0), number(12.5), number(0.004), number(1234567.891, 1)] == [
            "1\u202f240",
            "12.5",
            "0",
            "1\u202f234\u202f567.9",
        ]
        assert [percent(0.167), percent(-0.05), percent(0.2)] == ["+16.7 %", "−5 %", "+20 %"]
        assert amount_text(1, "sets") == "1 set"
        with pytest.raises(ValueError, match="no unit"):
            amount_text(1, "miles")

    def test_a_set_as_it_is_read(self) -> None:
        one = Set.model_validate(
            {
                "exercise": "Row",
                "reps": 9,
                "sides": "each",
                "load_kg": 14,
                "implements": 2,
                "tempo": "2-1-1-1",
                "rpe": 8,
            }
        )
        assert describe(one) == "9 reps each side, at 2 × 14 kg, tempo 2-1-1-1, RPE 8"
        helped = Set.model_validate({"exercise": "Pull-up", "seconds": 30, "load_kg": -15})
        assert describe(helped) == "30 s, at 15 kg help"

    @pytest.mark.parametrize(
        ("seconds", "says"),
        [
            (480, "8 min"),
            (120, "2 min"),
            (90, "90 s"),
            (60, "60 s"),
            (150, "150 s"),
            (45.5, "45.5 s"),
        ],
    )
    def test_a_time_is_told_in_minutes_where_it_is_whole_ones(
        self, seconds: float, says: str
    ) -> None:
        assert describe(Set(exercise="Rower", seconds=seconds, warm_up=True)) == f"{says}, warm-up"

    @pytest.mark.parametrize(
        ("line", "figure", "words"),
        [
            (sets("Press", load_kg=12, implements=2), "totals/volume_load_kg", "10 reps × 24 kg"),
            (sets("Press"), "muscles/triceps/sets", "1 set × 0.5 indirect"),
            (sets("Row", sides="left"), "totals/sets", "½ set, one side"),
            (sets("Press", reps=None, seconds=50), "totals/reps", "12 reps from 50 s"),
            (sets("Press", reps=None, seconds=50), "totals/tut_s", "50 s under load"),
            (sets("Curl", reps=9, hold_s=8), "patterns/elbow_flexion/tut_s",
             "9 reps × 3 s + hold 8 s"),
            (sets("Press-up"), "balance/push_pull/a/volume_load_kg",
             "10 reps × 44.8 kg with the body's share"),
            (sets("Curl"), "balance/biceps_triceps/a/volume_load_kg", "no load"),
        ],
    )  # fmt: skip
    def test_a_credit_is_explained(self, line: list[dict], figure: str, words: str) -> None:
        result = audited(session(0, line))
        (entry,) = result.entries
        assert explain(entry.set, entry.measured, figure, "kg") == words


def test_a_weight_is_told_in_the_unit_that_is_said_and_in_no_other() -> None:
    assert amount_text(100, "load_kg", "kg") == "100 kg"
    assert amount_text(100, "load_kg", "lb") == "220.46 lb"
    assert amount_text(3, "sets") == "3 sets"
    with pytest.raises(ValueError, match="say in which"):
        amount_text(100, "volume_load_kg")
