from collections.abc import Iterator
from pathlib import Path

import pytest
from flask.testing import FlaskClient

from brevin.ops.settings import Settings
from brevin.store import programmes
from brevin.store.scope import Role, Scope
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

    def sign_in(self, login: str = "owner", password: str = PASSWORD, **environ: str):
        return self("POST", "/api/sign-in", json={"login": login, "password": password}, environ_base=environ)


@pytest.fixture(scope="session")
def dist(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A built page."""
    dist = tmp_path_factory.mktemp("dist")
    (dist / "assets").mkdir()
    (dist / "index.html").write_text('<meta property="csp-nonce" content="__NONCE__"><div id="page"></div>')
    return dist


@pytest.fixture(scope="session")
def shared_app(settings: Settings, dist: Path):
    """One application for all tests: its helper for opening files starts once."""
    return create_app(settings, dist=dist)


@pytest.fixture
def app(shared_app, store: Settings):
    """The application on empty tables, nobody's tries counted."""
    with shared_app.app_context():
        limiter.reset()
    return shared_app


@pytest.fixture
def door(app, scope: Scope) -> Page:
    """A page before signing in."""
    return Page(app.test_client())


@pytest.fixture
def page(door: Page) -> Iterator[Page]:
    """A page of a signed-in owner."""
    assert door.sign_in().status_code == 200
    yield door


def signed_in(app, scope: Scope, role: Role) -> Page:
    """A page of somebody new with a role in a programme."""
    programmes.add_person(scope, login=f"{role}-{scope.programme}", name=role.title(), role=role, password=PASSWORD)
    made = Page(app.test_client())
    assert made.sign_in(f"{role}-{scope.programme}").status_code == 200
    return made
