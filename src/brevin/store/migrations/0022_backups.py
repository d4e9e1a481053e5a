"""Where backups are, and whether they still hold what was deleted here."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql(
        "CREATE TABLE IF NOT EXISTS backup_place (id INTEGER AUTO_INCREMENT NOT NULL PRIMARY KEY, path VARCHAR(512) NOT NULL, `key` VARCHAR(64) NOT NULL, "
        "made_at DATETIME(6), files INTEGER NOT NULL, size_bytes BIGINT NOT NULL, knows INTEGER NOT NULL, "
        "UNIQUE KEY backupplace_path (path)) "
        "DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci"
    )
    db.execute_sql("CREATE TABLE IF NOT EXISTS deletion (id INTEGER AUTO_INCREMENT NOT NULL PRIMARY KEY, at DATETIME(6) NOT NULL)")
