"""How long the mouthpiece, reed or head joint alone sounded in a try."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("ALTER TABLE sound_try ADD COLUMN IF NOT EXISTS length_s DOUBLE NULL")
