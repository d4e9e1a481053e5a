"""How soon Today answers with thirty waiting chairs, to one page and to twenty that ask all at their own time; and with a large programme behind it."""

import threading
import time
from datetime import UTC, datetime, timedelta

from brevin.bench import Measured
from brevin.bench.recompute import connected
from brevin.bench.served import Client, Served, served
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.store import lessons, programmes, students
from brevin.store.database import db
from brevin.store.models import Report, Student, Take
from brevin.store.scope import HOUSE, Scope

CHAIRS, CLIENTS, EACH, EVERY_S = 30, 20, 12, 1.0
STUDENTS, TAKES = 120, 6000


def measure() -> Measured:
    """Milliseconds of /api/today: alone, and with twenty pages that each ask once a second while each also listens for events."""
    with served() as server:
        page = Client(server.address)
        page.all_read()
        _lesson(server)
        assert len(page("GET", "/api/today")["lesson"]["seats"]) == CHAIRS
        alone = sorted(_ms(page) for _ in range(EACH))
        together = sorted(_together(page))
        _many(server)
        crowded = sorted(_ms(page) for _ in range(EACH))
    figures = {
        "alone_median_ms": alone[len(alone) // 2], "p50_ms": together[len(together) // 2], "p95_ms": together[int(0.95 * len(together))],
        "worst_ms": together[-1], "of_6000_takes_p95_ms": crowded[int(0.95 * len(crowded))],
    }  # fmt: skip
    return Measured("today", figures, {"p95_ms": ("<=", 150.0), "of_6000_takes_p95_ms": ("<=", 300.0)})


def _lesson(server: Served) -> None:
    """Thirty chairs, nobody filmed yet, each with an earlier reading where the demo has one."""
    connected(str(server.data))
    scope = Scope(programmes.all_programmes(HOUSE)[0].id)
    group = students.add_group(scope, "Everybody")
    everyone = [s.id for s in students.students(scope)]
    everyone += [students.add_student(scope, name=f"Newcomer {n}", instrument="flute", group_id=group).id for n in range(CHAIRS - len(everyone))]
    lesson = lessons.add_lesson(scope, title="Full house", group_id=group, starts_at=datetime.now(UTC) + timedelta(minutes=1), minutes=60)
    for place, student_id in enumerate(everyone[:CHAIRS], start=1):
        lessons.add_seat(scope, lesson, student_id=student_id, place=place, minute=2.0 * place, check=Check(card=parse("4-0-4@72x3")), side="right")


def _many(server: Served) -> None:
    """150 students, and 6,000 takes with the report of one, spread over a year: a few of them lie in the last hours."""
    first = next(row for row in Report.select() if row.headline)
    with db.connection_context(), db.atomic():
        own = Take.get_by_id(first.take_id)
        for number in range(STUDENTS):
            Student.create(programme=own.programme_id, name=f"Crowd {number}", instrument="flute")
        pupils = [row.id for row in Student.select(Student.id).where(Student.programme == own.programme_id)]
        for number in range(TAKES):
            made_at = datetime.now(UTC) - timedelta(hours=1.4 * number)
            take = Take.create(
                programme=own.programme_id, student=pupils[number % len(pupils)], asked=own.asked_id, state="read", stage="done", made_at=made_at
            )  # fmt: skip
            Report.create(
                take=take, version=1, made_at=made_at, software_version="", thresholds_id="", profile_id="", readable=True, headline=first.headline,
                document=first.document,
            )  # fmt: skip


def _together(page: Client) -> list[float]:
    times: list[float] = []

    def ask(phase_s: float) -> None:
        time.sleep(phase_s)
        for _ in range(EACH):
            began = time.monotonic()
            times.append(_ms(page))
            time.sleep(max(EVERY_S - (time.monotonic() - began), 0.0))

    pages = [threading.Thread(target=ask, args=(EVERY_S * i / CLIENTS,)) for i in range(CLIENTS)]
    for one in pages:
        one.start()
    for one in pages:
        one.join()
    return times


def _ms(page: Client) -> float:
    began = time.monotonic()
    page("GET", "/api/today")
    return 1000 * (time.monotonic() - began)
