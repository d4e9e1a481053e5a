"""Others in a clip are blurred in what is kept of it. What was kept before is looked at once."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("ALTER TABLE clip ADD COLUMN IF NOT EXISTS blurred_for INTEGER NULL")
    db.execute_sql("CREATE INDEX IF NOT EXISTS clip_blurred_for ON clip (blurred_for)")
