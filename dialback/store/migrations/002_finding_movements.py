"""What helps to find a movement and to choose its level."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Add the columns."""
    migrator.add_fields(
        "movement",
        aliases=pw.TextField(default="[]"),
        easier=pw.CharField(null=True),
        harder=pw.CharField(null=True),
        kit=pw.TextField(default="[]"),
        one_sided=pw.BooleanField(default=False),
    )


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop them."""
    migrator.remove_fields("movement", "aliases", "easier", "harder", "kit", "one_sided")
