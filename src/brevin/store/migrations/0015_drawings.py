"""What a teacher draws on a clip: circles, arrows, notes."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("""CREATE TABLE IF NOT EXISTS drawing (
        id INTEGER AUTO_INCREMENT PRIMARY KEY, programme_id INTEGER NOT NULL, student_id INTEGER NOT NULL, take_id VARCHAR(32) NOT NULL,
        instrument VARCHAR(24) NOT NULL, made_at DATETIME(6) NOT NULL, shape VARCHAR(8) NOT NULL, t_s DOUBLE NOT NULL, x_px DOUBLE NOT NULL,
        y_px DOUBLE NOT NULL, to_x_px DOUBLE NOT NULL, to_y_px DOUBLE NOT NULL, words VARCHAR(160) NOT NULL DEFAULT '', by_id INTEGER NULL,
        said_at DATETIME(6) NOT NULL, KEY drawing_take (take_id),
        FOREIGN KEY (programme_id) REFERENCES programme (id) ON DELETE CASCADE, FOREIGN KEY (student_id) REFERENCES student (id) ON DELETE CASCADE,
        FOREIGN KEY (take_id) REFERENCES take (id) ON DELETE CASCADE, FOREIGN KEY (by_id) REFERENCES person (id) ON DELETE SET NULL)""")
