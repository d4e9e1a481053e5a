"""Who is signed in where: a row a browser, so that signing out ends it here and not only in the browser."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql(
        """CREATE TABLE IF NOT EXISTS signed_in (
            token_hash VARCHAR(64) PRIMARY KEY, person_id INT NOT NULL, since DATETIME(6) NOT NULL,
            FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE)"""
    )
