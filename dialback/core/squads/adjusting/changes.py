"""The changes of a squad's proposal, each with what it is for, in how many athletes."""

from __future__ import annotations

from collections.abc import Mapping

from dialback.core.adjusting.changes import sets_moved
from dialback.core.adjusting.held import step_name
from dialback.core.adjusting.judged import worse_in
from dialback.core.adjusting.reasons import change_words, finding_words
from dialback.core.adjusting.result import Change
from dialback.core.findings import Finding
from dialback.core.squads.adjusting.plan import Decision, FoundSquad, Otherwise, SquadPlan, but
from dialback.core.squads.adjusting.result import Apart, ForAll
from dialback.core.vocabulary import Key
from dialback.core.words import shortened

_MOST_TOLD = 3


class Reasons:
    """What each change of an answer is needed for: what would stand, or be worse, without it."""

    def __init__(self, plan: SquadPlan, best: FoundSquad) -> None:
        self.plan = plan
        self.best = best
        self.left: dict[int, dict[Key, Finding]] = {
            number: {} for number in range(len(plan.starts))
        }
        for (number, key), finding in best.left.items():
            self.left[number][key] = finding

    def for_all(self) -> tuple[ForAll, ...]:
        """What is decided for each shared session; nothing where it stays as it is."""
        found = []
        for at, (shared, one) in enumerate(zip(self.plan.shared, self.best.decisions, strict=True)):
            first = shared.first
            place = shared.places[first]
            changes = [
                self._change(first, place, line, None, count, self._without(at, line=line))
                for line, count in sorted(one.counts.items())
            ] + [
                self._change(first, place, None, name, count, self._without(at, name=name))
                for name, count in sorted(one.added.items())
            ]
            names = tuple(self.plan.starts[number].member.name for number in shared.places)
            title = self.plan.starts[first].sessions[place].title.strip()
            found.append(ForAll(title, names, tuple(changes)))
        return tuple(found)

    def apart(self) -> tuple[Apart, ...]:
        """What each athlete does otherwise."""
        found = []
        for number, one in enumerate(self.best.exceptions):
            changes = []
            for (place, line), count in one.counts.items():
                without = self._but(number, Otherwise(but(one.counts, (place, line)), one.added))
                changes.append(self._change(number, place, line, None, count, without))
            for (place, name), count in one.added.items():
                without = self._but(number, Otherwise(one.counts, but(one.added, (place, name))))
                changes.append(self._change(number, place, None, name, count, without))
            if changes:
                changes.sort(key=lambda one: (one.day, one.line is None, one.line or 0))
                found.append(Apart(self.plan.starts[number].member.name, tuple(changes)))
        return tuple(found)

    def _without(
        self, at: int, *, line: int | None = None, name: str | None = None
    ) -> Mapping[int, tuple[Key, ...]]:
        """What stands without one decision, by athlete."""
        decisions = list(self.best.decisions)
        one = decisions[at]
        decisions[at] = Decision(but(one.counts, line), but(one.added, name))
        found = {}
        for number in self.plan.shared[at].places:
            left = self.plan.left_of(number, decisions, self.best.exceptions[number])
            found[number] = worse_in(left, self.left[number])
        return found

    def _but(self, number: int, otherwise: Otherwise) -> Mapping[int, tuple[Key, ...]]:
        left = self.plan.left_of(number, self.best.decisions, otherwise)
        return {number: worse_in(left, self.left[number])}

    def _change(
        self,
        number: int,
        place: int,
        line: int | None,
        name: str | None,
        count: int,
        needs: Mapping[int, tuple[Key, ...]],
    ) -> Change:
        start = self.plan.starts[number]
        session = start.sessions[place]
        because = tuple(sorted({key for keys in needs.values() for key in keys}))
        reason = self._reason(needs)
        if line is None:
            what = change_words(session, name or "", "sets", (0, count))
            return Change(
                place, session.date, session.title, None, name, None, 0, count, count, because,
                what, reason, {},
            )  # fmt: skip
        span = next(one for one in start.spans[place] if one.number == line)
        shown = step_name(span)
        movement = None if span.kind == "rounds" else shown
        if count == span.count:
            what = f"{shown} stays as it is on {session.date:%A}"
        else:
            what = change_words(session, shown, span.kind, (span.count, count))
        return Change(
            place, session.date, session.title, line, movement, span.part, span.count, count,
            sets_moved(span, count), because, what, reason, {},
        )  # fmt: skip

    def _reason(self, needs: Mapping[int, tuple[Key, ...]]) -> str:
        """How many findings of how many athletes it clears or keeps away, and which."""
        cleared = [
            (number, key)
            for number, keys in needs.items()
            for key in keys
            if key in self.plan.starts[number].judge.at_start
        ]
        kept_away = [(number, key) for number, keys in needs.items() for key in keys]
        told = cleared or kept_away
        if not told:
            return ""
        people = len({number for number, _ in told})
        names = list(
            dict.fromkeys(finding_words(key) for _, key in sorted(told, key=lambda one: one[1]))
        )
        verb = "clears or lowers" if cleared else "prevents"
        words = shortened(names, _MOST_TOLD)
        if people == 1:
            return f"{verb} {words}"
        return f"{verb} {len(told)} findings of {people} athletes: {words}"
