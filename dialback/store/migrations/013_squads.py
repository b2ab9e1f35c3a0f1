"""Squads of athletes."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Add the column."""
    migrator.add_fields("athlete", squad=pw.CharField(default=""))


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop it."""
    migrator.remove_fields("athlete", "squad")
