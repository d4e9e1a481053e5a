"""From which view and in which position a reading was made, and how large its breaths are: two readings are compared only like with like."""


def up(migrator, db):
    """May be repeated."""
    for key in ("view", "position"):
        db.execute_sql(f"ALTER TABLE report ADD COLUMN IF NOT EXISTS {key} VARCHAR(16) NOT NULL DEFAULT ''")
        db.execute_sql(f"UPDATE report SET {key} = COALESCE(JSON_VALUE(document, '$.{key}'), '') WHERE {key} = ''")
    db.execute_sql(
        """INSERT INTO measure (programme_id, student_id, take_id, instrument, made_at, measure_key, breath, value, half_width, withheld)
        SELECT a.programme_id, a.student_id, a.take_id, a.instrument, a.made_at, 'size_pct', a.breath, ABS(a.value) + ABS(c.value),
            SQRT(a.half_width * a.half_width + c.half_width * c.half_width), ''
        FROM measure a JOIN measure c ON c.take_id = a.take_id AND c.breath = a.breath AND c.measure_key = 'chest_amp'
        WHERE a.measure_key = 'abdomen_amp' AND a.value IS NOT NULL AND c.value IS NOT NULL
            AND NOT EXISTS (SELECT 1 FROM measure s WHERE s.take_id = a.take_id AND s.measure_key = 'size_pct')"""
    )
