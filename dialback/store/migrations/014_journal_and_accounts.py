"""The journal in place of the changes of plans; accounts."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Add the tables; what was noted of plans goes on as entries of the journal."""

    @migrator.create_model
    class JournalEntry(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(migrator.orm["athlete"], null=True, backref="journal")
        day = pw.DateField()
        at = pw.CharField()
        until = pw.CharField()
        times = pw.IntegerField(default=1)
        who = pw.CharField(default="")
        place = pw.CharField(default="")
        says = pw.TextField()
        same = pw.CharField(default="")
        undo = pw.TextField(null=True)
        undone_on = pw.DateField(null=True)

        class Meta:
            table_name = "journal"
            indexes = ((("athlete", "day"), False),)

    @migrator.create_model
    class Account(pw.Model):
        id = pw.AutoField()
        name = pw.CharField()
        folded = pw.CharField(unique=True)
        role = pw.CharField()
        athlete = pw.ForeignKeyField(
            migrator.orm["athlete"], null=True, unique=True, backref="accounts"
        )
        password = pw.CharField(null=True)
        door = pw.CharField(null=True, unique=True)
        stamp = pw.IntegerField(default=1)
        made_on = pw.DateField()
        seen_on = pw.DateField(null=True)

        class Meta:
            table_name = "account"

    migrator.sql(
        "INSERT INTO journal (id, athlete_id, day, at, until, times, who, place, says, same, undo,"
        " undone_on) SELECT id, athlete_id, day, at, at, 1, \'\', \'\', says, \'\', undo,"
        " undone_on FROM plan_change"
    )
    migrator.remove_model("plan_change")


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop them; the changes of plans stay as they were noted."""

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

    migrator.remove_model("account")
    migrator.remove_model("journal")
