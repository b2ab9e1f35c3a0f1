"""Squads of athletes; the name of the house."""

import peewee as pw
from peewee_migrate import Migrator

_ADDED = (("athlete", "squad"), ("house", "name"))


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Add the columns.

    In SQL: the migrator would make the table anew, and half of all rows refer to athletes.
    """
    for table, column in _ADDED:
        migrator.sql(f"ALTER TABLE {table} ADD COLUMN {column} VARCHAR(255) NOT NULL DEFAULT ''")


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop them."""
    for table, column in _ADDED:
        migrator.sql(f"ALTER TABLE {table} DROP COLUMN {column}")
