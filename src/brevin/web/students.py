"""Students: who they are, what they did, what they are exempt from, and consent."""

import tempfile
from dataclasses import asdict
from pathlib import Path

from flask import Response, current_app, send_file

from brevin.edge.growing import growing
from brevin.ops import files as sweeping
from brevin.ops import held
from brevin.store import anew, classes, exemptions, reports, students, takes, whole
from brevin.web.auth import scope
from brevin.web.class_schemas import Erased, Withdrawn, WithdrawQuery
from brevin.web.routes import routes_of
from brevin.web.schemas import ConsentIn, Done, ExemptChange, ExemptionChangeOut, ExemptionChanges, ResultList, ResultQuery, StudentList, StudentPath, TakeList
from brevin.web.shapes import answer, result_out, student_out, take_out

routes = routes_of("students", __name__, below="/api/students")


@routes.get("", responses={200: StudentList})
def all_students() -> Response:
    """Everyone in the programme."""
    return answer(StudentList(students=[student_out(record) for record in students.students(scope())]))


@routes.get("/<int:student_id>/held")
def all_held(path: StudentPath) -> Response:
    """Everything that is held about a student, as one ZIP in open formats."""
    settings = current_app.config["BREVIN"]
    with tempfile.TemporaryDirectory(dir=settings.data) as scratch:  # beside the clips: it is as large as they are
        target = Path(scratch) / "held.zip"
        held.write(scope(), path.student_id, settings, target)
        response = send_file(target.open("rb"), mimetype="application/zip", as_attachment=True, download_name=f"student-{path.student_id}.zip")
    response.headers["Cache-Control"] = "private, no-store"
    return response


@routes.delete("/<int:student_id>", responses={200: Erased})
def erase(path: StudentPath) -> Response:
    """Delete a student with everything that is held about them, and say how much it was."""
    settings = current_app.config["BREVIN"]
    gone = whole.erase(scope(), path.student_id)
    sweeping.work_off(settings)
    for one in growing(settings.filming, student_id=path.student_id):
        one.drop()  # what is being filmed at this moment, too
    return answer(Erased(takes=gone.takes, clips=gone.clips))


@routes.get("/<int:student_id>/takes", responses={200: TakeList})
def takes_of(path: StudentPath) -> Response:
    """A student's takes, newest first."""
    students.student(scope(), path.student_id)
    return answer(TakeList(takes=[take_out(record) for record in takes.of_student(scope(), path.student_id)]))


@routes.get("/<int:student_id>/results", responses={200: ResultList})
def results_of(path: StudentPath, query: ResultQuery) -> Response:
    """A student's verdicts, oldest first, by criterion, instrument and time."""
    students.student(scope(), path.student_id)
    found = reports.verdicts(scope(), student_id=path.student_id, criterion=query.criterion, instrument=query.instrument, since=query.since)
    return answer(ResultList(results=[result_out(record) for record in found]))


@routes.get("/<int:student_id>/exempt", responses={200: ExemptionChanges})
def exempt_changes(path: StudentPath) -> Response:
    """Who left what out for a student, or took it in again, and when, the newest first."""
    students.student(scope(), path.student_id)
    return answer(ExemptionChanges(changes=[ExemptionChangeOut(**asdict(one)) for one in exemptions.changes(scope(), path.student_id)]))


@routes.put("/<int:student_id>/exempt", responses={200: Done})
def change_exempt(path: StudentPath, body: ExemptChange) -> Response:
    """What a student is exempt from: left out of takes from now on, and of those that are there, which are judged anew."""
    exemptions.put(scope(), path.student_id, body.exempt)
    anew.judge_again(scope(), [take.id for take in takes.of_student(scope(), path.student_id)])
    return answer(Done(done=True))


@routes.post("/<int:student_id>/consent", responses={200: Done})
def give_consent(path: StudentPath, body: ConsentIn) -> Response:
    """Put a guardian's consent to filming on record."""
    students.give_consent(scope(), path.student_id, given_by=body.given_by, from_day=body.from_day, until_day=body.until_day)
    return answer(Done(done=True))


@routes.delete("/<int:student_id>/consent", responses={200: Withdrawn})
def withdraw_consent(path: StudentPath, query: WithdrawQuery) -> Response:
    """A family takes a consent back; without the one to film or to keep the clips and their copies are deleted at once, and said."""
    clips = classes.withdraw(scope(), path.student_id, query.purpose)
    sweeping.work_off(current_app.config["BREVIN"])
    for one in growing(current_app.config["BREVIN"].filming, student_id=path.student_id):
        one.drop()  # what is being filmed at this moment, too
    return answer(Withdrawn(clips=clips))
