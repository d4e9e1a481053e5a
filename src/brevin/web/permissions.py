"""Who may do what: one row a route, one set a role. A route without a row is refused to everybody, and a test says so."""

from typing import Literal

from brevin.store.scope import Acting

Permission = Literal["room", "read", "film", "tick", "overrule", "delete", "consent", "class", "rules", "people"]
OPEN = frozenset({"auth.me", "auth.sign_in", "auth.begin", "phone.join", "phone.accept", "page", "asset"})  # the page itself holds nothing of anybody

MAY: dict[Acting, frozenset[Permission]] = {
    "phone": frozenset({"room"}),
    "assistant": frozenset({"room", "read", "film", "tick"}),
    "teacher": frozenset({"room", "read", "film", "tick", "overrule", "delete", "consent", "class", "rules"}),
    "owner": frozenset({"room", "read", "film", "tick", "overrule", "delete", "consent", "class", "rules", "people"}),
}

NEEDS: dict[str, Permission] = {
    "auth.sign_out": "room", "auth.choose_programme": "read", "auth.new_programme": "people", "auth.change_programme": "people", "events.stream": "room",
    "classroom.everybody": "read", "classroom.look_at_list": "class", "classroom.list_file": "class", "classroom.change": "class",
    "classroom.give_consents": "consent", "classroom.plan_lesson": "class", "classroom.put_in": "class", "classroom.take_out": "class",
    "cards.ladder": "read", "cards.new_card": "class", "cards.change_card": "class", "cards.delete_card": "class", "cards.allow_empty": "rules",
    "cards.show": "class", "cards.hide": "class", "cards.shown": "room",
    "live.ready": "room", "live.mirror": "film", "live.face": "film", "takes.say_felt": "room",
    "lesson.today": "room", "lesson.change_seat": "room", "lesson.put_in_front": "room",
    "lesson.note_counted": "film", "lesson.give_card": "film", "lesson.reorder": "film", "lesson.calendar": "read",
    "students.all_students": "read", "students.takes_of": "read", "students.results_of": "read", "students.change_exempt": "rules",
    "students.exempt_changes": "rules", "students.give_consent": "consent",
    "students.all_held": "delete", "students.erase": "delete", "students.withdraw_consent": "consent",
    "filming.add_piece": "room", "filming.let_go": "room",
    "takes.all_takes": "read", "takes.new_take": "room", "takes.one_take": "read", "takes.report_of": "read", "takes.clip_of": "read", "takes.still_of": "read",
    "takes.read_again": "film", "takes.move": "film", "takes.edit": "overrule", "said.overrule": "overrule", "said.cue_given": "tick",
    "takes.delete": "delete", "said.ticks_of": "read", "said.tick": "tick", "said.overrules_of": "read", "said.cue_record": "read",
    "said.repetitions_of": "read", "said.since_first": "read", "drawings.drawings_of": "read", "drawings.draw": "tick", "drawings.rub_out": "tick",
    "past.before": "read", "helps.help_of": "read", "helps.fits_of": "read", "helps.keep_fit": "tick",
    "rules.rules": "read", "rules.change_rules": "rules", "rules.method": "read", "rules.judged_rows": "read", "rules.preview": "read", "rules.teach": "rules",
    "lines.examples": "read", "lines.line_of": "read", "lines.use_line": "rules", "lines.changes": "read",
    "phone.pair": "film", "phone.invite": "people", "phone.join_in": "read",
    "bench.sections": "read", "bench.card": "read", "bench.begin": "tick", "bench.tap": "tick", "bench.bench_rules": "read", "bench.change_rules": "rules",
    "bench_firsts.firsts": "read", "bench_firsts.came_out": "tick", "bench_firsts.fixed_by": "tick", "bench_firsts.take_back": "tick",
    "bench_firsts.listen": "tick",
    "bench_care.care": "read", "bench_care.log": "tick", "bench_care.undo_log": "tick", "bench_care.due_calendar": "read",
    "bench_care.passport": "read", "bench_care.keep_passport": "tick", "bench_care.keep_value": "tick", "bench_care.report_repair": "tick",
    "bench_care.repaired": "tick", "bench_record.of_student": "read", "bench_record.as_table": "read",
    "keeping.kept": "people", "keeping.keep": "people",
    "people.all_people": "people", "people.add_person": "people",
}  # fmt: skip
"""What a person needs for each route. ``room`` is what a phone on its stand does: the chairs of today, without verdicts; filming; who is not here."""


def allowed(role: Acting, endpoint: str | None) -> bool:
    """Whether a role may use a route."""
    needed = NEEDS.get(endpoint or "")
    return needed is not None and needed in MAY[role]
