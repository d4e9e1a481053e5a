"""The process that reads clips: ``python -m brevin.jobs.reader DATA READERS``.

It claims waiting takes and opens none of their files itself: every clip is looked at in a limited child. Here the lease is kept alive, and what the child
has seen is judged and stored.
"""

import contextlib
import logging
import sys
import time
import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from multiprocessing.connection import wait
from pathlib import Path

from peewee import DatabaseError, InterfaceError

from brevin.core.errors import ClipUnusable, InvalidInput
from brevin.core.evidence import unpacked
from brevin.edge.clip_work import PRELOAD_READ, READ_LIMITS, read_clip
from brevin.edge.limited import Answer, Child, Children, Died
from brevin.edge.pictures import KEPT, SEEN, pick
from brevin.edge.transcode import COPIES
from brevin.jobs.blurring import Blurs
from brevin.jobs.early import Early, EarlyLooks, looked_at
from brevin.jobs.judging import ReadAgain, facts_of, judge_anew, report_of
from brevin.ops import files as sweeping
from brevin.ops import settings as known
from brevin.ops.only_run import connect
from brevin.ops.settings import ROOT, Settings, model_path
from brevin.ops.told import Told
from brevin.store import anew, keeping, readings, students, takes
from brevin.store.database import untangled
from brevin.store.reading_records import Leased, Looked
from brevin.store.records import LetGo, NotThere
from brevin.store.scope import HOUSE

LOOK_EVERY_S = 0.25  # for takes that wait
SAY_EVERY_S = 0.4  # progress goes to the database at most this often
LEASES_EVERY_S = 15.0  # looks after readers that died elsewhere
KEEPING_EVERY_S = 1800.0  # looks after clips whose time is over: a day begins at another hour in each programme's zone
DATABASE_PATIENCE_S = 60  # for a database that is away
FAILED = "reading_failed"
log = logging.getLogger("brevin.reader")


@dataclass
class _Job:
    """One take with the child that looks at its clip."""

    held: Leased
    child: Child
    evidence_name: str
    early: Early | None = None
    said_at: float = 0.0


class Reader:
    """Keeps a number of readings going. ``step`` does what is due and returns soon."""

    def __init__(self, settings: Settings, children: Children, *, most: int) -> None:
        self._settings, self._children, self._most = settings, children, most
        self._jobs: list[_Job] = []
        self._early, self._blurs = EarlyLooks(settings, children), Blurs(settings, children)
        self._leases_at = self._keeping_at = 0.0

    def step(self, *, wait_s: float = LOOK_EVERY_S) -> None:
        """Claim what waits, hear the children, look after leases."""
        self._look_after()
        while len(self._jobs) < self._most and (held := readings.claim_next(HOUSE)) is not None:
            self._begin(held)
        self._early.step()
        self._early.give_way(any(job.early is not None for job in self._jobs))
        self._blurs.step()
        if not self._jobs and self._judged_one():
            return
        wait([job.child.pipe for job in self._jobs], timeout=wait_s) if self._jobs else time.sleep(wait_s)
        for job in list(self._jobs):
            self._hear(job)

    def _look_after(self) -> None:
        """Leases of readers that died elsewhere, and pictures whose time to be kept is over."""
        if time.monotonic() - self._leases_at > LEASES_EVERY_S:
            readings.put_back(HOUSE, code=FAILED)
            self._leases_at = time.monotonic()
        if time.monotonic() > self._keeping_at:
            self._keeping_at = time.monotonic() + KEEPING_EVERY_S
            if gone := keeping.let_go(HOUSE):
                log.info("the pictures of %d takes went: their time to be kept was over", gone)
            sweeping.work_off(self._settings)

    def _judged_one(self) -> bool:
        """Judge one take anew whose rules were changed; whether there was one."""
        take_id = anew.next_to_judge(HOUSE)
        if take_id is None:
            return False
        try:
            judge_anew(HOUSE, take_id, self._settings)
        except (DatabaseError, InterfaceError):
            raise
        except (ReadAgain, InvalidInput, NotThere) as why:
            log.info("take %s stays as it was judged: %r", take_id, why)
            anew.cannot_judge(HOUSE, take_id)
        except Exception:
            log.exception("judging take %s anew failed", take_id)
            anew.cannot_judge(HOUSE, take_id)
        return True

    def stop(self) -> None:
        """End every child; what they had begun waits again."""
        self._early.stop()
        self._blurs.stop()
        for job in self._jobs:
            job.child.kill()
        with contextlib.suppress(DatabaseError, InterfaceError):
            readings.put_back(HOUSE, code=FAILED, tokens=[job.held.token for job in self._jobs])
        self._jobs.clear()

    @property
    def busy(self) -> bool:
        """Whether anything is being read."""
        return bool(self._jobs)

    def _begin(self, held: Leased) -> None:
        take = held.take
        if take.clip is None:
            readings.fail(HOUSE, take.id, held.token, code="not_there")
            return
        if take.student.may_film_until is None:
            readings.fail(HOUSE, take.id, held.token, code="no_consent")
            return
        if (taken := self._early.take_over(take.sent_as)) is not None:
            early, child = taken
            self._jobs.append(_Job(held, child, early.evidence_name, early))
            return
        name = f"{take.id}-{uuid.uuid4().hex[:8]}.evidence"
        clip = self._settings.clips / take.clip.stored_name
        child = self._children.start(
            read_clip, str(clip), str(model_path(ROOT)), str(self._settings.evidence / name), take.asked.check.view, take.clip.playable_name,
            take.edits.player, take.clip.blurred_for, limits=READ_LIMITS,
        )  # fmt: skip
        self._jobs.append(_Job(held, child, name))

    def _hear(self, job: _Job) -> None:
        take_id, token = job.held.take.id, job.held.token
        try:
            answer = (job.early.answered if job.early is not None else None) or job.child.answer(wait_s=0.0)
            if answer is None:
                self._told(job)
                return
            self._store(job, answer)
        except ClipUnusable as why:
            if job.early is not None:  # the clip has come; what was seen of it while it was filmed is no reason against it
                readings.put_back(HOUSE, code=FAILED, tokens=[token])
            else:
                readings.fail(HOUSE, take_id, token, code=why.code, facts=facts_of(why.facts))
        except Died as why:
            log.error("reading take %s failed: %s", take_id, why)
            readings.put_back(HOUSE, code=FAILED, tokens=[token])
        except (DatabaseError, InterfaceError):
            raise
        except Exception:
            log.exception("judging take %s failed", take_id)
            readings.fail(HOUSE, take_id, token, code=FAILED)
        self._end(job)

    def _told(self, job: _Job) -> None:
        """Heartbeat of the lease, with the stage for the person who waits; a lease that is gone ends the child."""
        if job.child.progress is None or time.monotonic() - job.said_at < SAY_EVERY_S:
            return
        job.said_at = time.monotonic()
        stage, share = job.child.progress
        if not readings.report_progress(HOUSE, job.held.take.id, job.held.token, stage=stage, progress=share):
            log.info("take %s is gone or has another reader", job.held.take.id)
            self._end(job)

    def _store(self, job: _Job, answer: Answer) -> None:
        take = takes.take_record(HOUSE, job.held.take.id)  # rules and edits may have changed meanwhile
        found = unpacked((self._settings.evidence / job.evidence_name).read_bytes())
        rules = anew.current_rules(HOUSE, take)
        report = report_of(HOUSE, take, found, rules=rules, edits=take.edits)
        playable = (str(answer.value["playable_name"]), str(answer.value["playable_type"]))
        looked = Looked(
            job.evidence_name, playable, report, rules, stills_name=self._stills(job, report.stills_s), edits=take.edits,
            blurred_for=answer.value["blurred_for"],
        )  # fmt: skip
        if not untangled(lambda: readings.finish(HOUSE, take.id, job.held.token, looked)):
            log.info("take %s is gone or has another reader", take.id)
        elif not students.may(HOUSE, take.student.id, "keeping"):
            takes.drop_clip(HOUSE, take.id)  # filmed to be read, and no longer

    def _stills(self, job: _Job, moments_s: Sequence[float]) -> str:
        """Keep the pictures that the report shows; the file's name, "" where it shows none."""
        seen = self._settings.evidence / job.evidence_name
        kept = seen.with_suffix(KEPT)
        return kept.name if pick(seen.with_suffix(SEEN), kept, moments_s) else ""

    def _end(self, job: _Job) -> None:
        job.child.kill()
        if job.early is not None:
            job.early.clip.drop()
        self._jobs.remove(job)
        sweeping.work_off(self._settings)
        made = looked_at(job.evidence_name)
        if job.held.take.clip is not None:
            made += [LetGo("clips", Path(job.held.take.clip.stored_name).stem + ending) for ending in COPIES.values()]
        sweeping.drop_unowned(self._settings, made)


def main(argv: list[str]) -> int:
    """Read until told to stop."""
    settings = known.load(Path(argv[0]))
    logging.basicConfig(level=logging.INFO, format="%(asctime)s %(name)s %(levelname)s %(message)s")
    connect(settings)
    settings.evidence.mkdir(parents=True, exist_ok=True)
    reader = Reader(settings, Children(PRELOAD_READ).warm(), most=int(argv[1]))
    told = Told()
    told.listen()
    try:
        run(reader, told)
    finally:
        reader.stop()
    return 0


def run(reader: Reader, told: Told) -> None:
    """Step after step until told to stop. Raises what the database raises where it has been away too long."""
    silent = 0
    while not told.stop:
        try:
            reader.step()
            silent = 0
        except (DatabaseError, InterfaceError):  # it is being started again, or stopped like this
            if told.stop:
                return
            log.warning("the database does not answer")
            silent += 1
            if silent > DATABASE_PATIENCE_S:
                raise
            time.sleep(1.0)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
