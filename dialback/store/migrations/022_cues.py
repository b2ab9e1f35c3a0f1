"""Words to say: a movement's, where the house has its own, and what one athlete is told."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Give movements room for them, and add the table, whose numbers are never given again."""
    if fake:
        return
    migrator.sql("ALTER TABLE movement ADD COLUMN cues TEXT")
    migrator.sql(
        "CREATE TABLE own_cue (id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,"
        " athlete_id INTEGER NOT NULL REFERENCES athlete (id) ON DELETE CASCADE,"
        " movement TEXT NOT NULL, says TEXT NOT NULL)"
    )
    migrator.sql("CREATE INDEX own_cue_athlete_id ON own_cue (athlete_id)")


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop them."""
    if not fake:
        migrator.sql("DROP TABLE own_cue")
        migrator.sql("ALTER TABLE movement DROP COLUMN cues")
