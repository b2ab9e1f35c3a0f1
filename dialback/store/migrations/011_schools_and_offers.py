"""Schools of the house's own; offers that a coach has declined."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Add the column and the table."""
    migrator.add_fields("house", schools=pw.TextField(default="[]"))

    @migrator.create_model
    class Declined(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(migrator.orm["athlete"], backref="declined")
        code = pw.CharField()
        subject = pw.CharField()
        measure = pw.CharField()

        class Meta:
            table_name = "declined"
            indexes = ((("athlete", "code", "subject", "measure"), True),)


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop them."""
    migrator.remove_model("declined")
    migrator.remove_fields("house", "schools")
