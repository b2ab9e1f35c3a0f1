"""Squads of athletes; the name of the house."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Add the columns."""
    migrator.add_fields("house", name=pw.CharField(default=""))
    migrator.add_fields("athlete", squad=pw.CharField(default=""))


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop them."""
    migrator.remove_fields("house", "name")
    migrator.remove_fields("athlete", "squad")
