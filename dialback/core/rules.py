"""House rules: the coach's choices on how to count and what to accept.

``Rules`` is the values, ``RULES`` the table that describes each of them: settings page,
documentation and validation are made from these two, and a test holds them together.
"""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any, Final, Literal, get_args

from pydantic import AfterValidator, BeforeValidator, Field

from dialback.core.long_run.codes import SIGNALS, THRESHOLDS
from dialback.core.measures import Measure
from dialback.core.movements import Value
from dialback.core.vocabulary import PAIRS_BY_NAME, Muscle, ProgressRule

Band = Annotated[
    tuple[float, float],
    Field(strict=False, description="From, to"),
    AfterValidator(lambda band: _ordered(band, "the lower limit comes first")),
]
Limits = Annotated[
    tuple[float, float],
    Field(strict=False, description="Caution above, high above; as shares, 0.15 is +15 %"),
    AfterValidator(lambda band: _ordered(band, "the limit for caution comes first")),
]


Threshold = Annotated[float, Field(ge=0, le=1000)] | None
"""Of a signal of the long run; ``None`` switches it off."""


def _ordered(band: tuple[float, float], how: str) -> tuple[float, float]:
    if not 0 <= band[0] <= band[1]:
        raise ValueError(f"{list(band)} is not a pair of limits: neither is below 0, and {how}")
    return band


BALANCE_BANDS: Final[dict[str, tuple[float, float]]] = {
    "push_pull": (0.7, 1.1),
    "horizontal_push_pull": (0.7, 1.2),
    "vertical_push_pull": (0.5, 1.5),
    "knee_hip": (0.7, 1.5),
    "biceps_triceps": (0.6, 1.6),
    "quads_hamstrings": (0.8, 2.0),
    "front_rear_delts": (0.5, 1.5),
    "abs_lower_back": (0.5, 3.0),
}
MUSCLE_BANDS: Final[dict[str, tuple[float, float]]] = {
    "chest": (8, 20), "front_delts": (0, 16), "side_delts": (6, 20), "rear_delts": (6, 20),
    "rotator_cuff": (0, 12), "traps": (0, 16), "upper_back": (8, 20), "lats": (8, 20),
    "lower_back": (2, 12), "biceps": (6, 18), "triceps": (6, 18), "forearms": (0, 16),
    "abs": (4, 20), "obliques": (0, 16), "glutes": (6, 20), "quads": (8, 20),
    "hamstrings": (6, 16), "adductors": (0, 12), "abductors": (0, 12), "calves": (4, 16),
}  # fmt: skip
JUMP_LIMITS: Final[dict[str, tuple[float, float]]] = {
    "volume_load_kg": (0.15, 0.30),
    "sets": (0.20, 0.40),
    "tut_s": (0.20, 0.40),
}

_DEFAULT_TABLES: Final[dict[str, Mapping[str, Any]]] = {
    "balance_bands": BALANCE_BANDS,
    "muscle_bands": MUSCLE_BANDS,
    "jump_limits": JUMP_LIMITS,
    "long_run": THRESHOLDS,
}


def _over(default: Mapping[str, Any]) -> BeforeValidator:
    """A table given in part is laid over its default, key by key."""

    def lay(value: Any) -> Any:
        return {**default, **value} if isinstance(value, dict) else value

    return BeforeValidator(lay)


class Rules(Value):
    """The house rules in force for one count. What is not given has its default."""

    indirect_credit: float = Field(0.5, ge=0, le=1)
    hard_set_rpe: float | None = Field(6, ge=0, le=10)
    count_warm_ups: bool = False
    each_side_reps: Literal["per_side", "total"] = "per_side"
    tension: Literal["whole_rep", "moving"] = "whole_rep"
    bodyweight_load: bool = True
    partial_rep_credit: float = Field(1.0, ge=0, le=1)
    estimate_reps: bool = True
    push_pull_scope: Literal["all", "compound"] = "all"
    balance_measure: Measure = "sets"
    balance_min_sets: float = Field(4, ge=0, le=1000)
    balance_bands: Annotated[dict[str, Band], _over(BALANCE_BANDS)] = Field(
        default_factory=lambda: dict(BALANCE_BANDS)
    )
    muscle_bands: Annotated[dict[Muscle, Band], _over(MUSCLE_BANDS)] = Field(
        default_factory=lambda: dict(MUSCLE_BANDS)  # type: ignore[arg-type]
    )
    baseline: Literal["mean_4", "last_week", "ewma"] = "mean_4"
    ewma_alpha: float = Field(0.4, gt=0, le=1)
    jump_limits: Annotated[dict[str, Limits], _over(JUMP_LIMITS)] = Field(
        default_factory=lambda: dict(JUMP_LIMITS)
    )
    jump_min_sets: float = Field(2, ge=0, le=1000)
    load_step: Limits = (0.075, 0.15)
    spacing_sets: float = Field(4, gt=0, le=1000)
    change_over_s: float = Field(10, ge=0, le=600)
    assumed_rest_s: float | None = Field(60, ge=0, le=3600)
    turn_pause_s: float = Field(3, ge=0, le=60)
    measured_tension: bool = True
    max_estimate: Literal["epley", "brzycki"] | None = "epley"
    plan_band: Band = (0.8, 1.1)
    gap_share: float = Field(0.5, ge=0, le=1)
    lighter_share: float | None = Field(0.7, ge=0, le=1)
    jump_high_sets: float | None = Field(4, ge=0, le=1000)
    jump_from_below: bool = True
    kit_step_note: bool = True
    side_gap: Limits | None = (0.10, 0.25)
    order: Literal["compound_first", "any"] | None = "compound_first"
    warm_up_from: float | None = Field(0.80, ge=0, le=2)
    session_minutes: float | None = Field(None, gt=0, le=1440)
    session_movements: float | None = Field(None, gt=0, le=200)
    carry_over: float | None = Field(0.66, ge=0, le=1)
    monotony_limit: float | None = Field(2.0, ge=0, le=100)
    effort_drift: float | None = Field(0.75, ge=0, le=10)
    effort_pairs: float | None = Field(4, ge=1, le=100)
    stalled_weeks: int | None = Field(4, ge=1, le=26)
    stalled_share: float | None = Field(0.5, ge=0, le=1)
    target_rpe: float | None = Field(8, ge=0, le=10)
    progress: ProgressRule | None = "reps_first"
    return_after_weeks: int | None = Field(2, ge=1, le=52)
    return_share: Limits | None = (0.6, 1.0)
    long_run: Annotated[dict[str, Threshold], _over(THRESHOLDS)] = Field(
        default_factory=lambda: dict(THRESHOLDS)
    )

    def changes(self, since: Rules | None = None) -> dict[str, Any]:
        """The rules that differ from ``since`` (the defaults), tables reduced to such keys."""
        old = (since or DEFAULT_RULES).model_dump(mode="json")
        new = self.model_dump(mode="json")
        differing: dict[str, Any] = {}
        for name, value in new.items():
            if value == old.get(name):
                continue
            if name in _DEFAULT_TABLES:
                before = old[name]
                value = {key: band for key, band in value.items() if before.get(key) != band}
            differing[name] = value
        return differing

    def unknown(self) -> list[str]:
        """Names that were given but that no rule has: kept, and without effect."""
        names = [str(name) for name in (self.model_extra or {})]
        names += [f"balance_bands.{key}" for key in self.balance_bands if key not in PAIRS_BY_NAME]
        names += [f"jump_limits.{key}" for key in self.jump_limits if key not in JUMP_LIMITS]
        names += [f"long_run.{key}" for key in self.long_run if key not in THRESHOLDS]
        return names


DEFAULT_RULES: Final = Rules()


def merge(*layers: Mapping[str, Any]) -> Rules:
    """Rules from layers of choices, later over earlier; tables are merged key by key.

    Raises ``pydantic.ValidationError`` naming the rule that does not fit.
    """
    merged: dict[str, Any] = {}
    for layer in layers:
        for name, value in layer.items():
            if name in _DEFAULT_TABLES and isinstance(value, Mapping):
                merged[name] = {**merged.get(name, {}), **value}
            else:
                merged[name] = value
    return Rules.model_validate(json.loads(json.dumps(merged)))


@dataclass(frozen=True, slots=True)
class RuleEntry:
    """What a coach reads about one rule.

    ``choices`` are the named values with what each does, empty for a number or a table; ``begin``
    is what to switch it on with, where the default is none. Of a table whose keys do not speak for
    themselves ``rows`` have each key, its title, and what its number is counted in.
    """

    name: str
    group: Literal["counting", "balance", "dose", "change", "session", "plan", "long_run"]
    title: str
    argument: str
    changes: str
    source: str
    unit: str = ""
    choices: tuple[tuple[Any, str], ...] = ()
    begin: Any = None
    rows: tuple[tuple[str, str, str], ...] = ()

    @property
    def optional(self) -> bool:
        """Whether it can be switched off: then what it judges is not judged."""
        return type(None) in get_args(Rules.model_fields[self.name].annotation)


_HOUSE: Final = "Dial Back's own starting point; a matter of house custom"
_WEEKLY_SETS: Final = (
    "Starting points for healthy adults, drawn from Schoenfeld, Ogborn, Krieger 2017 and "
    "Pelland et al. 2024 (preprint)"
)
_CONTESTED: Final = (
    "House custom. Impellizzeri et al. 2020 dispute that ratios of recent to earlier load "
    "predict injury: read a jump as a question"
)

RULES: Final[tuple[RuleEntry, ...]] = (
    RuleEntry(
        "indirect_credit", "counting", "Credit of an indirect muscle",
        "Is a press a triceps set: not at all, half, or fully?",
        "sets, volume load and tension of every muscle that only helps",
        "Pelland et al. 2024 (preprint) count indirect sets as half",
        "sets per set",
        ((0.5, "half a set"), (0.0, "direct sets only"), (1.0, "a full set")),
    ),
    RuleEntry(
        "hard_set_rpe", "counting", "Exertion from which a set is hard",
        "How near to failure must a set be to count towards weekly sets? A set with no recorded "
        "exertion counts.",
        "weekly sets; reps, volume load and tension keep the easy sets",
        f"{_HOUSE}; the scale follows Zourdos et al. 2016 (RPE from reps in reserve)",
        "RPE",
        ((6.0, "RPE 6 and above"), (7.0, "RPE 7 and above"), (None, "every set")),
    ),
    RuleEntry(
        "count_warm_ups", "counting", "Warm-up sets in the sums",
        "Does a warm-up set belong to the week's work?",
        "every sum: a warm-up set is left out whole or counted like any other",
        _HOUSE, "", ((False, "left out"), (True, "counted")),
    ),
    RuleEntry(
        "each_side_reps", "counting", "Reps of eleven each side",
        "Eleven on each side: eleven reps, or twenty-two?",
        "reps only; volume load always has both sides, sets and tension the average limb",
        _HOUSE, "", (("per_side", "11, what a limb does"), ("total", "22, what was done in all")),
    ),
    RuleEntry(
        "tension", "counting", "Time under tension",
        "Do the pauses of a rep count as tension, or only lowering and lifting?",
        "tension everywhere; holds and isometric movements always count whole",
        _HOUSE, "", (("whole_rep", "all four phases"), ("moving", "lowering and lifting only")),
    ),
    RuleEntry(
        "bodyweight_load", "counting", "Load of the body itself",
        "Does a press-up have a volume load?",
        "volume load of movements with a share of body weight",
        "Shares of the press-up from Ebben et al. 2011; whether they belong to the load is "
        "house custom",
        "", ((True, "share of body weight added"), (False, "outside load only")),
    ),
    RuleEntry(
        "partial_rep_credit", "counting", "Credit of a partial rep",
        "Is half a range half a rep?",
        "volume load; reps and tension keep every rep that was done",
        _HOUSE, "reps per rep",
        ((1.0, "a whole rep"), (0.5, "half a rep"), (0.0, "nothing")),
    ),
    RuleEntry(
        "estimate_reps", "counting", "Reps of a timed set",
        "A set of 50 seconds without a count: estimate its reps from the tempo, or leave them out?",
        "reps and volume load of timed sets, always marked as estimated; tension is exact",
        _HOUSE, "", ((True, "estimate, and mark it"), (False, "leave them out")),
    ),
    RuleEntry(
        "push_pull_scope", "balance", "What push and pull are made of",
        "Do curls and extensions belong to pull and push?",
        "the pair push : pull; the other pairs have no scope",
        _HOUSE, "", (("all", "every movement of the class"), ("compound", "compound ones only")),
    ),
    RuleEntry(
        "balance_measure", "balance", "Measure that raises an imbalance",
        "Which of the four measures decides? All four are always shown.",
        "findings of balance; muscle pairs have no reps and fall back on sets",
        _HOUSE, "",
        (("sets", "sets"), ("reps", "reps"), ("volume_load_kg", "volume load"),
         ("tut_s", "time under tension")),
    ),
    RuleEntry(
        "balance_min_sets", "balance", "Sets below which a pair is left alone",
        "A ratio of three sets says little.",
        "findings of balance: pairs with fewer sets in all raise none",
        _HOUSE, "sets",
    ),
    RuleEntry(
        "balance_bands", "balance", "Allowed ratio of each pair",
        "Even, or biased to one side? Beyond a band by a factor of 1.5 is high.",
        "findings of balance",
        "House custom of the weight room; no ratio here is established by research",
        "a : b",
    ),
    RuleEntry(
        "muscle_bands", "dose", "Weekly hard sets of each muscle",
        "How much is enough, how much is too much? Below the minimum and above the ceiling is a "
        "caution; nothing at all, or beyond 1.25 of the ceiling, is high.",
        "findings of minimum and ceiling",
        _WEEKLY_SETS, "sets a week",
    ),
    RuleEntry(
        "spacing_sets", "dose", "Sets that make a heavy day for a muscle",
        "Two such days in a row leave a muscle one night.",
        "findings of spacing",
        _HOUSE, "sets a day",
    ),
    RuleEntry(
        "change_over_s", "dose", "Change-over time of a movement",
        "How long does it take to get to the next station and load it?",
        "the estimated minutes of a session",
        _HOUSE, "seconds a movement",
    ),
    RuleEntry(
        "turn_pause_s", "dose", "Pause to change sides",
        "A timed set on each side: how long does it take to turn to the other one?",
        "the clock on the Floor",
        _HOUSE, "seconds",
    ),
    RuleEntry(
        "assumed_rest_s", "dose", "Rest where none is written",
        "A plan that says nothing of rest still takes it: how long between counted sets?",
        "the estimated minutes of a session",
        _HOUSE, "seconds",
    ),
    RuleEntry(
        "baseline", "change", "What a week is compared with",
        "The mean of the trained weeks of the last four, the last trained week of them, or a "
        "weighted mean in which recent weeks count more? Always of completed work.",
        "changes and findings of jumps",
        "House custom; weighting as in common exponential smoothing", "",
        (("mean_4", "average of four weeks"), ("last_week", "last trained week"),
         ("ewma", "exponentially weighted")),
    ),
    RuleEntry(
        "ewma_alpha", "change", "Weight of the newest week",
        "How fast does the weighted mean forget?",
        "the exponentially weighted baseline only",
        _HOUSE, "share",
    ),
    RuleEntry(
        "jump_limits", "change", "Allowed rise of a week",
        "How much more than the baseline is a step, how much is a jump?",
        "findings of jumps, for the week's volume load, sets and tension, and each muscle's sets",
        _CONTESTED, "share above the baseline",
    ),
    RuleEntry(
        "jump_min_sets", "change", "Rise in sets that is left alone",
        "From two sets to three is +50 %, and one set.",
        "findings of jumps in sets",
        _HOUSE, "sets",
    ),
    RuleEntry(
        "load_step", "change", "Allowed rise of a load",
        "How large may a step be from the heaviest load of the last four weeks?",
        "findings of load steps",
        _CONTESTED, "share above the heaviest",
    ),
    RuleEntry(
        "plan_band", "plan", "Allowed share of the plan",
        "How far may a week's sets, reps, volume load or tension stray from the plan?",
        "findings off the plan",
        _HOUSE, "done ÷ planned",
    ),
    RuleEntry(
        "gap_share", "plan", "Gaps in the log",
        "From which share on are missing loads, reps or exertion, or estimates, worth a note?",
        "findings of gaps in the log",
        _HOUSE, "share of the sets",
    ),
    RuleEntry(
        "measured_tension", "counting", "Tension as measured",
        "Where a sensor measured the time under load, does it stand for reps × tempo?",
        "tension of sets with a measurement",
        _HOUSE, "",
        ((True, "yes, the measurement counts"), (False, "no, reps × tempo for every set")),
    ),
    RuleEntry(
        "max_estimate", "change", "Estimate of a maximum",
        "How is the load of a single rep told from a set of several? Only from sets of up to "
        "twelve "
        "reps to failure, reps in reserve added.",
        "loads in per cent of the maximum, where none was typed in",
        "Epley 1985; Brzycki 1993, J Phys Educ Recreat Dance 64(1)", "",
        (("epley", "load × (1 + reps ÷ 30)"), ("brzycki", "load × 36 ÷ (37 − reps)"),
         (None, "no estimate")),
    ),
    RuleEntry(
        "lighter_share", "change", "Share below which a week is a lighter one",
        "A week of fewer sets than this share of the usual was meant to be light: next to it any "
        "ordinary week would look like a jump.",
        "the baseline leaves lighter weeks out; a lighter week asks for no minimum",
        _HOUSE, "share of the median of the trained weeks among eight",
    ),
    RuleEntry(
        "jump_high_sets", "change", "Rise of a muscle that can be high",
        "Three sets after one are +200 %, and two sets.",
        "a muscle's jump of fewer sets is a caution at most; new muscles count from here on",
        _HOUSE, "sets",
    ),
    RuleEntry(
        "jump_from_below", "change", "A rise that the minimum asked for",
        "Does a muscle that comes up from below its minimum jump?",
        "such a jump is a note while the muscle stays in the lower half of its band",
        _HOUSE, "", ((True, "a note"), (False, "judged like any other")),
    ),
    RuleEntry(
        "kit_step_note", "change", "The next load there is",
        "From a pair of 10 kg the next is 12.5 kg: +25 %, and nobody can step by less.",
        "a load step to the next load of the kit is a note",
        _HOUSE, "", ((True, "a note"), (False, "judged like any other")),
    ),
    RuleEntry(
        "side_gap", "balance", "Allowed gap of left and right",
        "How far may the sides of a movement be apart in reps or volume load?",
        "findings of left and right, of movements that have sets of one side",
        "House custom; no gap here is established by research", "share of the larger side",
    ),
    RuleEntry(
        "order", "session", "Order of a session",
        "Compound movements while fresh, or in any order? A part marked as pre-exhaust has the "
        "small muscle first on purpose.",
        "findings of order",
        _HOUSE, "",
        (("compound_first", "compound first"), ("any", "any order"), (None, "not judged")),
    ),
    RuleEntry(
        "warm_up_from", "session", "Load that asks for a warm-up",
        "From which share of the estimated maximum on does a compound movement want warm-up sets "
        "before it?",
        "findings of missing warm-ups",
        _HOUSE, "share of the estimated maximum",
    ),
    RuleEntry(
        "session_minutes", "session", "Minutes of a session",
        "How long may a session take? Above 1.25 of it is high.",
        "findings of overfull sessions",
        "The house's own hours; none until given", "minutes", begin=60,
    ),
    RuleEntry(
        "session_movements", "session", "Movements of a session",
        "How many different movements may a session have? Above 1.25 of it is high.",
        "findings of overfull sessions",
        "The house's own custom; none until given", "movements", begin=10,
    ),
    RuleEntry(
        "carry_over", "session", "Movements kept from week to week",
        "Keep the main lifts through the block, or rotate? The week in which a block begins is "
        "left alone.",
        "findings of carry-over",
        _HOUSE, "share of last week's movements",
    ),
    RuleEntry(
        "monotony_limit", "session", "Monotony of the week",
        "Mean of the seven daily session loads ÷ their standard deviation: days that are all "
        "alike wear more than hard and easy ones in turn.",
        "findings of monotony, of weeks whose sessions all have exertion and minutes",
        "Foster 1998, Med Sci Sports Exerc 30(7)", "mean ÷ standard deviation",
    ),
    RuleEntry(
        "effort_drift", "session", "The same felt harder",
        "How much more exertion for the same loads and reps is worth a word?",
        "findings of effort",
        f"{_HOUSE}; the scale follows Zourdos et al. 2016", "RPE, mean rise",
    ),
    RuleEntry(
        "effort_pairs", "session", "Lifts that must agree on it",
        "One lift that felt harder is a bad day.",
        "findings of effort: with fewer equal top sets none is raised",
        _HOUSE, "movements",
    ),
    RuleEntry(
        "stalled_weeks", "session", "Weeks without progress",
        "Over how many weeks must a lift not have moved?",
        "notes of stalled lifts",
        _HOUSE, "weeks, against as many before",
    ),
    RuleEntry(
        "stalled_share", "session", "Share of the lifts that must stand still",
        "One lift that stands still is a lift; half of them are a programme.",
        "notes of stalled lifts",
        _HOUSE, "share of the compound movements",
    ),
    RuleEntry(
        "target_rpe", "session", "Exertion at which a range is mastered",
        "The top of the rep range at this exertion or less: time for the next load.",
        "notes of movements that are ready, and their next step",
        f"{_HOUSE}; the scale follows Zourdos et al. 2016", "RPE",
    ),
    RuleEntry(
        "progress", "session", "How a movement progresses",
        "When a range is mastered, what comes next: more load, one more set, less rest, a slower "
        "lowering, a longer hold?",
        "the next steps that are proposed for a draft; nothing that is counted",
        _HOUSE, "",
        (("reps_first", "reps first, then load"), ("load_first", "load once the bottom holds"),
         ("sets", "one more set or round"), ("density", "less rest"),
         ("tempo", "a slower lowering"), ("hold", "a longer hold"), (None, "nothing is proposed")),
    ),
    RuleEntry(
        "return_after_weeks", "change", "Weeks off that make a break",
        "After how many weeks without training does a week count as a return?",
        "findings of a return from a break",
        _HOUSE, "weeks",
    ),
    RuleEntry(
        "return_share", "change", "First week after a break",
        "How much of the last ordinary week before it is a start, how much is too much?",
        "the level of a return: a note up to the first, a caution above it, high above the second",
        _CONTESTED, "share of the last ordinary week's sets",
    ),
    RuleEntry(
        "long_run", "long_run", "What is watched over many weeks",
        "From where on is a drift, a habit or a line that makes no sense worth a word? Each is "
        "told once, and again when it has been away for eight weeks.",
        "the lines of a week's verdict that look at many weeks; no finding and no figure",
        f"{_HOUSE}, tried on a simulated year. Whether a trend is more than scatter: Mann 1945 and "
        "Kendall 1975; its slope: Sen 1968",
        rows=tuple((one.code, one.title, one.unit) for one in SIGNALS),
    ),
)  # fmt: skip

PRESETS: Final[dict[str, dict[str, Any]]] = {
    "balanced": {},
    "pull-biased": {"balance_bands": {"push_pull": [0.5, 0.9]}},
    "direct only": {"indirect_credit": 0, "push_pull_scope": "compound"},
    "everything counts": {"indirect_credit": 1, "count_warm_ups": True},
}
"""Schools by name: what each chooses otherwise than the defaults."""
PRESET_WORDS: Final[dict[str, str]] = {
    "balanced": "a muscle that helps counts half a set; push and pull about even",
    "pull-biased": "as balanced, with more pull than push",
    "direct only": "only the muscle that a movement is for counts; push and pull by compound lifts",
    "everything counts": "a muscle that helps counts a full set, warm-ups count too",
}
"""The schools in a few words."""

_OF_A_SCHOOL: Final = ("indirect_credit", "push_pull_scope", "count_warm_ups")


def choices_of_school(name: str) -> dict[str, Any]:
    """All that a preset sets, to its own value or the default, and nothing else.

    Raises ``KeyError`` for a name that no preset has.
    """
    chosen = merge(PRESETS[name])
    own: dict[str, Any] = {field: getattr(chosen, field) for field in _OF_A_SCHOOL}
    return {**own, "balance_bands": {"push_pull": list(chosen.balance_bands["push_pull"])}}


def school(name: str, rules: Rules) -> Rules:
    """The rules as a preset has them: what it sets is its own, the rest stays as it is."""
    return merge(rules.changes(), choices_of_school(name))
