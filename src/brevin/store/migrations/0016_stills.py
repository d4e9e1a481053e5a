"""Pictures of the moments that a report shows as stills: takes read before have none, and show the clip itself."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("ALTER TABLE take ADD COLUMN IF NOT EXISTS stills_name VARCHAR(80) NOT NULL DEFAULT ''")
