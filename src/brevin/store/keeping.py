"""How long the pictures of children are kept: clips and stills go when their time is over, or when no family's word holds any more that they may be kept.

Readings and the evidence beneath them stay, so that verdicts can be judged anew and progress told.
"""

import contextlib
from collections.abc import Iterable, Sequence
from datetime import timedelta

from brevin.store import changes, students, takes
from brevin.store.database import db, now
from brevin.store.models import Clip, Consent, Programme, Take
from brevin.store.records import NotThere
from brevin.store.scope import Scope

LEAST_DAYS, MOST_DAYS = 1, 3660
READ = ("read", "failed")  # what still waits keeps its clip until then


def keep_days(scope: Scope) -> int | None:
    """After how many days clips and stills go; None = they stay until somebody deletes them."""
    with db.connection_context():
        row = Programme.get_or_none(Programme.id == scope.programme)
        return row.keep_days if row else None


def set_keep_days(scope: Scope, days: int | None) -> None:
    """Another time to keep them; ``let_go`` works it off. Raises ValueError outside 1 to 3660 days."""
    if days is not None and not LEAST_DAYS <= days <= MOST_DAYS:
        raise ValueError(days)
    with db.connection_context(), db.atomic():
        Programme.update(keep_days=days).where(Programme.id == scope.programme).execute()
        changes.note(scope, scope.programme, "people", "")


def older(scope: Scope, days: Sequence[int]) -> dict[int, int]:
    """How many takes have pictures that are older than so many days."""
    with db.connection_context():
        made = [row.made_at for row in _with_pictures(scope)]
    return {one: sum(at < now() - timedelta(days=one) for at in made) for one in days}


def let_go(scope: Scope) -> int:
    """Drop the pictures of every take whose time is over, or whose student's family allowed them to be kept until a day that has gone by; how many takes.
    Their files are on the list of what is to go. scope: of one programme, or of the house. Without any word on keeping they go when they have been read."""
    with db.connection_context():
        rows = list(_with_pictures(scope))
        pupils = sorted({row.student_id for row in rows})
        asked = {row.student_id for row in Consent.select(Consent.student).where(Consent.student.in_(pupils or [0]) & (Consent.purpose == "keeping"))}
        ended = asked - set(students.consents(scope, pupils, "keeping"))
    overdue = [row.id for row in rows if row.student_id in ended or _over(row)]
    for take in overdue:
        with contextlib.suppress(NotThere):  # deleted meanwhile
            takes.drop_clip(scope, take)
    return len(overdue)


def _over(row: Take) -> bool:
    days = row.programme.keep_days
    return days is not None and row.made_at < now() - timedelta(days=days)


def _with_pictures(scope: Scope) -> Iterable[Take]:
    """Takes with a clip or stills that nothing waits for any more, their programme known: one query. Needs an open connection."""
    rows = Take.select(Take.id, Take.student, Take.made_at, Programme.id, Programme.keep_days).join(Programme).switch(Take).left_outer_join(Clip)
    found: Iterable[Take] = rows.where(Take.state.in_(READ) & (Clip.id.is_null(False) | (Take.stills_name != "")) & scope.sees(Take.programme))
    return found
