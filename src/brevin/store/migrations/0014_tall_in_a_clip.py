"""How far a trunk may sink: a limit of the clip, no longer of a minute."""

import json

NAMES = {"sag.steady": "tall.steady", "sag.work": "tall.work"}
JUDGED_OTHERWISE = ("keeps_tall", "shoulder_tilt", "axis_level", "axis_to_trunk", "elbow_left", "elbow_right")  # since then
CLIP_SHARE = 0.4  # of a minute: how long the clips were for which the limits a minute had been chosen


def up(migrator, db):
    """What a programme changed keeps its meaning. May be repeated."""
    for table in ("programme", "instrument_rules", "take"):
        for row_id, rules in db.execute_sql(f"SELECT id, rules FROM {table} WHERE rules LIKE '%%\"sag.%%'").fetchall():
            document = json.loads(rules)
            set_by = {NAMES.get(name, name): layer for name, layer in document.get("set_by", {}).items()}
            limits = {NAMES.get(name, name): value * CLIP_SHARE if name in NAMES else value for name, value in document.get("limits", {}).items()}
            db.execute_sql(
                f"UPDATE {table} SET rules = %s WHERE id = %s", (json.dumps(document | {"limits": limits} | ({"set_by": set_by} if set_by else {})), row_id)
            )
    judged = ", ".join(f"'{one}'" for one in JUDGED_OTHERWISE)
    db.execute_sql(f"UPDATE take SET judge_due = TRUE WHERE state = 'read' AND id IN (SELECT take_id FROM verdict WHERE criterion IN ({judged}))")
