"""What the student felt stands beside the reading; the programme has count cards of its own; people are invited, phones paired, by one-time codes.

Until now a letter asked for filming alone, and clips were kept: both stand on record as they were meant.
"""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("ALTER TABLE take ADD COLUMN IF NOT EXISTS felt VARCHAR(16) NOT NULL DEFAULT ''")
    db.execute_sql("""CREATE TABLE IF NOT EXISTS count_card (
        id INTEGER AUTO_INCREMENT PRIMARY KEY, programme_id INTEGER NOT NULL, rung INTEGER NOT NULL, title VARCHAR(64) NOT NULL DEFAULT '',
        document LONGTEXT NOT NULL, FOREIGN KEY (programme_id) REFERENCES programme (id) ON DELETE CASCADE)""")
    db.execute_sql("""CREATE TABLE IF NOT EXISTS one_time (
        code_hash CHAR(64) PRIMARY KEY, kind VARCHAR(16) NOT NULL, programme_id INTEGER NOT NULL, person_id INTEGER NOT NULL,
        facts LONGTEXT NOT NULL, until DATETIME(6) NOT NULL, used_at DATETIME(6) NULL,
        FOREIGN KEY (programme_id) REFERENCES programme (id) ON DELETE CASCADE, FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE)""")
    db.execute_sql("ALTER TABLE lesson ADD COLUMN IF NOT EXISTS seats_now LONGTEXT NULL")
    db.execute_sql("ALTER TABLE programme ADD COLUMN IF NOT EXISTS empty_allowed BOOL NOT NULL DEFAULT 0")
    db.execute_sql("""INSERT INTO consent (student_id, purpose, given_by, from_day, until_day, withdrawn_on)
        SELECT c.student_id, 'keeping', c.given_by, c.from_day, c.until_day, c.withdrawn_on FROM consent c WHERE c.purpose = 'filming'
        AND NOT EXISTS (SELECT 1 FROM consent k WHERE k.student_id = c.student_id AND k.purpose = 'keeping')""")
    db.execute_sql("ALTER TABLE signed_in ADD COLUMN IF NOT EXISTS of_token VARCHAR(64) NOT NULL DEFAULT ''")
