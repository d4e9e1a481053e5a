from collections.abc import Iterator

import pytest
from flask.testing import FlaskClient

from brevin.ops.settings import Settings
from brevin.store import people
from brevin.web.app import create_app
from brevin.web.auth import limiter
from tests.conftest import PASSWORD


class Page:
    """A browser's worth of client: carries the token of the last answer in every change."""

    def __init__(self, client: FlaskClient) -> None:
        self.client = client
        self.token = client.get("/api/me").json["csrf"]

    def __call__(self, method: str, path: str, **kwargs):
        headers = {"X-CSRFToken": self.token} | kwargs.pop("headers", {})
        answer = self.client.open(path, method=method, headers=headers, **kwargs)
        if answer.is_json and "csrf" in answer.json:
            self.token = answer.json["csrf"]
        return answer

    def sign_in(self, login: str = "kim", password: str = PASSWORD):
        return self("POST", "/api/sign-in", json={"login": login, "password": password})


@pytest.fixture
def sent() -> list[str]:
    """Ids of takes that were put into the queue."""
    return []


@pytest.fixture
def app(store: Settings, sent: list[str], tmp_path):
    (tmp_path / "assets").mkdir()
    (tmp_path / "index.html").write_text('<meta property="csp-nonce" content="__NONCE__"><div id="page"></div>')
    limiter.reset() if limiter._storage else None
    return create_app(store, send=sent.append, dist=tmp_path)


@pytest.fixture
def door(app) -> Page:
    """A page before signing in."""
    people.add_teacher(login="kim", name="Kim Okonjo", role="teacher", password=PASSWORD)
    return Page(app.test_client())


@pytest.fixture
def page(door: Page) -> Iterator[Page]:
    """A page of a signed-in teacher."""
    assert door.sign_in().status_code == 200
    yield door
