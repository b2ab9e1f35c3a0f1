"""A block says what it is for: what is out of its focus, its main movements."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Give blocks room for it."""
    if not fake:
        migrator.sql("ALTER TABLE block ADD COLUMN extra TEXT NOT NULL DEFAULT '{}'")


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Take it away."""
    if not fake:
        migrator.sql("ALTER TABLE block DROP COLUMN extra")
