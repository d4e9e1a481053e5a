"""A programme says how it teaches, and how strictly it is judged. A chair knows what was counted there without a clip; a card may carry a demonstration."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("ALTER TABLE programme ADD COLUMN IF NOT EXISTS method LONGTEXT NULL")
    db.execute_sql("ALTER TABLE seat ADD COLUMN IF NOT EXISTS counted LONGTEXT NULL")
    db.execute_sql("ALTER TABLE count_card ADD COLUMN IF NOT EXISTS shown_name VARCHAR(80) NOT NULL DEFAULT ''")
    db.execute_sql("ALTER TABLE count_card ADD COLUMN IF NOT EXISTS shown_type VARCHAR(32) NOT NULL DEFAULT ''")
