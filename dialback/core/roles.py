"""Who works in a house, and what each may do."""

from __future__ import annotations

from typing import Final, Literal

Role = Literal["owner", "coach", "assistant", "viewer", "athlete"]
Right = Literal["run the house", "plan", "log", "read"]

ROLES: Final[dict[Role, str]] = {
    "owner": "Everything, including who else can sign in",
    "coach": "Everything about training; links for athletes' phones",
    "assistant": "Reads everything, runs sessions and logs; changes no plan and no rule",
    "viewer": "Reads everything, changes nothing",
    "athlete": "Their own plan, Floor, log and hand-out; nothing of anybody else's",
}
"""Every role, with what it is for."""

RIGHTS: Final[dict[Right, frozenset[Role]]] = {
    "run the house": frozenset({"owner"}),
    "plan": frozenset({"owner", "coach"}),
    "log": frozenset({"owner", "coach", "assistant"}),
    "read": frozenset({"owner", "coach", "assistant", "viewer"}),
}
"""Who has which right over everybody. What an athlete may do is about that athlete alone."""


def rights_of(role: Role) -> list[Right]:
    """The rights of a role, over everybody in the house."""
    return [right for right, roles in RIGHTS.items() if role in roles]
