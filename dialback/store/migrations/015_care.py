"""What asks for care about an athlete; body weight with its days; level and year of birth."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Add the tables and the columns; the columns in SQL, for rows refer to athletes."""

    @migrator.create_model
    class Weighing(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(migrator.orm["athlete"], backref="weighings")
        date = pw.DateField()
        kg = pw.FloatField()
        extra = pw.TextField(default="{}")

        class Meta:
            table_name = "weighing"
            indexes = ((("athlete", "date"), True),)

    @migrator.create_model
    class Caution(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(migrator.orm["athlete"], backref="cautions")
        kind = pw.CharField()
        word = pw.TextField(default="")
        by = pw.CharField()
        since = pw.DateField()
        ended_on = pw.DateField(null=True)
        extra = pw.TextField(default="{}")

        class Meta:
            table_name = "caution"

    migrator.sql("ALTER TABLE athlete ADD COLUMN level VARCHAR(255) NOT NULL DEFAULT ''")
    migrator.sql("ALTER TABLE athlete ADD COLUMN born INTEGER")


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop them."""
    migrator.remove_model("caution")
    migrator.remove_model("weighing")
    migrator.sql("ALTER TABLE athlete DROP COLUMN level")
    migrator.sql("ALTER TABLE athlete DROP COLUMN born")
