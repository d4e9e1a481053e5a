"""Programmes with members and groups, checks as documents, rules and edits at the take, evidence, rows of measures and verdicts, files that are to go."""

import hashlib
import json

from brevin.core.errors import InvalidInput
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check, to_document

TABLES = (
    """CREATE TABLE IF NOT EXISTS programme (
        id INT AUTO_INCREMENT PRIMARY KEY, name VARCHAR(120) NOT NULL, time_zone VARCHAR(64) NOT NULL, rules TEXT NOT NULL)""",
    """CREATE TABLE IF NOT EXISTS membership (
        id INT AUTO_INCREMENT PRIMARY KEY, programme_id INT NOT NULL, person_id INT NOT NULL, role VARCHAR(16) NOT NULL,
        UNIQUE KEY membership_person (programme_id, person_id),
        FOREIGN KEY (programme_id) REFERENCES programme (id) ON DELETE CASCADE, FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE)""",
    """CREATE TABLE IF NOT EXISTS student_group (
        id INT AUTO_INCREMENT PRIMARY KEY, programme_id INT NOT NULL, name VARCHAR(120) NOT NULL,
        FOREIGN KEY (programme_id) REFERENCES programme (id) ON DELETE CASCADE)""",
    """CREATE TABLE IF NOT EXISTS instrument_rules (
        id INT AUTO_INCREMENT PRIMARY KEY, programme_id INT NOT NULL, instrument VARCHAR(24) NOT NULL, rules TEXT NOT NULL,
        UNIQUE KEY instrument_rules_one (programme_id, instrument), FOREIGN KEY (programme_id) REFERENCES programme (id) ON DELETE CASCADE)""",
    """CREATE TABLE IF NOT EXISTS group_student (
        id INT AUTO_INCREMENT PRIMARY KEY, group_id INT NOT NULL, student_id INT NOT NULL, UNIQUE KEY group_student_one (group_id, student_id),
        FOREIGN KEY (group_id) REFERENCES student_group (id) ON DELETE CASCADE, FOREIGN KEY (student_id) REFERENCES student (id) ON DELETE CASCADE)""",
    """CREATE TABLE IF NOT EXISTS asked_check (
        id INT AUTO_INCREMENT PRIMARY KEY, programme_id INT NOT NULL, fingerprint VARCHAR(64) NOT NULL, name VARCHAR(64) NOT NULL, document TEXT NOT NULL,
        rules TEXT NOT NULL, UNIQUE KEY asked_check_one (programme_id, fingerprint),
        FOREIGN KEY (programme_id) REFERENCES programme (id) ON DELETE CASCADE)""",
    """CREATE TABLE IF NOT EXISTS file_to_go (
        id INT AUTO_INCREMENT PRIMARY KEY, folder VARCHAR(24) NOT NULL, name VARCHAR(80) NOT NULL, since DATETIME(6) NOT NULL,
        UNIQUE KEY file_to_go_one (folder, name))""",
    """CREATE TABLE IF NOT EXISTS page_change (
        id INT AUTO_INCREMENT PRIMARY KEY, programme INT NOT NULL, kind VARCHAR(16) NOT NULL, ref VARCHAR(32) NOT NULL, at DATETIME(6) NOT NULL,
        KEY page_change_at (at))""",
)
OF_TAKE = """id INT AUTO_INCREMENT PRIMARY KEY, programme_id INT NOT NULL, student_id INT NOT NULL, take_id VARCHAR(32) NOT NULL,
    instrument VARCHAR(24) NOT NULL, made_at DATETIME(6) NOT NULL, FOREIGN KEY (programme_id) REFERENCES programme (id) ON DELETE CASCADE,
    FOREIGN KEY (student_id) REFERENCES student (id) ON DELETE CASCADE, FOREIGN KEY (take_id) REFERENCES take (id) ON DELETE CASCADE"""
ROWS = (
    f"""CREATE TABLE IF NOT EXISTS measure ({OF_TAKE}, measure_key VARCHAR(32) NOT NULL, breath INT NULL, segment VARCHAR(24) NULL, value DOUBLE NULL,
        half_width DOUBLE NULL, withheld VARCHAR(32) NOT NULL, KEY measure_student (student_id, measure_key, made_at),
        KEY measure_programme (programme_id, measure_key, instrument, made_at))""",
    f"""CREATE TABLE IF NOT EXISTS verdict ({OF_TAKE}, criterion VARCHAR(32) NOT NULL, state VARCHAR(16) NOT NULL, value DOUBLE NULL, half_width DOUBLE NULL,
        side VARCHAR(8) NOT NULL, outside BOOL NOT NULL, steady_breaths INT NULL, counted_breaths INT NULL, reason VARCHAR(32) NOT NULL,
        KEY verdict_student (student_id, criterion, made_at), KEY verdict_programme (programme_id, criterion, instrument, made_at))""",
    f"""CREATE TABLE IF NOT EXISTS overrule ({OF_TAKE}, criterion VARCHAR(32) NOT NULL, breath INT NULL, state VARCHAR(16) NOT NULL,
        reason VARCHAR(255) NOT NULL, by_id INT NULL, said_at DATETIME(6) NOT NULL, KEY overrule_student (student_id, criterion, said_at),
        FOREIGN KEY (by_id) REFERENCES person (id) ON DELETE SET NULL)""",
    f"""CREATE TABLE IF NOT EXISTS cue_given ({OF_TAKE}, criterion VARCHAR(32) NOT NULL, side VARCHAR(8) NOT NULL, by_id INT NULL,
        said_at DATETIME(6) NOT NULL, KEY cue_given_student (student_id, criterion, said_at),
        FOREIGN KEY (by_id) REFERENCES person (id) ON DELETE SET NULL)""",
)
COLUMNS = (
    "ALTER TABLE student ADD COLUMN IF NOT EXISTS programme_id INT NULL",
    "ALTER TABLE student ADD COLUMN IF NOT EXISTS exempt TEXT NOT NULL DEFAULT '[]'",
    "ALTER TABLE lesson ADD COLUMN IF NOT EXISTS programme_id INT NULL, ADD COLUMN IF NOT EXISTS group_id INT NULL",
    "ALTER TABLE seat ADD COLUMN IF NOT EXISTS asked_id INT NULL",
    """ALTER TABLE take ADD COLUMN IF NOT EXISTS programme_id INT NULL, ADD COLUMN IF NOT EXISTS asked_id INT NULL,
        ADD COLUMN IF NOT EXISTS rules TEXT NOT NULL DEFAULT '{}', ADD COLUMN IF NOT EXISTS edits TEXT NOT NULL DEFAULT '{}',
        ADD COLUMN IF NOT EXISTS reason_facts TEXT NOT NULL DEFAULT '{}', ADD COLUMN IF NOT EXISTS evidence_name VARCHAR(80) NOT NULL DEFAULT '',
        CHANGE COLUMN IF EXISTS teacher_id filmed_by_id INT NULL""",
    "ALTER TABLE report ADD COLUMN IF NOT EXISTS headline TEXT NOT NULL DEFAULT '{}'",
)
KEYS = (
    ("student", "student_programme", "programme_id", "programme", "CASCADE"), ("lesson", "lesson_programme", "programme_id", "programme", "CASCADE"),
    ("lesson", "lesson_group", "group_id", "student_group", "SET NULL"), ("seat", "seat_asked", "asked_id", "asked_check", "RESTRICT"),
    ("take", "take_programme", "programme_id", "programme", "CASCADE"), ("take", "take_asked", "asked_id", "asked_check", "RESTRICT"),
)  # fmt: skip
DROPPED = (
    "ALTER TABLE student MODIFY programme_id INT NOT NULL",
    "ALTER TABLE lesson MODIFY programme_id INT NOT NULL, DROP COLUMN IF EXISTS group_name",
    "ALTER TABLE seat MODIFY asked_id INT NOT NULL, DROP COLUMN IF EXISTS card, DROP COLUMN IF EXISTS position",
    """ALTER TABLE take MODIFY programme_id INT NOT NULL, MODIFY asked_id INT NOT NULL, DROP COLUMN IF EXISTS card, DROP COLUMN IF EXISTS instrument,
        DROP COLUMN IF EXISTS reason_text""",
    "ALTER TABLE report DROP COLUMN IF EXISTS state, DROP COLUMN IF EXISTS words, DROP COLUMN IF EXISTS cue",
    "ALTER TABLE person DROP COLUMN IF EXISTS role",
    "DROP DATABASE IF EXISTS brevin_queue",
)


def up(migrator, db):
    """Every step may be repeated: what was done already is found done."""
    run = db.execute_sql
    if not _has(db, "person", "id"):
        run("RENAME TABLE IF EXISTS teacher TO person")
    run("DROP TABLE IF EXISTS teacher")  # an empty one, where the first step was repeated
    for statement in (*TABLES, *COLUMNS, *ROWS):
        run(statement + (" CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci" if statement.startswith("CREATE") else ""))
    if _rows(db, "SELECT id FROM student WHERE programme_id IS NULL UNION SELECT id FROM person LIMIT 1"):
        _into_one_programme(db)
    for table, name, column, target, gone in KEYS:
        if not _rows(db, "SELECT 1 FROM information_schema.table_constraints WHERE constraint_schema = DATABASE() AND constraint_name = %s", name):
            run(f"ALTER TABLE {table} ADD CONSTRAINT {name} FOREIGN KEY ({column}) REFERENCES {target} (id) ON DELETE {gone}")
    _reports(db)
    for statement in DROPPED:
        run(statement)


def _rows(db, sql, *values):
    return list(db.execute_sql(sql, values).fetchall())


def _has(db, table, column):
    sql = "SELECT 1 FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = %s AND column_name = %s"
    return bool(_rows(db, sql, table, column))


def _into_one_programme(db):
    """Everything that stands belongs to one programme; who could sign in is a member of it, the first teacher its owner."""
    run = db.execute_sql
    if not _rows(db, "SELECT id FROM programme LIMIT 1"):
        groups = _rows(db, "SELECT group_name FROM lesson ORDER BY starts_at DESC LIMIT 1") if _has(db, "lesson", "group_name") else []
        run("INSERT INTO programme (name, time_zone, rules) VALUES (%s, 'UTC', '{}')", (groups[0][0] if groups else "Our programme",))
    [(programme,)] = _rows(db, "SELECT MIN(id) FROM programme")
    if _has(db, "person", "role"):
        people = _rows(db, "SELECT id, role FROM person ORDER BY id")
        owner = next((key for key, role in people if role == "teacher"), None)
        for key, role in people:
            run("INSERT IGNORE INTO membership (programme_id, person_id, role) VALUES (%s, %s, %s)", (programme, key, "owner" if key == owner else role))
    run("UPDATE student SET programme_id = %s WHERE programme_id IS NULL", (programme,))
    run("UPDATE lesson SET programme_id = %s WHERE programme_id IS NULL", (programme,))
    run("UPDATE take SET programme_id = %s WHERE programme_id IS NULL", (programme,))
    if _has(db, "lesson", "group_name"):
        _groups(db, programme)
    if _has(db, "seat", "card"):
        for key, card, position, instrument in _rows(
            db, "SELECT seat.id, card, position, student.instrument FROM seat JOIN student ON student.id = student_id WHERE asked_id IS NULL"
        ):
            run("UPDATE seat SET asked_id = %s WHERE id = %s", (_check(db, programme, card, instrument, position), key))
    if _has(db, "take", "card"):
        for key, card, instrument in _rows(db, "SELECT id, card, instrument FROM take WHERE asked_id IS NULL"):
            run("UPDATE take SET asked_id = %s WHERE id = %s", (_check(db, programme, card, instrument, "auto"), key))


def _groups(db, programme):
    run = db.execute_sql
    for key, name in _rows(db, "SELECT id, group_name FROM lesson WHERE group_id IS NULL"):
        known = _rows(db, "SELECT id FROM student_group WHERE programme_id = %s AND name = %s", programme, name)
        if not known:
            run("INSERT INTO student_group (programme_id, name) VALUES (%s, %s)", (programme, name))
            known = _rows(db, "SELECT id FROM student_group WHERE programme_id = %s AND name = %s", programme, name)
        run("UPDATE lesson SET group_id = %s WHERE id = %s", (known[0][0], key))
        run("INSERT IGNORE INTO group_student (group_id, student_id) SELECT %s, student_id FROM seat WHERE lesson_id = %s", (known[0][0], key))


def _check(db, programme, card, instrument, position):
    """The key of the check that asks for this; made where it is new. A card that is none was read without one."""
    try:
        counted = parse(card) if card else None
    except InvalidInput:
        counted = None
    check = Check(card=counted, position=position if position in ("seated", "standing", "lying") else "auto", instrument=instrument)
    document = to_document(check)
    fingerprint = hashlib.sha256(json.dumps([document, {}], sort_keys=True).encode()).hexdigest()
    sql = "INSERT IGNORE INTO asked_check (programme_id, fingerprint, name, document, rules) VALUES (%s, %s, %s, %s, '{}')"
    db.execute_sql(sql, (programme, fingerprint, check.name, json.dumps(document)))
    return _rows(db, "SELECT id FROM asked_check WHERE programme_id = %s AND fingerprint = %s", programme, fingerprint)[0][0]


def _reports(db):
    """The line for lists as codes, and the newest report's numbers and verdicts as rows."""
    sql = """SELECT report.id, take.id, take.programme_id, take.student_id, student.instrument, take.made_at, report.document, report.version,
        (SELECT MAX(version) FROM report AS other WHERE other.take_id = take.id) FROM report JOIN take ON take.id = report.take_id
        JOIN student ON student.id = take.student_id WHERE report.headline = '{}'"""
    for key, take, programme, student, instrument, made_at, text, version, newest in _rows(db, sql):
        document = json.loads(text)
        if version == newest:
            db.execute_sql("DELETE FROM measure WHERE take_id = %s", (take,))
            db.execute_sql("DELETE FROM verdict WHERE take_id = %s", (take,))
            _insert_rows(db, (programme, student, take, instrument, made_at), document)
        db.execute_sql("UPDATE report SET headline = %s WHERE id = %s", (json.dumps(_headline(document)), key))


def _side(verdict):
    limits, value = verdict.get("threshold") or {}, verdict.get("value")
    if value is None or not limits:
        return None
    low, high = limits.get("steady_low"), limits.get("steady_high")
    if low is None or high is None:
        return "low" if high is None else "high"
    return "low" if value < (low + high) / 2 else "high"


def _headline(document):
    cue = document.get("cue")
    said = {v["criterion"]: _side(v) for v in document["verdicts"]}
    cue = {"criterion": cue["criterion"], "side": said.get(cue["criterion"])} if cue else None
    if not document["readable_for"]["breath"]:
        reasons = document["reasons"]
        return {"state": "unreadable", "reason": reasons[0]["code"] if reasons else "no_person", "facts": {}, "cue": cue}
    judged = [v for v in document["verdicts"] if v["state"] != "unreadable"]
    state = next((s for s in ("work", "watch", "steady") if any(v["state"] == s for v in judged)), "unreadable")
    faults = [{"criterion": v["criterion"], "side": _side(v)} for v in judged if v["state"] == state and v.get("outside")]
    patterns = [b["pattern"] for b in document["breaths"]]
    return {"state": state, "faults": faults[:2], "pattern": max(set(patterns), key=patterns.count) if patterns else None, "cue": cue}


def _insert_rows(db, of_take, document):
    columns = "programme_id, student_id, take_id, instrument, made_at"
    for index, breath in enumerate(document["breaths"]):
        for key, half_width in breath["uncertainty"].items():
            value = breath.get(key)
            db.execute_sql(
                f"INSERT INTO measure ({columns}, measure_key, breath, value, half_width, withheld) VALUES (%s, %s, %s, %s, %s, %s, %s, %s, %s, %s)",
                (*of_take, key, index, value, half_width, "" if value is not None else "unknown"),
            )
    for key, found in document["posture"].items():
        if found is not None:
            db.execute_sql(
                f"INSERT INTO measure ({columns}, measure_key, value, half_width, withheld) VALUES (%s, %s, %s, %s, %s, %s, %s, %s, '')",
                (*of_take, key, found["value"], found["uncertainty"]),
            )
    for verdict in document["verdicts"]:
        db.execute_sql(
            f"INSERT INTO verdict ({columns}, criterion, state, value, half_width, side, outside, reason) "
            "VALUES (%s, %s, %s, %s, %s, %s, %s, %s, %s, %s, %s, '')",
            (*of_take, verdict["criterion"], verdict["state"], verdict["value"], verdict["uncertainty"], _side(verdict) or "", bool(verdict.get("outside"))),
        )
