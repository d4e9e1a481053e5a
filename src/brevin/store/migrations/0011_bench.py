"""The instrument bench: a section's way through the steps as the taps that were made, tries at first notes, care, passports, what needs a technician."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("ALTER TABLE programme ADD COLUMN IF NOT EXISTS bench LONGTEXT NULL")
    db.execute_sql("""CREATE TABLE IF NOT EXISTS bench_run (
        id INTEGER AUTO_INCREMENT PRIMARY KEY, programme_id INTEGER NOT NULL, card VARCHAR(16) NOT NULL, phase VARCHAR(16) NOT NULL,
        steps LONGTEXT NOT NULL, begun_at DATETIME(6) NOT NULL, finished_at DATETIME(6) NULL, KEY bench_run_open (programme_id, card, phase, finished_at),
        FOREIGN KEY (programme_id) REFERENCES programme (id) ON DELETE CASCADE)""")
    db.execute_sql("""CREATE TABLE IF NOT EXISTS bench_tap (
        id INTEGER AUTO_INCREMENT PRIMARY KEY, run_id INTEGER NOT NULL, does VARCHAR(16) NOT NULL, at DATETIME(6) NOT NULL,
        step VARCHAR(24) NOT NULL DEFAULT '', student_id INTEGER NULL, word VARCHAR(64) NOT NULL DEFAULT '', steps_order LONGTEXT NULL,
        by_id INTEGER NULL, KEY bench_tap_run (run_id),
        FOREIGN KEY (run_id) REFERENCES bench_run (id) ON DELETE CASCADE, FOREIGN KEY (student_id) REFERENCES student (id) ON DELETE CASCADE,
        FOREIGN KEY (by_id) REFERENCES person (id) ON DELETE SET NULL)""")
    for table, columns in (
        ("own_value", "value_key VARCHAR(24) NOT NULL, value DOUBLE NOT NULL, UNIQUE KEY own_value_key (student_id, value_key)"),
        ("sound_try", "instrument VARCHAR(16) NOT NULL, rung VARCHAR(16) NOT NULL, outcome VARCHAR(16) NOT NULL, fixed_by VARCHAR(32) NOT NULL DEFAULT ''"),
        ("care_done", "task VARCHAR(24) NOT NULL, batch VARCHAR(32) NOT NULL, KEY care_done_batch (batch)"),
        ("passport", "answers LONGTEXT NOT NULL, shown LONGTEXT NOT NULL, size VARCHAR(40) NOT NULL DEFAULT '', number VARCHAR(40) NOT NULL DEFAULT '', "
                     "own BOOL NOT NULL DEFAULT FALSE, UNIQUE KEY passport_of (student_id)"),
        ("repair", "what VARCHAR(160) NOT NULL, done_at DATETIME(6) NULL"),
    ):  # fmt: skip
        db.execute_sql(f"""CREATE TABLE IF NOT EXISTS {table} (
            id INTEGER AUTO_INCREMENT PRIMARY KEY, programme_id INTEGER NOT NULL, student_id INTEGER NOT NULL, {columns}, at DATETIME(6) NOT NULL,
            by_id INTEGER NULL, KEY {table}_student (student_id, at), FOREIGN KEY (programme_id) REFERENCES programme (id) ON DELETE CASCADE,
            FOREIGN KEY (student_id) REFERENCES student (id) ON DELETE CASCADE, FOREIGN KEY (by_id) REFERENCES person (id) ON DELETE SET NULL)""")
