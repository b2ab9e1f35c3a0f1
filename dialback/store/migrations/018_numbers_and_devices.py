"""A number is never given twice; devices that are signed in, each by a secret of its own."""

import re

import peewee as pw
from peewee_migrate import Migrator

_KEY = re.compile(r'("id" INTEGER NOT NULL PRIMARY KEY)(?! AUTOINCREMENT)')
_OWN = ("sqlite_", "migratehistory")


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Make every table anew whose numbers SQLite would give again; add devices."""
    if fake:
        return
    _rebuild(migrator, database, lambda sql: _KEY.sub(r"\1 AUTOINCREMENT", sql))
    # Nobody gets the number of an athlete who was deleted before this.
    migrator.sql(
        "INSERT INTO sqlite_sequence (name, seq) SELECT 'athlete', 0 WHERE NOT EXISTS"
        " (SELECT 1 FROM sqlite_sequence WHERE name = 'athlete')"
    )
    migrator.sql(
        "UPDATE sqlite_sequence SET seq = max(seq, coalesce((SELECT max(last_deleted) FROM house),"
        " 0)) WHERE name = 'athlete'"
    )
    for sql in (
        "ALTER TABLE house DROP COLUMN last_deleted",
        "ALTER TABLE house ADD COLUMN identity TEXT NOT NULL DEFAULT ''",
        "UPDATE house SET identity = lower(hex(randomblob(16)))",
        "ALTER TABLE house ADD COLUMN unlocked INTEGER NOT NULL DEFAULT 0",
        "ALTER TABLE account DROP COLUMN stamp",
        "ALTER TABLE account ADD COLUMN second TEXT",
        "ALTER TABLE account ADD COLUMN second_used INTEGER NOT NULL DEFAULT 0",
        "ALTER TABLE account ADD COLUMN recovery TEXT NOT NULL DEFAULT '[]'",
        "CREATE TABLE device (id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,"
        " account_id INTEGER NOT NULL REFERENCES account (id) ON DELETE CASCADE,"
        " session TEXT, known TEXT NOT NULL, words TEXT NOT NULL, since DATE NOT NULL,"
        " seen DATE NOT NULL)",
        "CREATE INDEX device_account_id ON device (account_id)",
        "CREATE UNIQUE INDEX device_session ON device (session)",
        "CREATE UNIQUE INDEX device_known ON device (known)",
    ):
        migrator.sql(sql)


def _rebuild(migrator, database, anew):
    """SQLite's own way to alter a table: made anew beside it, filled, and given its name.

    The foreign keys have to be off meanwhile: whoever opens the data file sees to that.
    """
    tables = database.execute_sql("SELECT name, sql FROM sqlite_master WHERE type = 'table'").fetchall()
    for name, sql in tables:
        made = anew(sql)
        if name.startswith(_OWN) or made == sql:
            continue
        indexes = database.execute_sql(
            "SELECT sql FROM sqlite_master WHERE type = 'index' AND tbl_name = ? AND sql IS NOT NULL",
            (name,),
        ).fetchall()
        columns = ", ".join(f'"{one.name}"' for one in database.get_columns(name))
        migrator.sql(re.sub(r'CREATE TABLE (IF NOT EXISTS )?"?\w+"?', 'CREATE TABLE "_anew"', made, count=1))
        migrator.sql(f'INSERT INTO "_anew" ({columns}) SELECT {columns} FROM "{name}"')
        migrator.sql(f'DROP TABLE "{name}"')
        migrator.sql(f'ALTER TABLE "_anew" RENAME TO "{name}"')
        for (index,) in indexes:
            migrator.sql(index)


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop what was added; the numbers stay as they are."""
    for sql in (
        "DROP TABLE device",
        "ALTER TABLE account DROP COLUMN recovery",
        "ALTER TABLE account DROP COLUMN second_used",
        "ALTER TABLE account DROP COLUMN second",
        "ALTER TABLE account ADD COLUMN stamp INTEGER NOT NULL DEFAULT 1",
        "ALTER TABLE house DROP COLUMN unlocked",
        "ALTER TABLE house DROP COLUMN identity",
        "ALTER TABLE house ADD COLUMN last_deleted INTEGER NOT NULL DEFAULT 0",
    ):
        migrator.sql(sql)
