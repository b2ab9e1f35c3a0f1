"""The week as an integer programme: counts of lines as variables, findings as rows.

Credits of a line are linear in its sets, so every figure is a linear expression; a finding has a
variable for each level it can have, and rows that hold unless the variable is 1.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from itertools import pairwise
from math import ceil
from typing import Final

from dialback.core.adjusting.expression import Linear, Piece
from dialback.core.adjusting.judged import Judge
from dialback.core.adjusting.minutes import minutes_rows
from dialback.core.adjusting.pricing import (
    ADDED,
    CALM,
    CONCENTRATION,
    DROPPED,
    FIRST,
    FIRST_LIFT,
    THEME,
    TOTAL,
    Moved,
    Prices,
    fits,
    share_of_set,
)
from dialback.core.adjusting.solver import INF, Programme
from dialback.core.adjusting.start import has
from dialback.core.balance import deciding_measure
from dialback.core.figures import TOTAL_SETS, in_total, of_muscle, of_side
from dialback.core.findings.balance import FAR as FAR_OUTSIDE
from dialback.core.findings.finding import Key, movements_of
from dialback.core.findings.jumps import NEW_FROM_SETS, begins_block
from dialback.core.findings.muscles import FAR as FAR_ABOVE
from dialback.core.findings.session import FAR as FAR_TOO_MUCH
from dialback.core.maxima import is_working
from dialback.core.plans.spans import Span, rebuilt, spans_of, unit_sets
from dialback.core.restrictions import Restriction, breaks
from dialback.core.rules import JUMP_LIMITS
from dialback.core.sessions import Session, Set
from dialback.core.tally import Entry
from dialback.core.vocabulary import MUSCLES, PAIRS, WHOLE_WEEK, Pair

TINY: Final = 1e-9
BELOW: Final = 1e-6
"""So much below a limit a value is where it must not reach it; sets come in quarters at least."""
MOST_ADDED: Final = 4
"""So many sets at most a line that is added has."""
CALM_ADDED: Final = 3
"""The same where a proposal is to be one that a coach signs."""
CALM_GROWTH: Final = 2
"""So many steps a line then grows by at most."""
HIGH_WEIGHT: Final = 8
CAUTION_WEIGHT: Final = 3
"""What a finding that is left weighs beside the cost of a change."""
WIDE: Final = 40.0
"""How far counts go where their range is asked away."""
MOST_BEYOND: Final = 10_000.0
"""Further than any count of sets may go."""
LEAST_SETS: Final = 0.8
"""So much of the start's sets the week keeps at least."""
LEAST_SETS_OF_MUCH: Final = 0.6
"""The same where the start jumps or is above a ceiling, and no rule says another."""


@dataclass(frozen=True)
class LineChoice:
    """The variables of a line: how many more and fewer, in two steps of cost, or unit by unit.

    ``steps`` is how many it is more or fewer, ``fewer`` the latter alone.
    """

    session: int
    line: Span
    count: Linear
    fewer: Linear
    steps: Linear
    dropped: int
    changed: int
    bounds: Mapping[int, tuple[float, float]]
    """Where its variables may go if it is not locked."""


@dataclass(frozen=True)
class AddedChoice:
    """The variables of a line that may be added: whether it is, and with how many sets."""

    session: int
    movement: str
    set: Set
    used: int
    few: int
    more: int
    bounds: Mapping[int, tuple[float, float]]
    """Where its variables may go if the movement is not locked."""


@dataclass(frozen=True)
class Flag:
    """The variables of a finding: 1 where it is a caution or worse, and where it is high."""

    key: Key
    caution: int | None
    high: int | None


class WeekProgramme:
    """The programme of one week, with what is needed to read its answers."""

    def __init__(
        self,
        judge: Judge,
        start: tuple[Session, ...],
        fixed_days: frozenset[date],
        locks: frozenset[str],
        offers: Mapping[str, Set],
        new_movements: int,
        *,
        lines: int | None = None,
        most_sets: float | None = None,
        wide: bool = False,
    ) -> None:
        """``lines`` is how many lines a calm proposal changes; ``None`` lets it be thorough."""
        self.judge = judge
        self.calm = lines is not None
        self.most_added = CALM_ADDED if self.calm else MOST_ADDED
        self.most_sets = INF if most_sets is None else most_sets
        self.wide = wide
        self.rules = judge.ledger.rules
        self.start = start
        self.programme = Programme()
        self.locks = locks
        self.fixed_days = fixed_days
        self.choices: list[LineChoice] = []
        self.additions: list[AddedChoice] = []
        self.pieces: list[Piece] = []
        self.flags: dict[Key, Flag] = {}
        self.cost: dict[int, float] = defaultdict(float)
        self.cost_offset = 0.0
        self.ranges: dict[str, dict[int, tuple[float, float]]] = defaultdict(dict)
        self.lines = [spans_of(session, judge.ledger.movements) for session in start]
        self.prices = Prices(judge, start, self.lines)
        for at, session in enumerate(start):
            self._session(at, session)
        self._offer(offers)
        used = {addition.used: 1.0 for addition in self.additions}
        self.added_row = self.programme.row(-INF, used, new_movements)
        self.changed = used | {choice.changed: 1.0 for choice in self.choices}
        self.lines_row = self.programme.row(-INF, self.changed, INF if lines is None else lines)
        self._bounds()
        self._findings()
        self._price()
        self.cost_row = self.programme.row(-INF, self.cost, INF)
        self.weight, self.high = self._weights()
        self.moves = {
            number: factor * len(choice.line.units[-1])
            for choice in self.choices
            for number, factor in choice.steps.terms.items()
        } | {number: 1.0 for one in self.additions for number in (one.few, one.more)}
        self.weight_row = self.programme.row(-INF, self.weight, INF)
        self.both = dict(self.cost)
        for number, weight in self.weight.items():
            self.both[number] = self.both.get(number, 0.0) + weight
        self.both_row = self.programme.row(-INF, self.both, INF)
        self.high_row = self.programme.row(-INF, self.high, INF)

    # Variables.

    def _session(self, at: int, session: Session) -> None:
        for line in self.lines[at]:
            units = [
                self._measured(session, unit_sets(session, line, index))
                for index in range(line.count)
            ]
            if line.fixed or session.date in self.fixed_days:
                self.pieces += [Piece(at, unit, Linear(1.0), 1.0) for unit in units]
                continue
            self._choice(at, session, line, units)

    def _measured(self, session: Session, sets: Sequence[Set]) -> tuple[Entry, ...]:
        return self.judge.ledger.measure(
            [Session.model_construct(**{**dict(session), "sets": tuple(sets)})]
        )

    def _choice(
        self, at: int, session: Session, line: Span, units: list[tuple[Entry, ...]]
    ) -> None:
        programme = self.programme
        locked = bool(self.locks & set(line.movements))
        bounds: dict[int, tuple[float, float]] = {}

        def variable(most: float) -> int:
            number = programme.variable(0, 0 if locked else most)
            bounds[number] = (0, most)
            return number

        twice = 2 if line.kind == "pairs" else 1
        room = line.most - line.count
        growth = min(room, CALM_GROWTH) if self.calm else room
        few, more = variable(min(FIRST, growth)), variable(max(0, growth - FIRST))
        most = line.count + WIDE if self.wide else float(line.count + growth)
        self.ranges[_named(line)] |= {few: (0, FIRST), more: (0, WIDE)}
        dropped, changed = variable(1), variable(1)
        self._pay({few: twice, more: 2 * twice, dropped: DROPPED})
        grown = Linear(0, {few: 1.0, more: 1.0})
        last = self._measured(session, unit_sets(session, line, line.count))
        if all(_alike(unit, units[0]) for unit in units):
            less, lesser = (variable(min(FIRST, line.count)), variable(max(0, line.count - FIRST)))
            self._pay({less: twice, lesser: 2 * twice})
            fewer = Linear(0, {less: 1.0, lesser: 1.0})
            programme.row(-INF, {less: 1, lesser: 1, dropped: -1}, line.count - 1)
            count = Linear(line.count, grown.terms).plus(fewer, -1)
            self.pieces.append(Piece(at, units[0], count, most))
        else:
            # Sets that count differently are taken off from the end, one by one.
            kept = []
            for place, unit in enumerate(units):
                number = programme.variable(1 if locked else 0, 1)
                bounds[number] = (0, 1)
                kept.append(number)
                gone = line.count - place
                self._pay({number: -twice * (1 if gone <= FIRST else 2)})
                self.cost_offset += twice * (1 if gone <= FIRST else 2)
                self.pieces.append(Piece(at, unit, Linear(0, {number: 1.0}), 1.0))
            for before, behind in pairwise(kept):
                programme.row(0, {before: 1, behind: -1}, INF)
            programme.row(1, {kept[0]: 1, dropped: 1}, INF)
            programme.row(-INF, {few: 1, more: 1, kept[-1]: -WIDE}, 0)
            fewer = Linear(line.count, dict.fromkeys(kept, -1.0))
            count = Linear(0, dict.fromkeys(kept, 1.0)).plus(grown)
            self.pieces.append(Piece(at, last, grown, most - line.count))
        steps = grown.plus(fewer)
        programme.at_most(steps, {changed: WIDE + line.count})
        self.choices.append(LineChoice(at, line, count, fewer, steps, dropped, changed, bounds))

    def _pay(self, prices: Mapping[int, float]) -> None:
        for number, price in prices.items():
            self.cost[number] += price

    def _offer(self, offers: Mapping[str, Set]) -> None:
        for at, session in enumerate(self.start):
            if session.date in self.fixed_days:
                continue
            for movement, one in offers.items():
                if has(session, movement):
                    continue
                locked = movement in self.locks
                used, few, more = (
                    self.programme.variable(0, 0 if locked else most)
                    for most in (1, FIRST, self.most_added - FIRST)
                )
                bounds = {used: (0.0, 1.0), few: (0.0, FIRST), more: (0.0, self.most_added - FIRST)}
                self.programme.row(
                    -INF, {few: 1, more: 1, used: -(WIDE if self.wide else self.most_added)}, 0
                )
                self.programme.row(0, {few: 1, used: -1}, INF)
                if not self.wide:
                    self.programme.row(0, {few: 1, more: -1}, INF)
                strange = not fits(self.judge.ledger.movements[movement], self.prices.classes[at])
                self._pay({used: ADDED + (THEME if strange else 0), few: 1, more: 2})
                entries = self._measured(session, (one,))
                times = Linear(0, {few: 1.0, more: 1.0})
                most = WIDE if self.wide else self.most_added
                self.pieces.append(Piece(at, entries, times, most))
                self.ranges[movement][more] = (0, WIDE)
                self.additions.append(AddedChoice(at, movement, one, used, few, more, bounds))

    def _price(self) -> None:
        """What a coach would not do lightly: rows that say how much of it there is."""
        for choice in self.choices:
            if choice.line == self.prices.big[choice.session]:
                self._charge(choice.fewer, FIRST_LIFT)
        for at, session in enumerate(self.start):
            own = [choice.steps for choice in self.choices if choice.session == at]
            own += [
                Linear(0, {one.few: 1.0, one.more: 1.0})
                for one in self.additions
                if one.session == at
            ]
            steps = Linear()
            for one in own:
                steps = steps.plus(one)
            if own:
                self._beyond(steps, CALM, 1)
            self._concentration(at, session)
        before = self.judge.start.value(TOTAL_SETS)
        sets, _ = self.figure(TOTAL_SETS)
        self._beyond(sets, (1 + TOTAL) * before, 1)
        if not self.prices.jumps:
            self._beyond(Linear().plus(sets, -1), (TOTAL - 1) * before, 1)

    def _charge(self, value: Linear, price: float) -> None:
        for number, factor in value.terms.items():
            self.cost[number] += price * factor
        self.cost_offset += price * value.constant

    def _beyond(self, value: Linear, limit: float, price: int, *, twice: bool = False) -> None:
        """Pay for each whole that a value is beyond a limit, rounded up; in halves if ``twice``."""
        if not value.terms:
            self.cost_offset += price * max(0, ceil(value.constant - limit - TINY))
            return
        whole = self.programme.variable(0, MOST_BEYOND)
        self._pay({whole: price})
        self.programme.at_most(
            Linear(value.constant - limit - TINY, value.terms), {whole: 2.0 if twice else 1.0}
        )

    def _concentration(self, at: int, session: Session) -> None:
        halves: dict[str, Linear] = {}
        most: dict[str, float] = {}
        for piece in self.pieces:
            if piece.session != at:
                continue
            for entry in piece.entries:
                if is_working(entry):
                    name = entry.measured.shape.moves[0].movement.name
                    share = 2 * share_of_set(entry)
                    halves[name] = halves.get(name, Linear()).plus(piece.times, share)
                    most[name] = most.get(name, 0.0) + share * piece.most
        for name, value in halves.items():
            limit = self.prices.limit_of(at, name)
            if most[name] > limit:
                self._beyond(value, limit, CONCENTRATION, twice=True)

    # Figures.

    def figure(self, figure: str, day: date | None = None) -> tuple[Linear, float]:
        """A figure of the week or of a day, and the most it can come to."""
        total, most = Linear(), 0.0
        for piece in self.pieces:
            if day is None or piece.day == day:
                credit = piece.credit(figure)
                if credit:
                    total = total.plus(piece.times, credit)
                    most += credit * piece.most
        return total, most

    def _below(self, value: Linear, limit: float, flag: int | None, most: float) -> None:
        """A row: the value is at most the limit, unless the flag is 1."""
        scale = 1 / max(1.0, abs(limit))
        terms = {number: share * scale for number, share in value.terms.items()}
        if flag is not None:
            terms[flag] = terms.get(flag, 0.0) - max(0.0, most - limit) * scale
        self.programme.row(-INF, terms, (limit - value.constant) * scale)

    def _within(
        self, value: Linear, limit: float, far: float | None, flag: Flag, most: float
    ) -> None:
        """A row: the value is at most the limit; as a caution at most so far, if high anything."""
        end = most if far is None else min(far, most)
        scale = 1 / max(1.0, abs(limit))
        terms = {number: share * scale for number, share in value.terms.items()}
        for variable, room in ((flag.caution, end - limit), (flag.high, most - end)):
            if variable is not None and room > 0:
                terms[variable] = terms.get(variable, 0.0) - room * scale
        self.programme.row(-INF, terms, (limit - value.constant) * scale)

    def _reaches(self, value: Linear, floor: float, least: float, flag: Flag) -> None:
        """A row: the value reaches the floor; as a caution the least there is, if high nothing."""
        terms = dict(value.terms)
        for variable, room in ((flag.caution, floor - least), (flag.high, least)):
            if variable is not None:
                terms[variable] = terms.get(variable, 0.0) + room
        self.programme.row(floor - value.constant, terms, INF)

    # Findings.

    def _flag(self, key: Key, *, caution: bool = True, high: bool = True) -> Flag | None:
        """A finding's variables, held at the level of the start; ``None`` of one set aside."""
        if key in self.judge.aside:
            return None
        known = self.flags.get(key)
        if known is not None:
            return known
        at_start = self.judge.at_start.get(key)
        worse = 1 if at_start is not None else 0
        one = self.programme.variable(0, worse) if caution else None
        most_high = 1 if at_start is not None and at_start.level == "high" else 0
        two = self.programme.variable(0, most_high) if high else None
        if one is not None and two is not None:
            self.programme.row(0, {one: 1, two: -1}, INF)
        flag = self.flags[key] = Flag(key, one, two)
        return flag

    def _findings(self) -> None:
        for muscle in MUSCLES:
            self._muscle(muscle)
        for pair in PAIRS:
            self._pair(pair)
        self._jumps()
        self._spacing()
        for restriction in self.judge.in_hand.restrictions:
            self._restriction(restriction)
        self._overfull()

    def _muscle(self, muscle: str) -> None:
        floor, ceiling = self.rules.muscle_bands[muscle]  # type: ignore[index]
        sets, most = self.figure(of_muscle(muscle, "sets"))
        out = self.judge.in_hand.out_of_focus
        if floor > 0 and not self.judge.in_hand.lighter and muscle not in out:
            flag = self._flag(("muscle_floor", muscle, "sets"))
            if flag is not None:
                steps = [
                    credit
                    for piece in self.pieces
                    if (credit := piece.credit(of_muscle(muscle, "sets")))
                ]
                self._reaches(sets, floor, min([*steps, floor]), flag)
        if most > ceiling:
            flag = self._flag(("muscle_ceiling", muscle, "sets"))
            if flag is not None:
                self._within(sets, ceiling, FAR_ABOVE * ceiling, flag, most)

    def _pair(self, pair: Pair) -> None:
        band = self.rules.balance_bands.get(pair.name)
        if band is None or pair.name in self.judge.in_hand.out_of_focus:
            return
        measure = deciding_measure(pair, self.rules)
        (a, most_a), (b, most_b) = (self.figure(of_side(pair.name, side, measure)) for side in "ab")
        judged: int | None = None
        if pair.name not in self.judge.in_hand.always_weighed:
            sets, most_sets = Linear(), 0.0
            for side in "ab":
                one, most = self.figure(of_side(pair.name, side, "sets"))
                sets, most_sets = sets.plus(one), most_sets + most
            least = self.rules.balance_min_sets
            if most_sets < least:
                return
            judged = self.programme.variable(0, 1)
            self._below(sets, least - BELOW, judged, most_sets)
        flag = self._flag(("balance", pair.name, measure))
        if flag is None:
            return
        low, high = band
        sides = [(a, most_a, b, most_b, high)]
        if low:
            sides.append((b, most_b, a, most_a, 1 / low))
        for heavy, most, light, most_light, factor in sides:
            far = heavy.plus(light, -factor * FAR_OUTSIDE)
            self._unless(far, most, [(flag.high, most)], judged)
            # As a caution it is outside by no more than the factor allows of the light side.
            room = min(most, factor * (FAR_OUTSIDE - 1) * most_light)
            flags = [(flag.caution, room), (flag.high, most)]
            self._unless(heavy.plus(light, -factor), most, flags, judged)

    def _unless(
        self,
        value: Linear,
        most: float,
        flags: Iterable[tuple[int | None, float]],
        judged: int | None,
    ) -> None:
        """A row: the value is at most 0, or the room of its flags; anything if not judged."""
        terms = dict(value.terms)
        if not terms and value.constant <= 0:
            return
        most = max(most, 1.0)
        upper = -value.constant
        for variable, room in flags:
            if variable is not None:
                terms[variable] = terms.get(variable, 0.0) - room
        if judged is not None:
            terms[judged] = terms.get(judged, 0.0) + most
            upper += most
        scale = 1 / most
        self.programme.row(
            -INF, {number: share * scale for number, share in terms.items()}, upper * scale
        )

    def _jumps(self) -> None:
        base_of = self.judge.in_hand.baseline.base
        rises = self._total_rises() if begins_block(self.judge.in_hand) else None
        for measure in JUMP_LIMITS:
            base = base_of(in_total(measure))
            if base:
                self._jump(WHOLE_WEEK, measure, in_total(measure), self._jump_limits(measure, base))
        for muscle in MUSCLES:
            figure = of_muscle(muscle, "sets")
            base = base_of(figure)
            if base is None:
                continue
            floor, ceiling = self.rules.muscle_bands[muscle]  # type: ignore[index]
            noted = self.rules.jump_from_below and floor > base + BELOW
            meant = (floor + ceiling) / 2 if noted else 0.0
            few = self.rules.jump_high_sets
            if base == 0:
                limits: tuple[float, float | None] = (
                    (NEW_FROM_SETS if few is None else few) - BELOW,
                    None,
                )
            else:
                caution, high = self._jump_limits("sets", base)
                limits = caution, max(high, base + few - BELOW if few is not None else high)
            if rises is not None:
                limits = limits[0], None
            self._jump(
                muscle,
                "sets",
                figure,
                (max(limits[0], meant), None if limits[1] is None else max(limits[1], meant)),
                unless=rises,
            )

    def _total_rises(self) -> int:
        """A variable that is 1 where the week's sets jump."""
        base = self.judge.in_hand.baseline.base(TOTAL_SETS)
        rises = self.programme.variable(0, 1)
        if base:
            sets, most = self.figure(TOTAL_SETS)
            limit, _ = self._jump_limits("sets", base)
            if most > limit:
                self._below(sets, limit, rises, most)
        return rises

    def _jump_limits(self, measure: str, base: float) -> tuple[float, float]:
        """Up to where a measure is no caution, and no high; a rise of few sets is neither."""
        one, two = (base * (1 + share) for share in self.rules.jump_limits[measure])
        few = base + self.rules.jump_min_sets - BELOW if measure == "sets" else 0.0
        return max(one, few), max(two, few)

    def _jump(
        self,
        subject: str,
        measure: str,
        figure: str,
        limits: tuple[float, float | None],
        *,
        unless: int | None = None,
    ) -> None:
        """Rows of a jump; with ``unless`` it is one only where that variable is 1."""
        value, most = self.figure(figure)
        if most <= limits[0]:
            return
        flag = self._flag(("jump", subject, measure), high=limits[1] is not None)
        if flag is None:
            return
        if unless is not None:
            # Where the week's sets do not jump, the muscle may rise as it likes.
            room = max(0.0, most - limits[0])
            value = Linear(value.constant - room, value.terms).plus(Linear(0, {unless: 1.0}), room)
        self._within(value, limits[0], limits[1], flag, most)

    def _spacing(self) -> None:
        days = sorted({piece.day for piece in self.pieces})
        enough = self.rules.spacing_sets
        for muscle in MUSCLES:
            heavy: dict[date, int] = {}
            for day in days:
                sets, most = self.figure(of_muscle(muscle, "sets"), day)
                if most >= enough:
                    heavy[day] = self.programme.variable(0, 1)
                    self._below(sets, enough - BELOW, heavy[day], most)
            for day, one in heavy.items():
                following = heavy.get(day + timedelta(days=1))
                if following is None:
                    continue
                flag = self._flag(("spacing", muscle, "sets"), high=False)
                if flag is not None and flag.caution is not None:
                    self.programme.row(-INF, {one: 1, following: 1, flag.caution: -1}, 1)

    def _restriction(self, restriction: Restriction) -> None:
        rules = self.rules
        touched = []
        for piece in self.pieces:
            for entry in piece.entries:
                movements = [move.movement for move in entry.measured.shape.moves]
                there = [movement for movement in movements if restriction.touches(movement, rules)]
                if there and restriction.holds(entry.session.date):
                    touched.append((piece, entry, there))
        wrong = (
            "load_kg"
            if restriction.most_load_kg is not None
            else ("tempo_s" if restriction.about == "tempo" else "sets")
        )
        for piece, entry, there in touched:
            if breaks(entry.set, there, restriction, rules):
                flag = self._flag(("restriction", restriction.subject, wrong), caution=False)
                if flag is not None:
                    self._below(piece.times, 0, flag.high, piece.most)
        if restriction.most_sets is not None and touched:
            figures = {
                restriction.figure(movement) for _, _, several in touched for movement in several
            }
            total, most = Linear(), 0.0
            for piece, entry, _ in touched:
                credit = sum(entry.measured.credits.get(figure, 0.0) for figure in figures)
                total, most = total.plus(piece.times, credit), most + credit * piece.most
            flag = self._flag(("restriction", restriction.subject, "sets"), caution=False)
            if flag is not None:
                self._below(total, restriction.most_sets, flag.high, most)

    def _overfull(self) -> None:
        minutes, movements = self.rules.session_minutes, self.rules.session_movements
        if minutes is None and movements is None:
            return
        for at, session in enumerate(self.start):
            own = [piece for piece in self.pieces if piece.session == at]
            if minutes is not None:
                # Pieces stand as in the session: its lines, then what is added.
                takes, most = minutes_rows(self.programme, own, self.rules)
                self._too_much(session, "minutes", takes, most, minutes)
            if movements is not None:
                present, named = self._present(own)
                self._too_much(session, "movements", present, named, movements)

    def _present(self, pieces: Iterable[Piece]) -> tuple[Linear, float]:
        """How many different movements a session has, and has at most."""
        where: dict[str, list[Piece]] = defaultdict(list)
        for piece in pieces:
            for name in movements_of(piece.entries):
                where[name].append(piece)
        constant, terms = 0.0, {}
        for several in where.values():
            if any(not piece.times.terms and piece.times.constant > 0 for piece in several):
                constant += 1
                continue
            there = self.programme.variable(0, 1)
            terms[there] = 1.0
            for piece in several:
                self._below(piece.times, 0, there, piece.most)
        return Linear(constant, terms), float(len(where))

    def _too_much(
        self, session: Session, measure: str, value: Linear, most: float, limit: float
    ) -> None:
        if most <= limit:
            return
        flag = self._flag(("overfull", session.date.isoformat(), measure))
        if flag is not None:
            self._within(value, limit, limit * FAR_TOO_MUCH, flag, most)

    # Bounds.

    def _bounds(self) -> None:
        """Each session that has a working set keeps one; the week keeps most of its sets."""
        for at, session in enumerate(self.start):
            working = [
                piece
                for piece in self.pieces
                if piece.session == at and any(is_working(entry) for entry in piece.entries)
            ]
            own = Linear()
            for piece in working:
                own = own.plus(piece.times)
            added = {addition.few for addition in self.additions if addition.session == at}
            started = any(not set(piece.times.terms) & added for piece in working)
            if session.sets and started and own.terms:
                self.programme.row(1 - own.constant, own.terms, INF)
        start = self.judge.start.value(TOTAL_SETS)
        sets, _ = self.figure(TOTAL_SETS)
        share = self._least_share()
        self.share_row = self.programme.row(
            share * start - sets.constant - 1e-9,
            sets.terms,
            self.most_sets - sets.constant + 1e-9,
        )

    def _least_share(self) -> float:
        much = any(
            finding.key == ("jump", WHOLE_WEEK, "sets") or finding.code == "muscle_ceiling"
            for finding in self.judge.start.findings
        )
        if not much:
            return LEAST_SETS
        share = self.rules.lighter_share
        return min(LEAST_SETS, LEAST_SETS_OF_MUCH if share is None else share)

    # The score, and reading answers.

    def _weights(self) -> tuple[dict[int, float], dict[int, float]]:
        """What the findings that are left weigh, and how many of them are high."""
        weight: dict[int, float] = {}
        high: dict[int, float] = {}
        for flag in self.flags.values():
            if flag.caution is not None:
                weight[flag.caution] = CAUTION_WEIGHT
            if flag.high is not None:
                beside = CAUTION_WEIGHT if flag.caution is not None else 0
                weight[flag.high] = HIGH_WEIGHT - beside
                high[flag.high] = 1.0
        return weight, high

    def read(self, values: Sequence[float]) -> tuple[dict[tuple[int, int], int], dict[int, int]]:
        """Counts of lines by session and number, and of additions by their place."""
        counts = {}
        for choice in self.choices:
            count = choice.count.constant + sum(
                share * values[number] for number, share in choice.count.terms.items()
            )
            if round(count) != choice.line.count:
                counts[choice.session, choice.line.number] = round(count)
        added = {
            at: round(values[one.few] + values[one.more])
            for at, one in enumerate(self.additions)
            if values[one.used] > 0.5
        }
        return counts, added

    def sessions(
        self, counts: Mapping[tuple[int, int], int], added: Mapping[int, int]
    ) -> tuple[Session, ...]:
        """The sessions with lines at other counts and lines added."""
        return tuple(
            rebuilt(
                session,
                self.lines[at],
                {line: count for (own, line), count in counts.items() if own == at},
                [
                    (self.additions[place].set, count)
                    for place, count in sorted(added.items())
                    if self.additions[place].session == at
                ],
            )
            for at, session in enumerate(self.start)
        )

    def moved(self, counts: Mapping[tuple[int, int], int], added: Mapping[int, int]) -> list[Moved]:
        """The lines that change, each with its steps before and after."""
        lines = {(choice.session, choice.line.number): choice.line for choice in self.choices}
        found = [
            Moved(at, lines[at, number], "", lines[at, number].count, count)
            for (at, number), count in counts.items()
        ]
        for place, count in added.items():
            addition = self.additions[place]
            found.append(Moved(addition.session, None, addition.movement, 0, count))
        return found


def _named(line: Span) -> str:
    return " + ".join(line.movements)


def _alike(unit: tuple[Entry, ...], other: tuple[Entry, ...]) -> bool:
    """Whether two units come to the same, rest and all."""
    return [
        (entry.measured.credits, entry.measured.work_s, entry.set.rest_s) for entry in unit
    ] == [(entry.measured.credits, entry.measured.work_s, entry.set.rest_s) for entry in other]
