"""Logs that come from the floor and from files: ids made by clients, versions, measurements."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Make the tables and columns."""
    migrator.add_fields(
        "set",
        measured_reps=pw.IntegerField(null=True),
        measured_tension_s=pw.FloatField(null=True),
    )
    migrator.add_fields("house", unit=pw.CharField(default="kg"))

    @migrator.create_model
    class Import(pw.Model):
        id = pw.AutoField()
        name = pw.CharField()
        day = pw.DateField()
        undone_on = pw.DateField(null=True)

        class Meta:
            table_name = "import"

    migrator.add_fields(
        "session",
        client_id=pw.CharField(null=True, unique=True),
        last_change=pw.CharField(null=True),
        came_with=pw.ForeignKeyField(Import, null=True, backref="sessions"),
    )

    @migrator.create_model
    class Version(pw.Model):
        id = pw.AutoField()
        session = pw.ForeignKeyField(migrator.orm["session"], backref="versions")
        change = pw.CharField(unique=True)
        body = pw.TextField()
        day = pw.DateField()

        class Meta:
            table_name = "version"

    @migrator.create_model
    class ColumnChoice(pw.Model):
        id = pw.AutoField()
        heads = pw.TextField()
        choice = pw.TextField()

        class Meta:
            table_name = "column_choice"


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop them."""
    migrator.remove_model("column_choice")
    migrator.remove_model("version")
    migrator.remove_fields("session", "client_id", "last_change", "came_with")
    migrator.remove_model("import")
    migrator.remove_fields("house", "unit")
    migrator.remove_fields("set", "measured_reps", "measured_tension_s")
