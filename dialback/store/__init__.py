"""SQLite through peewee: models, migrations, and the way to core values and back."""
