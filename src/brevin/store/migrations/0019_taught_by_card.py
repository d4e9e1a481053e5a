"""A card's own rules stand in its check's document, as answers to how one teaches: the layer of limits beside it was never written by any page."""


def up(migrator, db):
    """May be repeated."""
    db.execute_sql("ALTER TABLE asked_check DROP COLUMN IF EXISTS rules")
