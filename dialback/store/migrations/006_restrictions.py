"""Restrictions of athletes."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Make the table."""

    @migrator.create_model
    class Restriction(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(migrator.orm["athlete"], backref="restrictions")
        about = pw.CharField()
        subject = pw.CharField()
        most_sets = pw.FloatField(null=True)
        most_load_kg = pw.FloatField(null=True)
        least_s = pw.FloatField(null=True)
        most_s = pw.FloatField(null=True)
        word = pw.TextField(default="")
        by = pw.CharField()
        since = pw.DateField()
        lifted_on = pw.DateField(null=True)
        lifted_by = pw.CharField(null=True)
        extra = pw.TextField(default="{}")

        class Meta:
            table_name = "restriction"


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop it."""
    migrator.remove_model("restriction")
