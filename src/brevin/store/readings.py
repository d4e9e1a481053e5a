"""The lease that makes one reader at a time responsible for a take, and how a reading ends. The take's row carries the truth; there is no other queue."""

import uuid
from datetime import timedelta
from statistics import median

from peewee import Expression

from brevin.core.verdict import rules as ruling
from brevin.store import anew, blurring, changes, files, reports, takes
from brevin.store.database import db, now
from brevin.store.models import Clip, Take
from brevin.store.reading_records import Leased, Looked
from brevin.store.records import LetGo, NotThere, TakeRecord
from brevin.store.scope import Scope

LEASE = timedelta(seconds=45)  # a reader that is silent for this long has died
LATELY, USUAL_S = 9, 8.0  # readings; and what is said before there were any
MOST_ATTEMPTS = 2  # a clip that ended two readers is not tried a third time


def claim_next(scope: Scope) -> Leased | None:
    """Take the next waiting take for reading: what was filmed in the page first, since its class waits and it has been looked at while it was filmed, then
    the oldest; None where nothing waits."""
    token = uuid.uuid4().hex
    with db.connection_context(), db.atomic():
        free = Take.select().where((Take.state == "queued") & scope.sees(Take.programme)).order_by(Take.sent_as.is_null(), Take.made_at, Take.id)
        row = free.for_update("FOR UPDATE SKIP LOCKED").first()
        if row is None:
            return None
        Take.update(
            state="reading", lease_token=token, lease_until=now() + LEASE, attempts=Take.attempts + 1, stage="starting", progress=0.0, claimed_at=now()
        ).where(Take.id == row.id).execute()
        changes.note(scope, row.programme_id, "take", row.id)
    return Leased(takes.take_record(scope, row.id), token)


def report_progress(scope: Scope, take_id: str, token: str, *, stage: str, progress: float) -> bool:
    """Heartbeat with what is going on; False where the lease has gone to another reader, the take is deleted, or filming it is no longer allowed."""
    with db.connection_context(), db.atomic():
        held = (Take.id == take_id) & (Take.lease_token == token) & (Take.state == "reading")
        row = Take.get_or_none(held & scope.sees(Take.programme))
        if row is None:
            return False
        Take.update(stage=stage, progress=progress, lease_until=now() + LEASE).where(held).execute()
        changes.note(scope, row.programme_id, "take", take_id)
        return True


def finish(scope: Scope, take_id: str, token: str, found: Looked) -> bool:
    """Store evidence, stills, playable copy and report as the next version, if the lease still holds. Earlier files of these are let go."""
    with db.connection_context(), db.atomic():
        row = Take.select().where((Take.id == take_id) & (Take.lease_token == token) & (Take.state == "reading")).for_update().first()
        if row is None:
            return False
        files.let_go(scope, [LetGo("evidence", name) for name in {row.evidence_name, row.stills_name} - {"", found.evidence_name, found.stills_name}])
        took_s = (now() - row.claimed_at).total_seconds() if found.timed and row.claimed_at else None
        Take.update(
            state="read", stage="read", progress=1.0, lease_until=None, reason_code="", reason_facts={}, evidence_name=found.evidence_name,
            stills_name=found.stills_name, rules=ruling.to_document(found.rules), read_s=took_s,
        ).where(Take.id == take_id).execute()  # fmt: skip
        clip = Clip.get_or_none(Clip.take == take_id)
        if clip is not None:
            blurring.keep(scope, clip, stored_name="", playable=found.playable, blurred_for=found.blurred_for)
        take = takes.take_record(scope, take_id)
        anew.settle(scope, take, judged_by=found.rules, with_edits=found.edits, seen=found.evidence_name)
        reports.put(scope, take, found.report)
        changes.note(scope, row.programme_id, "take", take_id)
        return True


def fail(scope: Scope, take_id: str, token: str, *, code: str, facts: dict[str, float | str] | None = None) -> None:
    """End a reading with a reason, if the lease still holds."""
    with db.connection_context(), db.atomic():
        row = Take.get_or_none((Take.id == take_id) & (Take.lease_token == token))
        if row is not None:
            Take.update(state="failed", stage="failed", lease_until=None, reason_code=code, reason_facts=facts or {}).where(Take.id == take_id).execute()
            changes.note(scope, row.programme_id, "take", take_id)


def put_back(scope: Scope, *, code: str, tokens: list[str] | None = None) -> int:
    """Takes whose reading broke off wait again; after the last attempt they fail with the reason. tokens: leases that are known to be lost, else those that
    ran out. Returns how many."""
    lost = Take.lease_until < now() if tokens is None else Take.lease_token.in_(tokens or [""])
    return _wait_again(scope, lost, code)


def readers_died(scope: Scope, *, code: str = "reading_failed") -> int:
    """The process that held all leases is gone: what it read waits again at once. Returns how many."""
    return _wait_again(scope, Take.lease_token != "", code)


def _wait_again(scope: Scope, lost: Expression, code: str) -> int:
    with db.connection_context(), db.atomic():
        dead = list(Take.select().where((Take.state == "reading") & lost & scope.sees(Take.programme)))
        for row in dead:
            again = row.attempts < MOST_ATTEMPTS
            state, stage = ("queued", "waiting") if again else ("failed", "failed")
            Take.update(state=state, stage=stage, lease_until=None, lease_token="", reason_code="" if again else code).where(Take.id == row.id).execute()
            changes.note(scope, row.programme_id, "take", row.id)
        return len(dead)


def free_leases(scope: Scope) -> None:
    """At start nobody reads: what a stopped run had begun waits again, and the stop was not the clip's fault."""
    with db.connection_context():
        Take.update(state="queued", stage="waiting", progress=0.0, attempts=0, lease_until=None, lease_token="").where(
            (Take.state == "reading") & scope.sees(Take.programme)
        ).execute()


def usual_s(scope: Scope) -> float:
    """How long a reading took lately, s: the median of the last ones, whoever's they were. Needs an open connection."""
    last = Take.select(Take.read_s).where(Take.read_s.is_null(False)).order_by(Take.claimed_at.desc()).limit(LATELY)
    known = [row.read_s for row in last if row.read_s is not None]
    return median(known) if known else USUAL_S


def waiting(scope: Scope) -> int:
    """How many takes wait to be read."""
    with db.connection_context():
        return int(Take.select().where((Take.state == "queued") & scope.sees(Take.programme)).count())


def read_again(scope: Scope, take_id: str) -> TakeRecord:
    """Put a take back to be read once more. Raises NotThere, also where it has no clip."""
    if takes.take_record(scope, take_id).clip is None:
        raise NotThere(take_id)
    with db.connection_context(), db.atomic():
        again = (Take.id == take_id) & Take.state.in_(["read", "failed"])
        Take.update(state="queued", stage="waiting", progress=0.0, attempts=0, lease_token="", reason_code="", reason_facts={}).where(again).execute()
        changes.note(scope, Take.get_by_id(take_id).programme_id, "take", take_id)
    return takes.take_record(scope, take_id)
