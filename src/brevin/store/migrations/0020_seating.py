"""How a band sits, as its teacher seated it."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("ALTER TABLE programme ADD COLUMN IF NOT EXISTS seating LONGTEXT NULL")
