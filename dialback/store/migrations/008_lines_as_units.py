"""The lines of stored drafts have the sets of each unit, whether sets or rounds."""

import json

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Write every stored line in its new form."""
    migrator.run(lambda: _rewrite(database))


def _rewrite(database: pw.Database) -> None:
    for number, sessions, shape in database.execute_sql(
        "SELECT id, sessions, shape FROM draft"
    ).fetchall():
        database.execute_sql(
            "UPDATE draft SET sessions = ?, shape = ? WHERE id = ?",
            (_units(sessions), _units(shape), number),
        )


def _units(stored: str | None) -> str | None:
    if stored is None:
        return None
    sessions = json.loads(stored)
    for session in sessions or []:
        session["lines"] = [_line(line) for line in session.get("lines", [])]
    return json.dumps(sessions, ensure_ascii=False)


def _line(line: dict) -> dict:
    rounds = line.get("rounds")
    return {
        "kind": "rounds" if rounds else "sets",
        "units": rounds or [[line["set"]]],
        "count": line["count"],
    }


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drafts written since have no older form."""
