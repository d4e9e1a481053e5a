"""A phone in the room: paired by a code that lasts minutes, it films for the teacher's session and does nothing else."""

from typing import cast

import segno
from flask import Response, current_app, request
from peewee import IntegrityError

from brevin.ops.listening import own_names
from brevin.store import one_time, programmes
from brevin.store.one_time import CodeRefused
from brevin.store.records import Opened
from brevin.store.scope import HOUSE, Role, Scope
from brevin.web.auth import enter, limiter, look_at, scope, session_of
from brevin.web.phone_schemas import CodeIn, InvitationIn, InvitationOut, InvitedIn, Pairing
from brevin.web.problems import Refused
from brevin.web.routes import routes_of
from brevin.web.schemas import Me
from brevin.web.shapes import answer

routes = routes_of("phone", __name__, below="/api")
TRIES = "10 per minute"


@routes.post("/phone", responses={201: Pairing})
def pair() -> Response:
    """A code for one phone, and where it goes with it."""
    code, until = one_time.issue(scope(), "phone", {"of_token": session_of()})
    lan = bool(current_app.config["LAN"])
    port = request.host.rpartition(":")[2]
    addresses = [f"https://{name}:{port}/phone#{code}" for name in own_names()] if lan else []
    return answer(Pairing(code=f"{code[:4]} {code[4:]}", until=until, lan=lan, addresses=addresses, qr=_qr(addresses[0]) if addresses else ""), 201)


def _qr(text: str) -> str:
    return str(segno.make(text, error="m").svg_data_uri(scale=6, border=2))


@routes.post("/phone/join", responses={200: Me})
@limiter.limit(TRIES)
def join(body: CodeIn) -> Response:
    """The phone's side: the code opens a session that films."""
    found = _opened("phone", body.code)
    return enter(programmes.membership(Scope(found.programme_id, found.person_id)), of_token=found.facts["of_token"])


@routes.post("/invitations", responses={201: InvitationOut})
def invite(body: InvitationIn) -> Response:
    """A one-time link for somebody new; it is shown once and kept nowhere."""
    code, until = one_time.issue(scope(), "invitation", {"role": body.role, "name": body.name})
    return answer(InvitationOut(link=f"{request.host_url}invited#{code}", until=until), 201)


@routes.post("/invitations/accept", responses={200: Me})
@limiter.limit(TRIES)
def accept(body: InvitedIn) -> Response:
    """Somebody new with a name and password of their own. A name that is taken leaves the link as it was."""
    if programmes.login_taken(HOUSE, body.login):
        raise Refused("login_taken", 409)
    found = _opened("invitation", body.code)
    inside = Scope(found.programme_id, found.person_id)
    role = cast(Role, found.facts["role"])
    try:
        made = programmes.add_person(inside, login=body.login, name=body.name or found.facts["name"], password=body.password, role=role)
    except IntegrityError as why:
        raise Refused("login_taken", 409) from why
    return enter(made)


@routes.post("/invitations/join", responses={200: Me})
@limiter.limit(TRIES)
def join_in(body: CodeIn) -> Response:
    """Somebody who signs in already comes into the programme they are invited to, and goes on there."""
    try:
        return look_at(programmes.join_by(scope(), body.code))
    except CodeRefused as why:
        raise Refused(why.code, 409) from why


def _opened(kind: one_time.Kind, code: str) -> Opened:
    try:
        return one_time.open_with(HOUSE, kind, code)
    except CodeRefused as why:
        raise Refused(why.code, 409) from why
