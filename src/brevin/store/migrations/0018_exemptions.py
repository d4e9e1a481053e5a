"""Who left what out for a student, or took it in again, and when."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("""CREATE TABLE IF NOT EXISTS exemption_change (
        id INTEGER AUTO_INCREMENT PRIMARY KEY, student_id INTEGER NOT NULL, criterion VARCHAR(32) NOT NULL, out_now BOOL NOT NULL, by_id INTEGER NULL,
        made_at DATETIME(6) NOT NULL, KEY exemption_change_student (student_id, made_at),
        FOREIGN KEY (student_id) REFERENCES student (id) ON DELETE CASCADE, FOREIGN KEY (by_id) REFERENCES person (id) ON DELETE SET NULL)""")
