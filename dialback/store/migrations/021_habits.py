"""What is answered again and again is a habit."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Add the table, whose numbers are never given again."""
    if fake:
        return
    migrator.sql(
        "CREATE TABLE habit (id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,"
        " athlete_id INTEGER REFERENCES athlete (id) ON DELETE CASCADE,"
        " asked TEXT NOT NULL, answer TEXT NOT NULL, times INTEGER NOT NULL)"
    )
    migrator.sql("CREATE INDEX habit_athlete_id ON habit (athlete_id)")


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop it."""
    if not fake:
        migrator.sql("DROP TABLE habit")
