"""Every route, tried by every role in its own and in another programme: the list is the application's own, so that a new route is tried as well."""

import uuid
from dataclasses import replace
from datetime import timedelta

import numpy as np
import pytest

from brevin.edge.growing import begun
from brevin.edge.pictures import Pictures
from brevin.store import benches, cards, database, drawings, groups, instruments, lessons, programmes, sounds, students, takes
from brevin.store.scope import HOUSE, ROLES, Scope
from brevin.web.permissions import MAY, NEEDS, OPEN, allowed
from tests.conftest import CHECK
from tests.store.test_takes import FOUND, lesson_of, new_take, read_once
from tests.web.conftest import signed_in

TODAY = database.now().date()
BODIES: dict[str, dict] = {
    "auth.choose_programme": {"programme_id": 0}, "auth.new_programme": {"name": "Evenings"}, "auth.change_programme": {"name": "Mornings"},
    "phone.join_in": {"code": "NOSUCHCODE"}, "lesson.change_seat": {"away": "not_here"}, "students.change_exempt": {"exempt": ["pause"]},
    "students.give_consent": {"given_by": "g", "from_day": str(TODAY), "until_day": str(TODAY + timedelta(days=3))},
    "takes.edit": {"first_inhale_s": 3.0}, "said.overrule": {"criterion": "pause", "state": "watch"}, "said.cue_given": {"criterion": "pause"},
    "takes.say_felt": {"felt": "low"}, "takes.move": {"student_id": 0}, "rules.change_rules": {"document": {"limits": {}}},
    "classroom.give_consents": {"student_ids": [1], "given_by": "g", "until_day": str(TODAY + timedelta(days=3))},
    "classroom.put_in": {"name": "Monday", "student_ids": [1]}, "classroom.take_out": {"student_ids": [1]},
    "classroom.plan_lesson": {"title": "L", "student_ids": [1], "card_id": 0},
    "lesson.put_in_front": {"seat_id": 0}, "lesson.give_card": {"card_id": 0},
    "lesson.reorder": {"seat_ids": [1]}, "cards.new_card": {"rung": 1, "title": "R", "card": "3-0-4@72x3"},
    "cards.change_card": {"rung": 1, "title": "R", "card": "3-0-4@72x3"}, "phone.invite": {"name": "N", "role": "assistant"},
    "cards.allow_empty": {"allowed": True}, "lesson.note_counted": {"breaths": 3, "lasted_s": 20}, "rules.teach": {"answers": {"breathing_in": "belly_only"}},
    "lines.line_of": {"criterion": "abdomen_leads", "examples": [{"take_id": n, "value": v, "fine": v > 0.5} for n, v in (("a", 0.3), ("b", 0.8))]},
    "said.tick": {"item": "corners", "state": "fine"}, "lines.use_line": {"criterion": "abdomen_leads", "value": 0.55},
    "bench.begin": {"card": "clarinet", "phase": "together"}, "bench.tap": {"does": "stop"}, "bench.change_rules": {"gates": {"clarinet": True}},
    "bench_firsts.came_out": {"rung": "alone", "outcome": "thin"}, "bench_firsts.fixed_by": {"by": "reed"}, "bench_care.repaired": {"done": True},
    "bench_care.log": {"card": "clarinet", "task": "dry"}, "bench_care.keep_passport": {"answers": {"new_wood": True}},
    "bench_care.keep_value": {"key": "reed_tip_mm", "value": 0.3}, "bench_care.report_repair": {"what": "bent key"},
    "drawings.draw": {"shape": "circle", "t_s": 1.0, "at_px": [10, 10], "to_px": [20, 10]}, "helps.keep_fit": {"key": "fit.chair", "value": 41},
    "keeping.keep": {"days": 28}, "people.add_person": {"login": "newcomer", "name": "N", "role": "assistant", "password": "long enough"},
}  # fmt: skip
"""What a route wants to be sent; the keys of somebody's own are put in below."""
OWN_LAST = (
    "bench_care.undo_log", "bench_firsts.take_back", "drawings.rub_out", "cards.hide", "cards.delete_card", "students.withdraw_consent", "takes.delete",
    "students.erase",
    "auth.new_programme", "auth.sign_out",
)  # fmt: skip
"""Routes that end what the others need."""


@pytest.fixture
def things(scope: Scope, store, student, clip) -> dict[str, object]:
    """One of everything in the first programme."""
    lesson_of(scope, student.id)
    take = new_take(scope, student, clip)
    with Pictures(store.evidence / FOUND.stills_name) as pictures:
        pictures.keep(1.0, np.zeros((9, 16, 3), np.uint8))
    read_once(take.id, replace(FOUND, playable=(clip.stored_name, "video/mp4")))
    filmed = begun(store.filming, student.programme_id, student.id, str(uuid.uuid4()), "auto")
    filmed.path.parent.mkdir(exist_ok=True)
    filmed.path.touch()
    lesson, card = lessons.last_lesson(scope), cards.cards(scope)[0]
    cards.show(scope, card.id, clip.stored_name, "video/mp4")
    run = benches.begin(scope, card="clarinet", phase="together", steps=["ready", "case"])
    instruments.report_repair(scope, student.id, "bent key")
    bench = {
        "run_id": run.id, "try_id": sounds.add(scope, student.id, rung="alone", outcome="thin"), "undo": instruments.log_care(scope, [student.id], "dry"),
        "repair_id": instruments.repairs(scope, [student.id])[0].id,
    }  # fmt: skip
    return bench | {
        "drawing_id": drawings.draw(scope, takes.take_record(scope, take.id), drawings.Drawn("arrow", 1.0, (1.0, 1.0), (9.0, 9.0))),
        "take_id": take.id,
        "at_ms": 1000,
        "student_id": student.id,
        "seat_id": lesson.seats[0].id,
        "card_id": card.id,
        "group_id": groups.put_in(scope, "Monday", [student.id]),
        "lesson_id": lesson.id,
        "name": clip.stored_name,
        "key": filmed.key,
    }


def routes(app) -> list[tuple[str, str, str]]:
    """Endpoint, method and path of everything behind the door, those that end things last."""
    found = [(rule.endpoint, method, rule.rule) for rule in app.url_map.iter_rules() for method in rule.methods - {"HEAD", "OPTIONS"}]
    return sorted((r for r in found if r[0] not in OPEN), key=lambda r: (OWN_LAST.index(r[0]) if r[0] in OWN_LAST else -1, r))


def try_route(page, route: tuple[str, str, str], things: dict, programme_id: int):
    endpoint, method, path = route
    for name, value in things.items():
        path = path.replace(f"<int:{name}>", str(value)).replace(f"<{name}>", str(value))
    body = dict(BODIES.get(endpoint, {}))
    body |= {"programme_id": programme_id} if endpoint == "auth.choose_programme" else {}
    body |= {"student_id": things["student_id"]} if endpoint == "takes.move" else {}
    body |= {"seat_id": things["seat_id"]} if "seat_id" in body else {}
    body |= {"card_id": things["card_id"]} if "card_id" in body else {}
    body |= {"student_ids": [things["student_id"]]} if "student_ids" in body else {}
    path += "?criterion=abdomen_leads" if endpoint in ("lines.examples", "said.cue_record", "helps.help_of") else ""
    path += "?card=clarinet" if endpoint in ("bench.card", "bench_care.care") else ""
    path += f"?takes={things['take_id']}" if endpoint == "past.before" else ""
    if endpoint == "bench_firsts.listen":
        return page(method, path, query_string={"rate_hz": 16000}, data=bytes(32000), headers={"Content-Type": "application/octet-stream"})
    if endpoint == "cards.show":
        return page(method, path, data=b"no clip", headers={"Content-Type": "application/octet-stream"})
    if endpoint == "filming.add_piece":
        whose = {"student_id": things["student_id"], "seat_id": things["seat_id"], "at": 0}
        return page(method, path, query_string=whose, data=b"a piece", headers={"Content-Type": "application/octet-stream"})
    if endpoint == "takes.new_take":
        return page(method, path, query_string={"student_id": things["student_id"]}, data=b"no clip", headers={"Content-Type": "application/octet-stream"})
    return page(method, path, json=body, buffered=False)


def test_every_route_has_a_row_and_every_row_a_route(app) -> None:
    assert {endpoint for endpoint, _, _ in routes(app)} == set(NEEDS)
    assert not OPEN & set(NEEDS) and set(NEEDS.values()) <= MAY["owner"]


def test_the_roles_hold_what_the_job_says() -> None:
    assert MAY["assistant"] < MAY["teacher"] < MAY["owner"]
    assert not MAY["assistant"] & {"delete", "consent", "rules", "people", "overrule"} and {"film", "read", "tick"} <= MAY["assistant"]
    assert not allowed("owner", "no.such.route") and not allowed("owner", None)


def test_nobody_gets_past_the_door_unsigned(app, door, things) -> None:
    for route in routes(app):
        answer = try_route(door, route, things, 1)
        assert (answer.status_code, answer.json["code"]) == (401, "signed_out"), route


@pytest.mark.parametrize("role", ROLES)
def test_each_role_does_in_its_own_programme_what_it_may_and_no_more(app, scope, things, role) -> None:
    page = signed_in(app, scope, role)
    for route in routes(app):
        answer = try_route(page, route, things, scope.programme)
        if not allowed(role, route[0]):
            assert (answer.status_code, answer.json["code"]) == (403, "not_yours"), route
        else:
            assert answer.status_code in (200, 201, 409, 422) and answer.status_code != 403, (route, answer.status_code)
        answer.close()


@pytest.mark.parametrize("role", ROLES)
def test_no_role_reaches_into_another_programme(app, scope, things, role) -> None:
    before = takes.take_record(scope, things["take_id"])
    stranger = Scope(programmes.add_programme(HOUSE, name="Next door").id)
    page = signed_in(app, stranger, role)
    for route in routes(app):
        endpoint, _, path = route
        if endpoint == "auth.sign_out":
            continue
        answer = try_route(page, route, things, scope.programme)
        if not allowed(role, endpoint):
            assert answer.status_code == 403, route
        elif "<" in path or endpoint in ("auth.choose_programme", "takes.new_take", "classroom.give_consents"):
            assert answer.status_code == 404, (route, answer.status_code)
        elif endpoint != "events.stream":
            said = answer.get_data(as_text=True)
            assert things["take_id"] not in said and "Quillane" not in said, route
        answer.close()
    assert takes.take_record(scope, things["take_id"]) == before and students.student(scope, things["student_id"]).may_film_until


def test_an_assistant_films_reads_and_ticks(app, scope, student, clip) -> None:
    lesson_of(scope, student.id)
    seat = lessons.last_lesson(scope).seats[0]
    page = signed_in(app, scope, "assistant")
    assert page("GET", "/api/me").json["may"] == ["film", "read", "room", "tick"]
    assert page("PATCH", f"/api/seats/{seat.id}", json={"away": "not_today"}).status_code == 200
    take = new_take(scope, student, clip)
    assert page("GET", f"/api/takes/{take.id}").json["check"]["name"] == CHECK.name
    assert page("DELETE", f"/api/takes/{take.id}").json["code"] == "not_yours"
