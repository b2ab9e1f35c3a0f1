"""Maxima of athletes that were typed in."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Make the table."""

    @migrator.create_model
    class Maximum(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(migrator.orm["athlete"], backref="maxima")
        movement = pw.CharField()
        kg = pw.FloatField()
        date = pw.DateField()
        extra = pw.TextField(default="{}")

        class Meta:
            table_name = "maximum"
            indexes = [(("athlete", "movement", "date"), False)]


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop it."""
    migrator.remove_model("maximum")
