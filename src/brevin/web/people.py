"""The programme's people and their roles."""

from flask import Response
from peewee import IntegrityError

from brevin.store import programmes
from brevin.web.auth import scope
from brevin.web.problems import Refused
from brevin.web.routes import routes_of
from brevin.web.schemas import PersonIn, PersonList, PersonOut
from brevin.web.shapes import answer, person_out

routes = routes_of("people", __name__, below="/api/people")


@routes.get("", responses={200: PersonList})
def all_people() -> Response:
    """Everyone who belongs to the programme."""
    return answer(PersonList(people=[person_out(member) for member in programmes.members(scope())]))


@routes.post("", responses={201: PersonOut})
def add_person(body: PersonIn) -> Response:
    """Somebody new, with a role in this programme."""
    try:
        member = programmes.add_person(scope(), login=body.login, name=body.name, password=body.password, role=body.role)
    except IntegrityError as why:
        raise Refused("login_taken", 409) from why
    return answer(person_out(member), 201)
