import gzip
from datetime import timedelta

import pytest

from brevin.ops import demo
from brevin.store import programmes, sessions
from brevin.store.database import db, now
from brevin.store.door_models import SignedIn
from brevin.store.models import Membership
from brevin.store.scope import HOUSE, Scope
from tests.conftest import HASHER, NOBODY
from tests.web.conftest import Page


def test_signing_in_and_out(door) -> None:
    assert door("GET", "/api/me").json["name"] is None
    assert door.sign_in().json["name"] == "Ida Owner"
    assert door("GET", "/api/students").status_code == 200
    assert door("POST", "/api/sign-out").json["name"] is None
    assert door("GET", "/api/students").status_code == 401


@pytest.mark.parametrize(("login", "password"), [("owner", "wrong"), ("nobody", "a-long-password"), ("", ""), ("kim' OR 1=1 -- ", "x")])
def test_a_wrong_sign_in_says_the_same_to_everyone(door, login: str, password: str) -> None:
    answer = door.sign_in(login, password)
    assert (answer.status_code, answer.json["code"]) == (403, "wrong_sign_in")


@pytest.fixture
def unknown(monkeypatch: pytest.MonkeyPatch) -> None:
    """Nobody is known, and nothing is hashed to find that out: the tries alone are counted."""
    monkeypatch.setattr(programmes, "sign_in", lambda *asked: None)


def test_too_many_tries_are_held_up(door, unknown) -> None:
    codes = [door.sign_in("owner", "wrong").json["code"] for _ in range(12)]
    assert codes[0] == "wrong_sign_in" and codes[-1] == "too_many_tries"


def test_a_change_without_the_pages_token_is_refused(page) -> None:
    answer = page("POST", "/api/sign-out", headers={"X-CSRFToken": "made up"})
    assert (answer.status_code, answer.json["code"]) == (400, "page_old")
    assert page("GET", "/api/me").json["name"] == "Ida Owner"


def test_a_removed_teacher_is_out_at_once(page) -> None:
    from brevin.store.models import Person

    with db.connection_context():
        Person.update(active=False).execute()
    assert page("GET", "/api/students").status_code == 401


def test_headers_keep_the_page_to_itself(door) -> None:
    answer = door("GET", "/")
    policy = answer.headers["Content-Security-Policy"]
    assert "default-src 'self'" in policy and "unsafe-inline" not in policy and "frame-ancestors 'none'" in policy
    nonce = answer.text.split('content="')[1].split('"')[0]
    assert f"'nonce-{nonce}'" in policy
    cookie = door.sign_in().headers["Set-Cookie"]
    assert "HttpOnly" in cookie and "SameSite=Lax" in cookie
    assert door("GET", "/api/students").headers["Cache-Control"] == "no-store"


def test_the_page_is_given_for_every_address_but_the_apis(door, page) -> None:
    assert door("GET", "/").status_code == 200 and door("GET", "/take/abc").status_code == 200
    assert page("GET", "/api/no-such-thing").json["code"] == "not_there"
    for path in ("/assets/../app.py", "/assets/..%2fapp.py", "/assets/%2e%2e/index.html"):
        assert "create_app" not in door("GET", path).text and door("GET", "/assets/..%2findex.html").status_code == 404


def test_a_person_of_two_programmes_looks_at_one_at_a_time(door, scope, student) -> None:
    other = Scope(programmes.add_programme(HOUSE, name="Second band").id)
    programmes.join(other, login="owner", role="assistant")
    me = door.sign_in().json
    assert [p["name"] for p in me["programmes"]] == ["Made-up winds", "Second band"] and me["programme"]["name"] == "Made-up winds"
    assert len(door("GET", "/api/students").json["students"]) == 1
    moved = door("POST", "/api/programme", json={"programme_id": other.programme}).json
    assert (moved["role"], moved["programme"]["name"]) == ("assistant", "Second band")
    assert door("GET", "/api/students").json["students"] == []


def test_who_belongs_to_no_programme_is_told_whom_to_ask(door, scope) -> None:
    with db.connection_context():
        Membership.delete().execute()
    assert door.sign_in().json["code"] == "no_programme"


def test_a_cookie_that_was_kept_opens_nothing_once_its_browser_has_signed_out(door) -> None:
    door.sign_in()
    kept = door.client.get_cookie("brevin").value
    door("POST", "/api/sign-out")
    door.client.set_cookie("brevin", kept)
    assert door("GET", "/api/students").status_code == 401 and door("GET", "/api/me").json["name"] is None


def test_signing_out_here_leaves_the_other_browser_signed_in(app, page) -> None:
    other = Page(app.test_client())
    other.sign_in()
    other("POST", "/api/sign-out")
    assert page("GET", "/api/students").status_code == 200


def test_a_new_password_ends_every_session_that_the_old_one_began(app, page) -> None:
    programmes.set_password(HOUSE, "owner", "another-long-one")
    assert page("GET", "/api/students").status_code == 401


def test_a_session_lasts_a_school_day(page) -> None:
    with db.connection_context():
        SignedIn.update(since=now() - sessions.LASTS - timedelta(minutes=1)).execute()
    assert page("GET", "/api/students").status_code == 401


def test_only_the_programs_own_addresses_are_answered(door) -> None:
    answer = door.client.get("/api/me", headers={"Host": "evil.example"})
    assert answer.status_code == 400
    assert door.client.get("/api/me", headers={"Host": "127.0.0.1:8760"}).status_code == 200


def test_open_to_the_room_the_demos_password_opens_nothing(app, scope, monkeypatch) -> None:
    programmes.add_person(scope, login="demo", name="Demo", password=demo.PASSWORD, role="teacher")
    assert Page(app.test_client()).sign_in("demo", demo.PASSWORD).status_code == 200
    monkeypatch.setitem(app.config, "LAN", True)
    refused = Page(app.test_client()).sign_in("demo", demo.PASSWORD)
    assert (refused.status_code, refused.json["code"]) == (403, "demo_password")
    assert Page(app.test_client()).sign_in().status_code == 200


def test_one_name_tried_from_many_addresses_is_held_up_as_well(door, unknown) -> None:
    codes = [door.sign_in("owner", "wrong", REMOTE_ADDR=f"10.0.0.{n}").json["code"] for n in range(24)]
    assert codes[0] == "wrong_sign_in" and codes[-1] == "too_many_tries"
    assert door.sign_in("somebody", "wrong", REMOTE_ADDR="10.0.1.1").json["code"] == "wrong_sign_in"


@pytest.mark.parametrize("site", ["cross-site", "same-site"])
def test_another_sites_page_does_nothing_here(page, site: str) -> None:
    answer = page("POST", "/api/sign-out", headers={"Sec-Fetch-Site": site})
    assert (answer.status_code, answer.json["code"]) == (403, "other_page")
    assert page("GET", "/api/students", headers={"Sec-Fetch-Site": "same-origin"}).status_code == 200


def test_a_password_is_kept_as_slowly_as_is_advised() -> None:
    asked = (HASHER.time_cost, HASHER.memory_cost, HASHER.type.name)
    assert asked >= (3, 64 * 1024, "ID"), "RFC 9106, the lesser of its two recommendations"
    assert not HASHER.check_needs_rehash(NOBODY), "an unknown name is answered as slowly as a known one"


def test_a_script_goes_packed_to_who_takes_it_so_and_plain_to_others(door, dist) -> None:
    script = b"const page = 1;\n" * 200
    assets = dist / "assets"
    (assets / "page-1.js").write_bytes(script)
    (assets / "page-1.js.gz").write_bytes(gzip.compress(script))
    (assets / "alone-1.css").write_bytes(b"main {}")
    packed = door("GET", "/assets/page-1.js", headers={"Accept-Encoding": "gzip, br"})
    assert packed.headers["Content-Encoding"] == "gzip" and gzip.decompress(packed.data) == script and "javascript" in packed.content_type
    plain = door("GET", "/assets/page-1.js", headers={"Accept-Encoding": "identity"})
    assert plain.data == script and "Content-Encoding" not in plain.headers and plain.content_type == packed.content_type
    alone = door("GET", "/assets/alone-1.css", headers={"Accept-Encoding": "gzip"})
    assert alone.data == b"main {}" and "Content-Encoding" not in alone.headers
    for answer in (packed, plain, alone):
        assert "Accept-Encoding" in answer.headers["Vary"] and "immutable" in answer.headers["Cache-Control"]
    assert door("GET", "/assets/..%2f..%2fapp.py", headers={"Accept-Encoding": "gzip"}).status_code == 404
