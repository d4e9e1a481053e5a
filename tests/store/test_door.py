"""One-time codes and sessions below the pages: what opens, how often, and what ends with what."""

import threading
from datetime import timedelta

import pytest

from brevin.store import database, one_time, programmes, sessions
from brevin.store.door_models import OneTime, SignedIn
from brevin.store.one_time import ALPHABET, LETTERS, CodeRefused
from brevin.store.scope import HOUSE, Scope


def test_a_code_is_kept_as_its_fingerprint_and_typed_as_one_likes(scope: Scope) -> None:
    code, until = one_time.issue(scope, "phone", {"of_token": "t"})
    assert len(code) == LETTERS["phone"] and set(code) <= set(ALPHABET) and until > database.now()
    with database.db.connection_context():
        assert code not in str(list(OneTime.select().dicts()))
    assert one_time.open_with(HOUSE, "phone", f"{code[:4].lower()}-{code[4:].lower()}").facts == {"of_token": "t"}


def test_a_code_opens_once_however_many_ask_at_the_same_time(scope: Scope) -> None:
    code, _ = one_time.issue(scope, "invitation", {"role": "assistant", "name": "N"})
    opened, refused = [], []

    def ask() -> None:
        try:
            opened.append(one_time.open_with(HOUSE, "invitation", code))
        except CodeRefused as why:
            refused.append(why.code)

    askers = [threading.Thread(target=ask) for _ in range(6)]
    for asker in askers:
        asker.start()
    for asker in askers:
        asker.join()
    assert len(opened) == 1 and refused == ["code_used"] * 5 and opened[0].programme_id == scope.programme_id


def test_codes_long_run_out_are_forgotten(scope: Scope) -> None:
    one_time.issue(scope, "phone", {})
    with database.db.connection_context():
        OneTime.update(until=database.now() - timedelta(days=40)).execute()
    one_time.issue(scope, "phone", {})
    with database.db.connection_context():
        assert OneTime.select().count() == 1


def test_a_phone_stands_for_the_session_it_films_for_and_ends_with_it(scope: Scope) -> None:
    own = sessions.begin(HOUSE, scope.person_id)
    phone = sessions.begin(HOUSE, scope.person_id, of_token=sessions.fingerprint(own))
    assert sessions.stands(scope, own) == sessions.Standing(phone=False, of=sessions.fingerprint(own))
    assert sessions.stands(scope, phone) == sessions.Standing(phone=True, of=sessions.fingerprint(own))
    assert sessions.stands(Scope(scope.programme_id, 999_999), phone) is None, "nobody else's"
    sessions.end(scope, own)
    assert sessions.stands(scope, own) is None and sessions.stands(scope, phone) is None


def test_a_phone_that_is_put_away_leaves_the_teacher_signed_in(scope: Scope) -> None:
    own = sessions.begin(HOUSE, scope.person_id)
    phone = sessions.begin(HOUSE, scope.person_id, of_token=sessions.fingerprint(own))
    sessions.end(scope, phone)
    assert sessions.stands(scope, own) is not None and sessions.stands(scope, phone) is None


def test_a_new_password_ends_phones_too(scope: Scope) -> None:
    own = sessions.begin(HOUSE, scope.person_id)
    sessions.begin(HOUSE, scope.person_id, of_token=sessions.fingerprint(own))
    programmes.set_password(scope, "owner", "another long password")
    with database.db.connection_context():
        assert SignedIn.select().count() == 0


@pytest.mark.parametrize("code", ["", "0O1I", "    ", "' OR 1=1"])
def test_what_is_no_code_opens_nothing(scope: Scope, code: str) -> None:
    with pytest.raises(CodeRefused, match="code_unknown"):
        one_time.open_with(HOUSE, "phone", code)
