"""Care: what is due for whom, one tap for a section, passports and repairs; by iCalendar and as a list."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from flask import Response

from brevin.core.handling.cards import CareTask, InstrumentCard
from brevin.core.handling.care import Passport, asked_back, days_left, due, fitted
from brevin.core.verdict.help import PARTS
from brevin.edge.calendars import Entry, calendar_of
from brevin.store import instruments, students
from brevin.store.database import now
from brevin.store.records import StudentRecord
from brevin.web.auth import member, scope
from brevin.web.bench_care_schemas import (
    CareIn,
    CareLogged,
    CareOut,
    CareRow,
    CareTaskOut,
    PassportIn,
    PassportOut,
    RepairedIn,
    RepairIn,
    RepairOut,
    RepairPath,
    UndoPath,
    ValueIn,
)
from brevin.web.bench_content import away_today, card_named, card_of, chairs, content, rules, section_of
from brevin.web.bench_schemas import CardQuery
from brevin.web.problems import SENTENCES, Refused
from brevin.web.routes import routes_of
from brevin.web.schemas import Done, StudentPath
from brevin.web.shapes import answer

routes = routes_of("bench_care", __name__, below="/api/bench/care")
MORNING = 7  # o'clock, at which a calendar's entry stands
CARE_MINUTES = 10


@routes.get("", responses={200: CareOut})
def care(query: CardQuery) -> Response:
    """A section's care: every task by every chair, and what needs a technician."""
    card = card_named(query.card)
    section = section_of(card)
    repairs = instruments.repairs(scope(), [one.id for one in section])
    return answer(
        CareOut(
            card=card.name, section=card.section, chairs=chairs(section, away_today()), tasks=_tasks(card, section, _known(section)), due=due_by_card(),
            repairs=[RepairOut(id=one.id, student=one.student_id, what=one.what, said_at=one.said_at, done_at=one.done_at) for one in repairs],
        )
    )  # fmt: skip


@routes.post("", responses={200: CareLogged})
def log(body: CareIn) -> Response:
    """One tap logs a task for the section, but for those who were left out, who are away, or whose instrument has no such task."""
    card = card_named(body.card)
    section = section_of(card)
    task = next((one for one in _tasks(card, section, _known(section)) if one.key == body.task), None)
    if task is None:
        raise Refused("no_such_task", 422)
    out = {*body.but, *away_today()}
    done = [row.student for row in task.rows if row.applies and row.student not in out]
    return answer(CareLogged(undo=instruments.log_care(scope(), done, task.key), students=done))


@routes.delete("/logged/<undo>", responses={200: Done})
def undo_log(path: UndoPath) -> Response:
    """Take back what one tap logged."""
    instruments.undo_care(scope(), path.undo)
    return answer(Done(done=True))


@dataclass(frozen=True)
class Known:
    """What is on record of some students' instruments, asked for once: passports, when each task was done last, the programme's own intervals by card."""

    passports: dict[int, Passport]
    last: dict[tuple[int, str], datetime]
    days: dict[str, dict[str, int]]


def _known(section: Sequence[StudentRecord]) -> Known:
    ids = [one.id for one in section]
    return Known(instruments.passports(scope(), ids), instruments.last_care(scope(), ids), rules().days)


def due_by_card() -> dict[str, int]:
    """Chairs for which something is due today, by card."""
    everybody = students.students(scope())
    known, found = _known(everybody), {}
    for card in content().kinds:
        section = [one for one in everybody if one.instrument in card.serves]
        rows = [row for task in _tasks(card, section, known) for row in task.rows if row.due and row.applies and task.every_days > 0]
        found[card.name] = len({row.student for row in rows})
    return {name: chairs for name, chairs in found.items() if chairs}


def _tasks(card: InstrumentCard, section: Sequence[StudentRecord], known: Known) -> list[CareTaskOut]:
    days = known.days.get(card.name, {})
    return [_task(task, card, section, known, days.get(task.key, task.every_days)) for task in card.care]


def _task(task: CareTask, card: InstrumentCard, section: Sequence[StudentRecord], known: Known, every: int) -> CareTaskOut:
    zone = member().programme.zone
    today, rows = now().astimezone(zone).date(), []
    for one in section:
        at = known.last.get((one.id, task.key))
        left = days_left(task, at.astimezone(zone).date() if at else None, today, every_days=every)
        has = task.key in {own.key for own in fitted(card, known.passports[one.id]).care}
        applies = has and (not task.shown or task.key in known.passports[one.id].shown)
        logged_today = bool(at and at.astimezone(zone).date() == today)
        rows.append(
            CareRow(student=one.id, last_at=at, days_left=left, due=due(left, every_days=every), today=logged_today, applies=applies)
        )  # fmt: skip
    said = {key: getattr(task, key) for key in ("key", "title", "does", "say", "drops", "rice", "who", "shown", "drawing")}
    return CareTaskOut(**said, every_days=every, rows=rows)


@routes.get("/due.ics")
def due_calendar() -> Response:
    """What is due, as a calendar: a section and a task an entry, without names, since calendars are shared."""
    everybody, entries = students.students(scope()), []
    morning = now().astimezone(member().programme.zone).replace(hour=MORNING, minute=0, second=0, microsecond=0)
    known = _known(everybody)
    for card in content().kinds:
        for task in _tasks(card, [one for one in everybody if one.instrument in card.serves], known):
            rows = [row for row in task.rows if row.applies and task.every_days > 0 and (row.due or row.days_left is not None)]
            left = [row.days_left or 0 for row in rows]
            if left:
                count = sum(days <= max(min(left), 0) for days in left)
                entries.append(
                    Entry(
                        f"care-{card.name}-{task.key}@brevin", f"{card.section}: {task.title.lower()}", morning + timedelta(days=max(min(left), 0)),
                        CARE_MINUTES, (f"{count} of {len(left)} chairs", task.say),
                    )
                )  # fmt: skip
    response = Response(calendar_of(entries, name=f"{member().programme.name}, care", made_at=now()), mimetype="text/calendar")
    response.headers["Content-Disposition"] = "attachment; filename=care.ics"
    return response


@routes.get("/passports/<int:student_id>", responses={200: PassportOut})
def passport(path: StudentPath) -> Response:
    """What is known of a student's instrument, with the student's own values."""
    who = students.student(scope(), path.student_id)
    known = instruments.passports(scope(), [who.id])[who.id]
    own = {one.key: one.value for one in instruments.values(scope(), [who.id]) if one.key not in PARTS}
    answers = {entry.key: known.answers.get(entry.key, entry.default) for entry in card_of(who).passport}
    return answer(PassportOut(answers=answers, shown=sorted(known.shown), size=known.size, number=known.number, own=known.own, values=own))


@routes.put("/passports/<int:student_id>", responses={200: Done})
def keep_passport(path: StudentPath, body: PassportIn) -> Response:
    """Write a passport anew; the cards follow it."""
    who = students.student(scope(), path.student_id)
    card = card_of(who)
    asked = {entry.key for entry in card.passport}
    may_show = {task.key for task in card.care if task.shown} | {part.name for part in card.parts if part.rule == "shown"}
    if set(body.answers) - asked or set(body.shown) - may_show:
        raise Refused("no_such_value", 422)
    instruments.keep_passport(scope(), who.id, Passport(body.answers, frozenset(body.shown), body.size, body.number, body.own))
    return answer(Done(done=True))


@routes.put("/values/<int:student_id>", responses={200: Done})
def keep_value(path: StudentPath, body: ValueIn) -> Response:
    """Keep a student's own value of a step; one out of the usual range is asked back."""
    who = students.student(scope(), path.student_id)
    amount = next((step.value for step in card_of(who).steps if step.value and step.value.key == body.key), None)
    if amount is None:
        raise Refused("no_such_value", 422)
    if body.value is not None and asked_back(amount, body.value) and not body.sure:
        words = SENTENCES["asked_back"].format(value=f"{body.value:g}", unit=amount.unit, low=f"{amount.low:g}", high=f"{amount.high:g}")
        raise Refused("asked_back", 409, words)
    instruments.keep_value(scope(), who.id, body.key, body.value)
    return answer(Done(done=True))


@routes.post("/repairs/<int:student_id>", responses={200: Done})
def report_repair(path: StudentPath, body: RepairIn) -> Response:
    """Put something on the technician's list."""
    instruments.report_repair(scope(), path.student_id, body.what.strip())
    return answer(Done(done=True))


@routes.put("/repaired/<int:repair_id>", responses={200: Done})
def repaired(path: RepairPath, body: RepairedIn) -> Response:
    """It was seen to, or that is taken back."""
    instruments.repaired(scope(), path.repair_id, done=body.done)
    return answer(Done(done=True))
