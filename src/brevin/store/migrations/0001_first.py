"""People, consent, lessons, takes, clips and reports."""

STATEMENTS = (
    """CREATE TABLE IF NOT EXISTS teacher (
        id INT AUTO_INCREMENT PRIMARY KEY, login VARCHAR(64) NOT NULL UNIQUE, name VARCHAR(120) NOT NULL, role VARCHAR(16) NOT NULL,
        password_hash VARCHAR(255) NOT NULL, active BOOL NOT NULL)""",
    """CREATE TABLE IF NOT EXISTS student (
        id INT AUTO_INCREMENT PRIMARY KEY, name VARCHAR(120) NOT NULL, instrument VARCHAR(24) NOT NULL, note VARCHAR(255) NOT NULL, left_on DATE NULL)""",
    """CREATE TABLE IF NOT EXISTS consent (
        id INT AUTO_INCREMENT PRIMARY KEY, student_id INT NOT NULL, purpose VARCHAR(32) NOT NULL, given_by VARCHAR(120) NOT NULL,
        from_day DATE NOT NULL, until_day DATE NOT NULL, withdrawn_on DATE NULL,
        FOREIGN KEY (student_id) REFERENCES student (id) ON DELETE CASCADE)""",
    """CREATE TABLE IF NOT EXISTS lesson (
        id INT AUTO_INCREMENT PRIMARY KEY, title VARCHAR(120) NOT NULL, group_name VARCHAR(120) NOT NULL,
        starts_at DATETIME(6) NOT NULL, minutes INT NOT NULL)""",
    """CREATE TABLE IF NOT EXISTS seat (
        id INT AUTO_INCREMENT PRIMARY KEY, lesson_id INT NOT NULL, student_id INT NOT NULL, place INT NOT NULL, minute FLOAT NOT NULL,
        card VARCHAR(48) NOT NULL, position VARCHAR(16) NOT NULL, side VARCHAR(16) NOT NULL, away VARCHAR(16) NOT NULL,
        UNIQUE KEY seat_place (lesson_id, place),
        FOREIGN KEY (lesson_id) REFERENCES lesson (id) ON DELETE CASCADE, FOREIGN KEY (student_id) REFERENCES student (id) ON DELETE CASCADE)""",
    """CREATE TABLE IF NOT EXISTS take (
        id VARCHAR(32) PRIMARY KEY, student_id INT NOT NULL, teacher_id INT NULL, lesson_id INT NULL, made_at DATETIME(6) NOT NULL,
        card VARCHAR(48) NOT NULL, instrument VARCHAR(24) NOT NULL, try_number INT NOT NULL, state VARCHAR(16) NOT NULL, stage VARCHAR(48) NOT NULL,
        progress FLOAT NOT NULL, reason_code VARCHAR(48) NOT NULL, reason_text VARCHAR(400) NOT NULL, attempts INT NOT NULL,
        lease_token VARCHAR(32) NOT NULL, lease_until DATETIME(6) NULL,
        KEY take_made_at (made_at), KEY take_state (state),
        FOREIGN KEY (student_id) REFERENCES student (id) ON DELETE CASCADE, FOREIGN KEY (teacher_id) REFERENCES teacher (id) ON DELETE SET NULL,
        FOREIGN KEY (lesson_id) REFERENCES lesson (id) ON DELETE SET NULL)""",
    """CREATE TABLE IF NOT EXISTS clip (
        id INT AUTO_INCREMENT PRIMARY KEY, take_id VARCHAR(32) NOT NULL UNIQUE, stored_name VARCHAR(80) NOT NULL, original_name VARCHAR(160) NOT NULL,
        sha256 VARCHAR(64) NOT NULL, size_bytes BIGINT NOT NULL, playable_name VARCHAR(80) NOT NULL, playable_type VARCHAR(32) NOT NULL,
        KEY clip_sha256 (sha256), FOREIGN KEY (take_id) REFERENCES take (id) ON DELETE CASCADE)""",
    """CREATE TABLE IF NOT EXISTS report (
        id INT AUTO_INCREMENT PRIMARY KEY, take_id VARCHAR(32) NOT NULL, version INT NOT NULL, made_at DATETIME(6) NOT NULL,
        software_version VARCHAR(24) NOT NULL, thresholds_id VARCHAR(24) NOT NULL, profile_id VARCHAR(64) NOT NULL, readable BOOL NOT NULL,
        state VARCHAR(16) NOT NULL, words VARCHAR(400) NOT NULL, cue VARCHAR(255) NOT NULL,
        document LONGTEXT NOT NULL, UNIQUE KEY report_version (take_id, version),
        FOREIGN KEY (take_id) REFERENCES take (id) ON DELETE CASCADE)""",
)


def up(migrator, db):
    """Every statement may be repeated."""
    for statement in STATEMENTS:
        db.execute_sql(statement + " CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")
