"""The class: who is in it, lists in and out, consent for many, the next lesson."""

from dataclasses import replace
from datetime import timedelta

from flask import Response, current_app, request

from brevin.core.errors import InvalidInput
from brevin.core.kinds import INSTRUMENTS
from brevin.core.plan.roster import Known, changes_of, drawn, rows_of
from brevin.core.plan.seating import Rows, Sits, sits_of
from brevin.edge.tables import MOST_BYTES, csv_of, table_of
from brevin.ops import files as sweeping
from brevin.store import cards, classes, groups, past, planning
from brevin.store.database import now, untangled
from brevin.web.auth import member, scope
from brevin.web.class_schemas import (
    Added,
    ChangesIn,
    ClassOut,
    ConsentOut,
    ConsentsIn,
    GroupIn,
    GroupOf,
    GroupOut,
    GroupPath,
    LessonIn,
    LessonMade,
    MemberOut,
    OutOfGroup,
    StudentWords,
)
from brevin.web.list_schemas import ListOut, SitsOf
from brevin.web.problems import SENTENCES, Refused
from brevin.web.routes import routes_of
from brevin.web.schemas import Done
from brevin.web.shapes import answer, list_out, student_out

routes = routes_of("classroom", __name__, below="/api/class")
SOON = timedelta(minutes=5)  # a lesson without a time of its own begins now


@routes.get("", responses={200: ClassOut})
def everybody() -> Response:
    """Everybody who is here, with when they were last seen."""
    here = classes.members(scope())
    found = [_member_out(one) for one in here]
    bands = [GroupOut(id=one.id, name=one.name, student_ids=list(one.student_ids)) for one in groups.groups(scope())]
    rows = [list(row) for row in classes.rows(scope(), here)]
    return answer(ClassOut(members=found, rows=rows, instruments=list(INSTRUMENTS), groups=bands))


@routes.post("/groups", responses={200: GroupOf})
def put_in(body: GroupIn) -> Response:
    """Put students into a group; one of a name that is new is made."""
    return answer(GroupOf(id=groups.put_in(scope(), body.name.strip(), body.student_ids)))


@routes.post("/groups/<int:group_id>/out", responses={200: Done})
def take_out(path: GroupPath, body: OutOfGroup) -> Response:
    """Take students out of a group; one that nobody is left in is none any more."""
    groups.take_out(scope(), path.group_id, body.student_ids)
    return answer(Done(done=True))


def _member_out(one: classes.Member) -> MemberOut:
    words = [ConsentOut(**vars(word)) for word in one.consents]
    return MemberOut(student=student_out(one.student), seen_at=one.seen_at, state=one.state, takes=one.takes, consents=words)


@routes.post("/list", responses={200: ListOut}, description="The body is the file itself.")
def look_at_list() -> Response:
    """What a class list would change. Nothing is changed."""
    content = request.stream.read(MOST_BYTES + 1)
    if len(content) > MOST_BYTES:
        raise Refused("list_too_large", 422)
    try:
        rows = rows_of(table_of(content))
    except InvalidInput as why:
        raise Refused(why.code, 422, SENTENCES[why.code].format(**why.facts)) from why
    known, seated = _known()
    found = changes_of(rows, known)
    return answer(list_out(found, drawn(found, seated, known)))


def _known() -> tuple[list[Known], Rows]:
    """Everybody as a list has them, and how they sit."""
    here = classes.members(scope())
    rows = classes.rows(scope(), here)
    sits = sits_of(rows)
    return [Known(one.student.id, one.student.name, one.student.instrument, one.student.note, sits[one.student.id]) for one in here], rows


@routes.get("/list.csv")
def list_file() -> Response:
    """The class as a list that gives the same back."""
    rows = [[one.name, one.instrument.replace("_", " "), one.note, str(one.sits.row), str(one.sits.chair)] for one in _known()[0] if one.sits]
    response = Response(csv_of([["name", "instrument", "note", "row", "chair"], *rows]), mimetype="text/csv")
    response.headers["Content-Disposition"] = "attachment; filename=class.csv"
    return response


@routes.post("/changes", responses={200: Added})
def change(body: ChangesIn) -> Response:
    """Change the class: all of it or nothing."""
    asked = classes.ClassChanges(
        add=[replace(_student(one), sits=_sits(one.sits) if one.sits else None) for one in body.add], edit={one.id: _student(one) for one in body.edit},
        instruments={one.id: one.instrument for one in body.instruments}, leave=body.leave, back=body.back, drop=body.drop,
        sits={one.id: _sits(one.sits) for one in body.sits}, rows=body.rows,
    )  # fmt: skip
    return answer(Added(ids=untangled(lambda: classes.change(scope(), asked))))  # one transaction: of one that was ended nothing is there


def _student(one: StudentWords) -> classes.NewStudent:
    return classes.NewStudent(one.name, one.instrument, one.note)


def _sits(one: SitsOf) -> Sits:
    return Sits(one.row, one.chair)


@routes.post("/consent", responses={200: Done})
def give_consents(body: ConsentsIn) -> Response:
    """The letters are back: consent for many, by purpose."""
    today = now().astimezone(member().programme.zone).date()
    classes.give_consents(
        scope(), body.student_ids, given_by=body.given_by, from_day=today, until_day=body.until_day, purposes=body.purposes, refused=body.refused
    )
    sweeping.work_off(current_app.config["BREVIN"])  # clips that a no has ended
    return answer(Done(done=True))


@routes.post("/lesson", responses={201: LessonMade})
def plan_lesson(body: LessonIn) -> Response:
    """The next lesson: who needs a look most comes first, as many as fit."""
    same = None if body.card_id is None else cards.card(scope(), body.card_id).check
    asked = past.own_cards(scope(), body.student_ids) if same is None else dict.fromkeys(body.student_ids, same)
    wish = planning.LessonWish(
        title=body.title, starts_at=body.starts_at or now() + SOON, side=body.side, minutes=body.minutes, each_min=body.each_min,
        before_min=body.before_min, after_min=body.after_min, group_id=body.group_id,
    )  # fmt: skip
    try:
        found = planning.plan_lesson(scope(), asked, wish)
    except ValueError as why:
        raise Refused("bad_request", 422) from why
    return answer(LessonMade(placed=len(found.placed), left=found.left), 201)
