"""What coaches have decided about findings and signals, for how long."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Add the table, whose numbers are never given again."""
    if fake:
        return
    migrator.sql(
        "CREATE TABLE decision (id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,"
        " athlete_id INTEGER NOT NULL REFERENCES athlete (id) ON DELETE CASCADE,"
        " kind VARCHAR(255) NOT NULL, code VARCHAR(255) NOT NULL, subject VARCHAR(255) NOT NULL,"
        " measure VARCHAR(255) NOT NULL, level VARCHAR(255) NOT NULL, value REAL,"
        " reason TEXT NOT NULL, since DATE NOT NULL, until DATE, ended_on DATE,"
        " extra TEXT NOT NULL)"
    )
    migrator.sql("CREATE INDEX decision_athlete_id ON decision (athlete_id)")


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop it."""
    if not fake:
        migrator.sql("DROP TABLE decision")
