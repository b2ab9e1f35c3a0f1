"""What the made-up club brought, and the highest number that a deleted athlete had."""

import peewee as pw
from peewee_migrate import Migrator

_ADDED = (("club", "TEXT"), ("last_deleted", "INTEGER NOT NULL DEFAULT 0"))


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Add the columns."""
    for column, kind in _ADDED:
        migrator.sql(f"ALTER TABLE house ADD COLUMN {column} {kind}")


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop them."""
    for column, _ in _ADDED:
        migrator.sql(f"ALTER TABLE house DROP COLUMN {column}")
