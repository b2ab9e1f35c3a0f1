"""Entries of the journal are found by what they have in common."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Add the index."""
    migrator.add_index("journal", "same")


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop it."""
    migrator.drop_index("journal", "same")
