"""The first tables."""

import peewee as pw
from peewee_migrate import Migrator


def migrate(migrator: Migrator, database: pw.Database, *, fake=False):
    """Make the tables."""
    
    @migrator.create_model
    class Athlete(pw.Model):
        id = pw.AutoField()
        name = pw.CharField(max_length=255)
        bodyweight_kg = pw.FloatField(null=True)
        note = pw.TextField(default='')
        rules = pw.TextField()
        extra = pw.TextField()
        revision = pw.IntegerField(default=1)
        change = pw.IntegerField(default=1)
        deleted_on = pw.DateField(null=True)

        class Meta:
            table_name = "athlete"

    @migrator.create_model
    class Acceptance(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(column_name='athlete_id', field='id', model=migrator.orm['athlete'])
        week = pw.CharField(max_length=255)
        basis = pw.CharField(max_length=255)
        code = pw.CharField(max_length=255)
        subject = pw.CharField(max_length=255)
        measure = pw.CharField(max_length=255)
        level = pw.CharField(max_length=255)
        value = pw.FloatField(null=True)
        reason = pw.TextField()
        day = pw.DateField()

        class Meta:
            table_name = "acceptance"
            indexes = [(('athlete', 'week', 'basis', 'code', 'subject', 'measure'), True)]

    @migrator.create_model
    class Draft(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(column_name='athlete_id', field='id', model=migrator.orm['athlete'])
        week = pw.CharField(max_length=255)
        sessions = pw.TextField()
        start_total = pw.IntegerField()
        revision = pw.IntegerField(default=1)

        class Meta:
            table_name = "draft"
            indexes = [(('athlete', 'week'), True)]

    @migrator.create_model
    class House(pw.Model):
        id = pw.AutoField()
        rules = pw.TextField()
        revision = pw.IntegerField(default=1)
        change = pw.IntegerField(default=1)

        class Meta:
            table_name = "house"

    @migrator.create_model
    class Movement(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(column_name='athlete_id', field='id', model=migrator.orm['athlete'], null=True)
        name = pw.CharField(max_length=255)
        folded = pw.CharField(max_length=255)
        pattern = pw.CharField(max_length=255)
        compound = pw.BooleanField()
        bodyweight_share = pw.FloatField()
        tempo = pw.CharField(max_length=255, null=True)
        isometric = pw.BooleanField()
        extra = pw.TextField()

        class Meta:
            table_name = "movement"
            indexes = [(('athlete', 'folded'), True)]

    @migrator.create_model
    class MovementMuscle(pw.Model):
        id = pw.AutoField()
        movement = pw.ForeignKeyField(column_name='movement_id', field='id', model=migrator.orm['movement'])
        muscle = pw.CharField(max_length=255)
        role = pw.CharField(max_length=255)

        class Meta:
            table_name = "movement_muscle"
            indexes = [(('movement', 'muscle'), True)]

    @migrator.create_model
    class Session(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(column_name='athlete_id', field='id', model=migrator.orm['athlete'])
        basis = pw.CharField(max_length=255)
        date = pw.DateField()
        title = pw.CharField(default='', max_length=255)
        rpe = pw.FloatField(null=True)
        duration_min = pw.FloatField(null=True)
        plan = pw.ForeignKeyField(column_name='plan_id', field='id', model='self', null=True)
        extra = pw.TextField()
        revision = pw.IntegerField(default=1)
        deleted_on = pw.DateField(null=True)

        class Meta:
            table_name = "session"
            indexes = [(('athlete', 'basis', 'date'), False)]

    @migrator.create_model
    class SetRow(pw.Model):
        id = pw.AutoField()
        session = pw.ForeignKeyField(column_name='session_id', field='id', model=migrator.orm['session'])
        position = pw.IntegerField()
        movement = pw.ForeignKeyField(column_name='movement_id', field='id', model=migrator.orm['movement'], null=True)
        reps = pw.IntegerField(null=True)
        seconds = pw.FloatField(null=True)
        load_kg = pw.FloatField()
        implements = pw.IntegerField()
        sides = pw.CharField(max_length=255)
        tempo = pw.CharField(max_length=255, null=True)
        hold_s = pw.FloatField()
        partial_reps = pw.IntegerField()
        rpe = pw.FloatField(null=True)
        warm_up = pw.BooleanField()
        rest_s = pw.FloatField(null=True)
        part = pw.CharField(max_length=255, null=True)
        extra = pw.TextField(null=True)

        class Meta:
            table_name = "set"
            indexes = [(('session', 'position'), True)]

    @migrator.create_model
    class SetMove(pw.Model):
        id = pw.AutoField()
        set = pw.ForeignKeyField(column_name='set_id', field='id', model=migrator.orm['set'])
        position = pw.IntegerField()
        movement = pw.ForeignKeyField(column_name='movement_id', field='id', model=migrator.orm['movement'])
        times = pw.FloatField()
        extra = pw.TextField(null=True)

        class Meta:
            table_name = "set_move"
            indexes = [(('set', 'position'), True)]

    @migrator.create_model
    class Signature(pw.Model):
        id = pw.AutoField()
        athlete = pw.ForeignKeyField(column_name='athlete_id', field='id', model=migrator.orm['athlete'])
        week = pw.CharField(max_length=255)
        name = pw.CharField(max_length=255)
        day = pw.DateField()

        class Meta:
            table_name = "signature"
            indexes = [(('athlete', 'week'), True)]


def rollback(migrator: Migrator, database: pw.Database, *, fake=False):
    """Drop them."""
    
    migrator.remove_model('signature')

    migrator.remove_model('set_move')

    migrator.remove_model('set')

    migrator.remove_model('session')

    migrator.remove_model('movement_muscle')

    migrator.remove_model('movement')

    migrator.remove_model('house')

    migrator.remove_model('draft')

    migrator.remove_model('acceptance')

    migrator.remove_model('athlete')
