"""Changes of plans, to be undone; goals; movements that move on by a rule of their own."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Add the tables and the column."""
    migrator.add_fields("movement", progress=pw.CharField(null=True))

    @migrator.create_model
    class PlanChange(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(migrator.orm["athlete"], backref="changes")
        day = pw.DateField()
        at = pw.CharField()
        says = pw.TextField()
        undo = pw.TextField()
        undone_on = pw.DateField(null=True)

        class Meta:
            table_name = "plan_change"
            indexes = ((("athlete", "day"), False),)

    @migrator.create_model
    class Goal(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(migrator.orm["athlete"], backref="goals")
        movement = pw.CharField()
        load_kg = pw.FloatField(default=0)
        reps = pw.IntegerField(null=True)
        seconds = pw.FloatField(null=True)
        since = pw.DateField()
        by = pw.DateField()
        extra = pw.TextField(default="{}")
        deleted_on = pw.DateField(null=True)

        class Meta:
            table_name = "goal"


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop them."""
    migrator.remove_fields("movement", "progress")
    migrator.remove_model("goal")
    migrator.remove_model("plan_change")
