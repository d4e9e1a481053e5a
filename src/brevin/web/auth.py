"""Signing in and out. Every other route asks for it, by one rule in the factory and not by its own care."""

from apiflask import APIBlueprint
from flask import Flask
from flask_limiter import Limiter
from flask_limiter.util import get_remote_address
from flask_login import LoginManager, UserMixin, current_user, login_user, logout_user
from flask_wtf.csrf import CSRFProtect, generate_csrf

from brevin.store import people
from brevin.store.records import TeacherRecord
from brevin.web.problems import Refused
from brevin.web.schemas import Me, SignIn

routes = APIBlueprint("auth", __name__, url_prefix="/api", tag="sign-in")
limiter = Limiter(get_remote_address, storage_uri="memory://")
csrf = CSRFProtect()
logins = LoginManager()


class SignedIn(UserMixin):
    """The teacher of this session."""

    def __init__(self, record: TeacherRecord) -> None:
        self.record = record
        self.id = record.id


@logins.user_loader
def _load(key: str) -> SignedIn | None:
    record = people.teacher(int(key))
    return SignedIn(record) if record else None


def teacher() -> TeacherRecord:
    """Who is signed in. Raises Refused(signed_out)."""
    if not current_user.is_authenticated:
        raise Refused("signed_out", 401)
    record: TeacherRecord = current_user.record
    return record


def _me() -> Me:
    signed = current_user.is_authenticated
    return Me(name=current_user.record.name if signed else None, role=current_user.record.role if signed else None, csrf=generate_csrf())


@routes.get("/me")
@routes.output(Me)
def me() -> Me:
    """Who is signed in."""
    return _me()


@routes.post("/sign-in")
@routes.input(SignIn)
@routes.output(Me)
@limiter.limit("10 per minute")
def sign_in(json_data: SignIn) -> Me:
    """Sign in."""
    record = people.sign_in(json_data.login, json_data.password)
    if record is None:
        raise Refused("wrong_sign_in", 403)
    login_user(SignedIn(record))
    return _me()


@routes.post("/sign-out")
@routes.output(Me)
def sign_out() -> Me:
    """Sign out."""
    logout_user()
    return _me()


def add_to(app: Flask) -> None:
    """Session, limits and protection of an app."""
    logins.init_app(app)
    limiter.init_app(app)
    csrf.init_app(app)
