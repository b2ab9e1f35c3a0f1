"""Kit of the room, blocks of weeks, templates."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Make the tables and columns."""
    migrator.add_fields("house", kit=pw.TextField(null=True), kit_revision=pw.IntegerField(default=1))

    @migrator.create_model
    class Block(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(migrator.orm["athlete"], backref="blocks")
        title = pw.CharField(default="")
        first_week = pw.CharField()
        weeks = pw.IntegerField()
        deleted_on = pw.DateField(null=True)

        class Meta:
            table_name = "block"
            indexes = ((("athlete", "first_week"), False),)

    @migrator.create_model
    class Template(pw.Model):
        id = pw.AutoField()
        name = pw.CharField()
        weeks = pw.IntegerField()
        sessions = pw.TextField()
        deleted_on = pw.DateField(null=True)

        class Meta:
            table_name = "template"


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop them."""
    migrator.remove_model("template")
    migrator.remove_model("block")
    migrator.remove_fields("house", "kit", "kit_revision")
