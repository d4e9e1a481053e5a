"""A programme says how it teaches: the answers to five questions, and how strictly it is judged. A chair knows what was counted there without a clip."""


def up(migrator, db):  # type: ignore[no-untyped-def]
    """May be repeated."""
    db.execute_sql("ALTER TABLE programme ADD COLUMN IF NOT EXISTS method LONGTEXT NULL")
    db.execute_sql("ALTER TABLE seat ADD COLUMN IF NOT EXISTS counted LONGTEXT NULL")
