"""How long a programme keeps clips and stills: as long as they are not deleted, until somebody says otherwise."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("ALTER TABLE programme ADD COLUMN IF NOT EXISTS keep_days INTEGER NULL")
