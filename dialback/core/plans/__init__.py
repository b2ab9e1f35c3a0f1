"""Planned sessions: what is kept of one, what of it moves as one, and what lays or scales it."""
