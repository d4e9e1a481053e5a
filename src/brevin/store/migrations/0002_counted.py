"""Where the app's own count stood on the clip's clock, for takes filmed while it counted."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("ALTER TABLE take ADD COLUMN IF NOT EXISTS first_inhale_s DOUBLE NULL")
