"""A recording that was filmed in the page may be sent again after a broken line: it is one take all the same."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("ALTER TABLE take ADD COLUMN IF NOT EXISTS sent_as VARCHAR(36) NULL")
    db.execute_sql("CREATE UNIQUE INDEX IF NOT EXISTS take_sent_as ON take (sent_as)")
