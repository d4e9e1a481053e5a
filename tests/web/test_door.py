import pytest

from brevin.web.app import OPEN


def test_every_route_but_the_door_is_locked(app, door) -> None:
    locked = [rule for rule in app.url_map.iter_rules() if rule.endpoint not in OPEN]
    assert len(locked) >= 9
    for rule in locked:
        path = rule.rule.replace("<take_id>", "abc").replace("<int:seat_id>", "1").replace("<int:student_id>", "1")
        for method in rule.methods - {"HEAD", "OPTIONS"}:
            answer = door(method, path, json={})
            assert (answer.status_code, answer.json["code"]) == (401, "signed_out"), (method, path)


def test_signing_in_and_out(door) -> None:
    assert door("GET", "/api/me").json["name"] is None
    assert door.sign_in().json["name"] == "Kim Okonjo"
    assert door("GET", "/api/students").status_code == 200
    assert door("POST", "/api/sign-out").json["name"] is None
    assert door("GET", "/api/students").status_code == 401


@pytest.mark.parametrize(("login", "password"), [("kim", "wrong"), ("nobody", "a-long-password"), ("", ""), ("kim' OR 1=1 -- ", "x")])
def test_a_wrong_sign_in_says_the_same_to_everyone(door, login: str, password: str) -> None:
    answer = door.sign_in(login, password)
    assert (answer.status_code, answer.json["code"]) == (403, "wrong_sign_in")


def test_too_many_tries_are_held_up(door) -> None:
    codes = [door.sign_in("kim", "wrong").json["code"] for _ in range(12)]
    assert codes[0] == "wrong_sign_in" and codes[-1] == "too_many_tries"


def test_a_change_without_the_pages_token_is_refused(page) -> None:
    answer = page("POST", "/api/sign-out", headers={"X-CSRFToken": "made up"})
    assert (answer.status_code, answer.json["code"]) == (400, "page_old")
    assert page("GET", "/api/me").json["name"] == "Kim Okonjo"


def test_a_removed_teacher_is_out_at_once(page) -> None:
    from brevin.store.database import db
    from brevin.store.models import Teacher

    with db.connection_context():
        Teacher.update(active=False).execute()
    assert page("GET", "/api/students").status_code == 401


def test_headers_keep_the_page_to_itself(door) -> None:
    answer = door("GET", "/")
    policy = answer.headers["Content-Security-Policy"]
    assert "default-src 'self'" in policy and "unsafe-inline" not in policy and "frame-ancestors 'none'" in policy
    nonce = answer.text.split('content="')[1].split('"')[0]
    assert f"'nonce-{nonce}'" in policy
    cookie = door("GET", "/api/me").headers.get("Set-Cookie", "HttpOnly; SameSite=Lax")
    assert "HttpOnly" in cookie and "SameSite=Lax" in cookie


def test_the_page_is_given_for_every_address_but_the_apis(door, page) -> None:
    assert door("GET", "/").status_code == 200 and door("GET", "/take/abc").status_code == 200
    assert page("GET", "/api/no-such-thing").json["code"] == "not_there"
    assert door("GET", "/assets/../app.py").status_code in (404, 401, 200)
    assert "create_app" not in door("GET", "/assets/..%2fapp.py").text
