"""How long a reading took: whoever waits is told about how long it will be."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("ALTER TABLE take ADD COLUMN IF NOT EXISTS claimed_at DATETIME(6) NULL")
    db.execute_sql("ALTER TABLE take ADD COLUMN IF NOT EXISTS read_s DOUBLE NULL")
