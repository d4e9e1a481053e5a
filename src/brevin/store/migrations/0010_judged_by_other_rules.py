"""Who changed the rules is kept, and what a teacher ticked on a still. A report keeps what its verdicts stand on, so that a change of the rules can be
tried on it; what was read before is judged once more to have that.
"""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("ALTER TABLE report ADD COLUMN IF NOT EXISTS ground LONGTEXT NULL")
    db.execute_sql("ALTER TABLE take ADD COLUMN IF NOT EXISTS judge_due BOOL NOT NULL DEFAULT FALSE")
    db.execute_sql("CREATE INDEX IF NOT EXISTS take_judge_due ON take (judge_due)")
    db.execute_sql(
        """UPDATE take t LEFT JOIN (SELECT take_id, COUNT(*) AS reports, COUNT(ground) AS grounds FROM report GROUP BY take_id) r ON r.take_id = t.id
        SET t.judge_due = TRUE WHERE t.state = 'read' AND t.evidence_name <> '' AND r.reports > 0 AND r.grounds = 0"""
    )
    db.execute_sql("""CREATE TABLE IF NOT EXISTS rule_change (
        id INTEGER AUTO_INCREMENT PRIMARY KEY, programme_id INTEGER NOT NULL, by_id INTEGER NULL, made_at DATETIME(6) NOT NULL, what VARCHAR(16) NOT NULL,
        instrument VARCHAR(16) NOT NULL DEFAULT '', `before` LONGTEXT NOT NULL, `after` LONGTEXT NOT NULL,
        FOREIGN KEY (programme_id) REFERENCES programme (id) ON DELETE CASCADE, FOREIGN KEY (by_id) REFERENCES person (id) ON DELETE SET NULL)""")
    db.execute_sql("""CREATE TABLE IF NOT EXISTS tick (
        id INTEGER AUTO_INCREMENT PRIMARY KEY, programme_id INTEGER NOT NULL, student_id INTEGER NOT NULL, take_id VARCHAR(32) NOT NULL,
        instrument VARCHAR(16) NOT NULL, made_at DATETIME(6) NOT NULL, item VARCHAR(24) NOT NULL, state VARCHAR(16) NOT NULL, by_id INTEGER NULL,
        said_at DATETIME(6) NOT NULL, UNIQUE KEY tick_item (take_id, item), KEY tick_student (student_id),
        FOREIGN KEY (programme_id) REFERENCES programme (id) ON DELETE CASCADE, FOREIGN KEY (student_id) REFERENCES student (id) ON DELETE CASCADE,
        FOREIGN KEY (take_id) REFERENCES take (id) ON DELETE CASCADE, FOREIGN KEY (by_id) REFERENCES person (id) ON DELETE SET NULL)""")
