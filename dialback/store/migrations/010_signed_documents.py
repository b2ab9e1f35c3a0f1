"""A signature keeps what was signed."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Add the column."""
    migrator.add_fields("signature", document=pw.TextField(null=True))


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop it."""
    migrator.remove_fields("signature", "document")
