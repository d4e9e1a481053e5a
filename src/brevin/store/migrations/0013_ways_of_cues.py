"""In which words a cue was said: those said before were the usual ones."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("ALTER TABLE cue_given ADD COLUMN IF NOT EXISTS way INT NOT NULL DEFAULT 0")
