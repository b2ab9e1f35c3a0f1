"""What a week came to, kept beside the state it was worked out of."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Make the table."""

    @migrator.create_model
    class Verdict(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(migrator.orm["athlete"], backref="verdicts", unique=True)
        state = pw.CharField()
        body = pw.TextField()

        class Meta:
            table_name = "verdict"


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop it."""
    migrator.remove_model("verdict")
