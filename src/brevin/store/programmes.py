"""Programmes and the people who belong to them."""

from typing import cast
from zoneinfo import available_timezones

from argon2 import PasswordHasher
from argon2.exceptions import VerifyMismatchError

from brevin.store import changes, one_time, sessions
from brevin.store.database import db
from brevin.store.models import Membership, Person, Programme
from brevin.store.one_time import CodeRefused
from brevin.store.records import MemberRecord, NameTaken, NotThere, PersonRecord, ProgrammeRecord
from brevin.store.scope import HOUSE, Role, Scope

_hasher = PasswordHasher()
_nobody = "$argon2id$v=19$m=65536,t=3,p=4$KrThteDleL7Wr41Uiz8hsw$1C58Anc+2sY8cjHZfzyaVqFamgPKC7N1FOFXJIgBhgA"
"""Of no password that anybody knows: checked where the name is unknown, so that both answers take as long."""


def add_programme(scope: Scope, *, name: str, time_zone: str = "UTC") -> ProgrammeRecord:
    """A new programme, without anybody in it. Only the house may."""
    assert scope.programme_id is None
    with db.connection_context():
        return _programme(Programme.create(name=name, time_zone=time_zone))


def nobody(scope: Scope) -> bool:
    """Whether nobody has an account yet. Only the house may ask."""
    assert scope.programme_id is None
    with db.connection_context():
        return not Person.select().exists()


def begin(scope: Scope, *, name: str, time_zone: str, owner: str, login: str, password: str) -> MemberRecord:
    """The first programme with its owner: both or neither, and once, however many ask at the same time. A time zone that is none is UTC.

    Raises NotThere where somebody was first.
    """
    zone = time_zone if time_zone in available_timezones() else "UTC"
    with db.connection_context(), db.atomic():
        db.execute_sql("SELECT id FROM person FOR UPDATE")
        if Person.select().exists():
            raise NotThere("first")
        made = Programme.create(name=name, time_zone=zone)
        person = Person.create(login=login, name=owner, password_hash=_hasher.hash(password))
        Membership.create(programme=made, person=person, role="owner")
    return membership(Scope(made.id, person.id))


def also(scope: Scope, *, name: str, time_zone: str) -> MemberRecord:
    """One more programme, with whoever asks as its owner. A time zone that is none is UTC. Raises NameTaken where one of their own is called so."""
    with db.connection_context(), db.atomic():
        _free(name, [member.programme for member in _members(HOUSE) if member.person.id == scope.person_id])
        made = Programme.create(name=name, time_zone=time_zone if time_zone in available_timezones() else "UTC")
        Membership.create(programme=made, person=scope.person_id, role="owner")
    return membership(Scope(made.id, scope.person_id))


def change(scope: Scope, *, name: str, time_zone: str) -> MemberRecord:
    """Another name and time zone for the scope's programme. Raises NameTaken, ValueError for a time zone that is none."""
    if time_zone not in available_timezones():
        raise ValueError(time_zone)
    with db.connection_context(), db.atomic():
        others = [m.programme for m in _members(HOUSE) if m.person.id == scope.person_id and m.programme.id != scope.programme]
        _free(name, others)
        Programme.update(name=name, time_zone=time_zone).where(Programme.id == scope.programme).execute()
        changes.note(scope, scope.programme, "people", "")
    return membership(scope)


def join_by(scope: Scope, code: str) -> MemberRecord:
    """Somebody who signs in already becomes a member of the programme that an invitation is from. Raises CodeRefused, and leaves the invitation as it was
    for who belongs to that programme (member_already)."""
    with db.connection_context(), db.atomic():
        found = one_time.open_with(HOUSE, "invitation", code)
        if Membership.select().where((Membership.programme == found.programme_id) & (Membership.person == scope.person_id)).exists():
            raise CodeRefused("member_already")
        _belongs(found.programme_id, scope.person_id, cast(Role, found.facts["role"]))
    return membership(Scope(found.programme_id, scope.person_id))


def _belongs(programme_id: int, person_id: int | None, role: Role) -> None:
    """One more member, as open pages see at once."""
    Membership.create(programme=programme_id, person=person_id, role=role)
    changes.note(HOUSE, programme_id, "people", "")


def _free(name: str, own: list[ProgrammeRecord]) -> None:
    if any(one.name.casefold() == name.casefold() for one in own):
        raise NameTaken(name)


def programme(scope: Scope) -> ProgrammeRecord:
    """The programme of a scope. Raises NotThere."""
    with db.connection_context():
        row = Programme.get_or_none(Programme.id == scope.programme)
        if row is None:
            raise NotThere(str(scope.programme_id))
        return _programme(row)


def all_programmes(scope: Scope) -> list[ProgrammeRecord]:
    """Every programme the scope may see."""
    with db.connection_context():
        return [_programme(row) for row in Programme.select().where(scope.sees(Programme.id)).order_by(Programme.id)]


def add_person(scope: Scope, *, login: str, name: str, password: str, role: Role) -> MemberRecord:
    """A new person who may sign in, a member of the scope's programme. Raises peewee.IntegrityError where the login is taken."""
    with db.connection_context(), db.atomic():
        row = Person.create(login=login, name=name, password_hash=_hasher.hash(password))
        _belongs(scope.programme, row.id, role)
    return membership(Scope(scope.programme_id, row.id))


def login_taken(scope: Scope, login: str) -> bool:
    """Whether somebody signs in with this name already. Only the house may ask."""
    assert scope.programme_id is None
    with db.connection_context():
        return bool(Person.select().where(Person.login == login).exists())


def join(scope: Scope, *, login: str, role: Role) -> None:
    """Make somebody who signs in already a member of the scope's programme. Raises NotThere."""
    with db.connection_context(), db.atomic():
        row = Person.get_or_none(Person.login == login)
        if row is None:
            raise NotThere(login)
        _belongs(scope.programme, row.id, role)


def set_password(scope: Scope, login: str, password: str) -> None:
    """Replace a password; whoever was signed in with the old one is out. Raises NotThere."""
    with db.connection_context():
        if login not in {member.person.login for member in _members(scope)}:
            raise NotThere(login)
        Person.update(password_hash=_hasher.hash(password)).where(Person.login == login).execute()
    sessions.end_all(scope, login)


def sign_in(scope: Scope, login: str, password: str) -> PersonRecord | None:
    """The person whose name and password fit, else None."""
    with db.connection_context():
        row = Person.get_or_none((Person.login == login) & (Person.active == True))  # noqa: E712 (an SQL expression)
    try:
        _hasher.verify(row.password_hash if row else _nobody, password)
    except VerifyMismatchError:
        return None
    return _person(row) if row else None


def memberships(scope: Scope, person_id: int) -> list[MemberRecord]:
    """Every programme that a person is a member of, in the order of joining."""
    with db.connection_context():
        return [member for member in _members(scope) if member.person.id == person_id]


def membership(scope: Scope) -> MemberRecord:
    """The asking person's place in the scope's programme. Raises NotThere for who is no member, or no longer active."""
    with db.connection_context():
        found = [member for member in _members(scope) if member.person.id == scope.person_id]
    if not found:
        raise NotThere(str(scope.person_id))
    return found[0]


def members(scope: Scope) -> list[MemberRecord]:
    """Everyone who may sign in to what the scope sees."""
    with db.connection_context():
        return _members(scope)


def _members(scope: Scope) -> list[MemberRecord]:
    rows = (
        Membership.select(Membership, Programme, Person)
        .join(Programme)
        .switch(Membership)
        .join(Person)
        .where(scope.sees(Membership.programme) & (Person.active == True))  # noqa: E712
        .order_by(Membership.id)
    )
    return [MemberRecord(_programme(row.programme), _person(row.person), cast(Role, row.role)) for row in rows]


def _programme(row: Programme) -> ProgrammeRecord:
    return ProgrammeRecord(id=row.id, name=row.name, time_zone=row.time_zone)


def _person(row: Person) -> PersonRecord:
    return PersonRecord(id=row.id, login=row.login, name=row.name)
