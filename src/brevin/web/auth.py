"""Signing in and out, and which programme is looked at. Every other route asks for it, by one rule in the factory and not by its own care."""

from dataclasses import replace

from flask import Flask, Response, current_app, request, session
from flask_limiter import Limiter
from flask_limiter.util import get_remote_address
from flask_login import LoginManager, UserMixin, current_user, login_user, logout_user
from flask_wtf.csrf import CSRFProtect, generate_csrf

from brevin.ops.settings import DEMO_PASSWORD
from brevin.store import programmes, sessions
from brevin.store.records import MemberRecord, NameTaken, NotThere
from brevin.store.scope import HOUSE, Scope
from brevin.web.door_schemas import FirstIn, ProgrammeChoice, ProgrammeIn, SignIn
from brevin.web.permissions import MAY
from brevin.web.problems import Refused
from brevin.web.routes import routes_of
from brevin.web.schemas import Me
from brevin.web.shapes import answer, programme_out

routes = routes_of("auth", __name__, below="/api")
limiter = Limiter(get_remote_address, storage_uri="memory://")
csrf = CSRFProtect()
logins = LoginManager()
HERE = ("127.0.0.1", "::1")
SESSION = "signed_in"  # in the session: the row that must stand for the cookie to count
PROGRAMME = "programme"  # in the session: which of the person's programmes is looked at


class SignedIn(UserMixin):
    """The member of this session. of: fingerprint of the session, a phone's of the one it films for."""

    def __init__(self, record: MemberRecord, *, of: str = "") -> None:
        self.record, self.of = record, of
        self.id = record.person.id


def _named() -> str:
    """The name that a sign-in is tried with."""
    tried = request.get_json(silent=True)
    return str(tried.get("login", ""))[:64].casefold() if isinstance(tried, dict) else ""


@logins.user_loader
def _load(key: str) -> SignedIn | None:
    try:
        asking = Scope(int(session[PROGRAMME]), int(key))
        standing = sessions.stands(asking, str(session[SESSION]))
        if standing is None:
            return None
        record = programmes.membership(asking)
        return SignedIn(replace(record, role="phone") if standing.phone else record, of=standing.of)
    except (KeyError, ValueError, NotThere):  # left the programme, or a cookie from before there were any
        return None


def member() -> MemberRecord:
    """Who is signed in, in which programme. Raises Refused(signed_out)."""
    if not current_user.is_authenticated:
        raise Refused("signed_out", 401)
    record: MemberRecord = current_user.record
    return record


def session_of() -> str:
    """Fingerprint of the session that asks; a phone's of the one it films for."""
    found: str = current_user.of
    return found


def scope() -> Scope:
    """What the signed-in person may see. Raises Refused(signed_out)."""
    found = member()
    return Scope(found.programme.id, found.person.id)


def _me() -> Me:
    if not current_user.is_authenticated:
        return Me(name=None, role=None, programme=None, programmes=[], may=[], csrf=generate_csrf(), empty=programmes.nobody(HOUSE))
    found = member()
    own = [programme_out(m.programme) for m in programmes.memberships(HOUSE, found.person.id)]
    return Me(
        name=found.person.name, role=found.role, programme=programme_out(found.programme), programmes=own, may=sorted(MAY[found.role]), csrf=generate_csrf()
    )  # fmt: skip


@routes.get("/me", responses={200: Me})
def me() -> Response:
    """Who is signed in."""
    return answer(_me())


@routes.post("/begin", responses={201: Me})
@limiter.limit("10 per minute")
def begin(body: FirstIn) -> Response:
    """The first programme and its first account: once, and from the computer that Brevin runs on."""
    if not programmes.nobody(HOUSE):
        raise Refused("begun", 409)
    if request.remote_addr not in HERE:
        raise Refused("not_from_here", 403)
    first = programmes.begin(HOUSE, name=body.programme, time_zone=body.time_zone, owner=body.name, login=body.login, password=body.password)
    return enter(first)


@routes.post("/sign-in", responses={200: Me})
@limiter.limit("10 per minute")
@limiter.limit("20 per minute", key_func=_named)  # one name tried from many addresses
def sign_in(body: SignIn) -> Response:
    """Sign in."""
    person = programmes.sign_in(HOUSE, body.login, body.password)
    if person is None:
        raise Refused("wrong_sign_in", 403)
    own = programmes.memberships(HOUSE, person.id)
    if not own:
        raise Refused("no_programme", 403)
    if current_app.config["LAN"] and body.password == DEMO_PASSWORD:
        raise Refused("demo_password", 403)
    return enter(own[0])


def enter(found: MemberRecord, *, of_token: str = "") -> Response:
    """Begin a session in a programme. of_token: fingerprint of the session that a paired phone films for."""
    session[PROGRAMME] = found.programme.id
    session[SESSION] = sessions.begin(HOUSE, found.person.id, of_token=of_token)
    login_user(SignedIn(replace(found, role="phone") if of_token else found))
    return answer(_me())


@routes.post("/programme", responses={200: Me})
def choose_programme(body: ProgrammeChoice) -> Response:
    """Look at another programme of one's own."""
    own = {m.programme.id: m for m in programmes.memberships(HOUSE, member().person.id)}
    if body.programme_id not in own:
        raise NotThere(str(body.programme_id))
    return look_at(own[body.programme_id])


@routes.post("/programmes", responses={201: Me})
def new_programme(body: ProgrammeIn) -> Response:
    """One more programme, another school or band, with whoever asks as its owner; it is looked at from then on."""
    try:
        return look_at(programmes.also(scope(), name=body.name, time_zone=body.time_zone), 201)
    except NameTaken as why:
        raise Refused("programme_named_so", 409) from why


@routes.put("/programme", responses={200: Me})
def change_programme(body: ProgrammeIn) -> Response:
    """Another name and time zone for the programme that is looked at."""
    try:
        return look_at(programmes.change(scope(), name=body.name, time_zone=body.time_zone))
    except NameTaken as why:
        raise Refused("programme_named_so", 409) from why
    except ValueError as why:
        raise Refused("no_time_zone", 400) from why


def look_at(found: MemberRecord, status: int = 200) -> Response:
    """Go on in a programme of one's own, in the session that is there."""
    session[PROGRAMME] = found.programme.id
    login_user(SignedIn(found))
    return answer(_me(), status)


@routes.post("/sign-out", responses={200: Me})
def sign_out() -> Response:
    """Sign out."""
    sessions.end(scope(), str(session.pop(SESSION, "")))
    logout_user()
    session.pop(PROGRAMME, None)
    return answer(_me())


def add_to(app: Flask) -> None:
    """Session, limits and protection of an app."""
    logins.init_app(app)
    limiter.init_app(app)
    csrf.init_app(app)
