"""Squads: the sessions that several athletes share, and what these cause in all of them."""

from dialback.core.squads.causes import SquadAudit, SquadCause, audit_squad
from dialback.core.squads.programmes import Member, Programme, programmes

__all__ = ["Member", "Programme", "SquadAudit", "SquadCause", "audit_squad", "programmes"]
