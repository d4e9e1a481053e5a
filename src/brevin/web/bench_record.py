"""The bench's record: each student's steps, values, first notes, what fixed it, care and repairs, with date and by whom."""

from collections.abc import Iterator, Sequence
from datetime import datetime

from flask import Response

from brevin.core.verdict.help import PARTS
from brevin.edge.tables import csv_of
from brevin.store import benches, instruments, programmes, sounds, students
from brevin.store.records import StudentRecord
from brevin.web.auth import member, scope
from brevin.web.bench_content import content
from brevin.web.bench_schemas import BenchLine, BenchRecordOut
from brevin.web.routes import routes_of
from brevin.web.schemas import StudentPath
from brevin.web.shapes import answer

routes = routes_of("bench_record", __name__, below="/api/bench/record")
HEADINGS = ["student", "instrument", "what", "which", "how", "date", "time", "by"]


@routes.get("/students/<int:student_id>", responses={200: BenchRecordOut})
def of_student(path: StudentPath) -> Response:
    """Everything on record of one student at the bench, the newest first."""
    who = students.student(scope(), path.student_id)
    return answer(BenchRecordOut(lines=list(reversed(_lines([who])))))


@routes.get("/record.csv")
def as_table() -> Response:
    """Everything on record at the bench, as a table."""
    everybody, zone = students.students(scope()), member().programme.zone
    names = {one.id: (one.name, one.instrument.replace("_", " ")) for one in everybody}
    rows = [
        [*names[one.student], one.what, one.which, one.how, f"{one.at.astimezone(zone):%Y-%m-%d}", f"{one.at.astimezone(zone):%H:%M}", one.by]
        for one in _lines(everybody)
    ]  # fmt: skip
    response = Response(csv_of([HEADINGS, *rows]), mimetype="text/csv")
    response.headers["Content-Disposition"] = "attachment; filename=bench.csv"
    return response


def _lines(pupils: Sequence[StudentRecord]) -> list[BenchLine]:
    return sorted([*_steps(pupils), *_notes(pupils), *_kept(pupils)], key=lambda line: line.at)


def _steps(pupils: Sequence[StudentRecord]) -> Iterator[BenchLine]:
    people = {one.person.id: one.person.name for one in programmes.members(scope())}
    titles = {card.name: {step.key: step.title for step in card.steps} for card in content().kinds}
    plays = {one.id: content().cards[one.instrument].name for one in pupils if one.instrument in content().cards}
    for card, behind in benches.behind(scope(), list(plays)).items():
        for one in behind:
            if plays[one.student] == card:
                how = "with help" if one.helped else "done"
                yield _line(one.student, "step", titles[card].get(one.step, one.step), how, one.at, people.get(one.by or 0, ""))


def _notes(pupils: Sequence[StudentRecord]) -> Iterator[BenchLine]:
    for one in sounds.tries(scope(), [pupil.id for pupil in pupils]):
        how = one.outcome.replace("_", " ") + (f" for {one.length_s:.1f} s" if one.length_s else "") + (f", it was: {one.fixed_by}" if one.fixed_by else "")
        yield _line(one.student_id, "first note", one.rung, how, one.at, one.by)


def _kept(pupils: Sequence[StudentRecord]) -> Iterator[BenchLine]:
    ids = [pupil.id for pupil in pupils]
    units: dict[str, tuple[str, str]] = {step.value.key: (step.title, step.value.unit) for card in content().kinds for step in card.steps if step.value}
    units |= {key: (part.title, part.fit.unit) for key, part in PARTS.items() if part.fit}
    tasks = {task.key: task.title for card in content().kinds for task in card.care}
    for value in instruments.values(scope(), ids):
        title, unit = units.get(value.key, (value.key, ""))
        yield _line(value.student_id, "value", title, f"{value.value:g} {unit}", value.at, value.by)
    for done in instruments.care_log(scope(), ids):
        yield _line(done.student_id, "care", tasks.get(done.task, done.task), "done", done.at, done.by)
    for repair in instruments.repairs(scope(), ids):
        yield _line(repair.student_id, "repair", repair.what, "seen to" if repair.done_at else "needs a technician", repair.said_at, repair.by)


def _line(student: int, what: str, which: str, how: str, at: datetime, by: str) -> BenchLine:
    return BenchLine(student=student, what=what, which=which, how=how, at=at, by=by)
