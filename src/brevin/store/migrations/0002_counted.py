"""Where the app's own count stood on the clip's clock, for takes filmed while it counted."""


def up(migrator, db):  # type: ignore[no-untyped-def]
    """May be repeated."""
    db.execute_sql("ALTER TABLE take ADD COLUMN IF NOT EXISTS first_inhale_s DOUBLE NULL")
