"""What the student felt stands beside the reading; the programme has count cards of its own; people are invited, phones paired, by one-time codes."""


def up(migrator, db):  # type: ignore[no-untyped-def]
    """May be repeated."""
    db.execute_sql("ALTER TABLE take ADD COLUMN IF NOT EXISTS felt VARCHAR(16) NOT NULL DEFAULT ''")
    db.execute_sql("""CREATE TABLE IF NOT EXISTS count_card (
        id INTEGER AUTO_INCREMENT PRIMARY KEY, programme_id INTEGER NOT NULL, rung INTEGER NOT NULL, title VARCHAR(64) NOT NULL DEFAULT '',
        document LONGTEXT NOT NULL, FOREIGN KEY (programme_id) REFERENCES programme (id) ON DELETE CASCADE)""")
    db.execute_sql("""CREATE TABLE IF NOT EXISTS one_time (
        code_hash CHAR(64) PRIMARY KEY, kind VARCHAR(16) NOT NULL, programme_id INTEGER NOT NULL, person_id INTEGER NOT NULL,
        facts LONGTEXT NOT NULL, until DATETIME(6) NOT NULL, used_at DATETIME(6) NULL,
        FOREIGN KEY (programme_id) REFERENCES programme (id) ON DELETE CASCADE, FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE)""")
    db.execute_sql("ALTER TABLE signed_in ADD COLUMN IF NOT EXISTS of_token VARCHAR(64) NOT NULL DEFAULT ''")
