"""Others are blurred in clips that were read, before anybody sees these: what is said of a breath does not wait for it. So are those in clips of an older
release, and in those in which somebody else is read than before."""

import logging
import uuid
from dataclasses import dataclass

from brevin.core.errors import ClipUnusable
from brevin.edge.clip_work import BLUR_LIMITS, blur_others
from brevin.edge.limited import Answer, Child, Children, Died
from brevin.ops import files as sweeping
from brevin.ops.settings import ROOT, Settings, model_path
from brevin.store import blurring
from brevin.store.records import LetGo, TakeRecord
from brevin.store.scope import HOUSE

log = logging.getLogger("brevin.reader")


@dataclass
class _Job:
    """answered: kept until it is stored, since the database may be away just then."""

    take: TakeRecord
    child: Child
    name: str
    answered: Answer | None = None


class Blurs:
    """One clip at a time, beside those that are read."""

    def __init__(self, settings: Settings, children: Children) -> None:
        self._settings, self._children = settings, children
        self._job: _Job | None = None

    def step(self) -> None:
        """Begin the next, and hear the one that is going on."""
        if self._job is None and (take := blurring.next_to_blur(HOUSE)) is not None:
            self._begin(take)
        elif self._job is not None:
            self._hear(self._job)

    def stop(self) -> None:
        """End the child; it is begun again next time."""
        if self._job is not None:
            self._end(self._job)

    def _begin(self, take: TakeRecord) -> None:
        if take.clip is None or not take.evidence_name:
            blurring.cannot_blur(HOUSE, take.id)
            return
        name = f"{take.id}-{uuid.uuid4().hex[:8]}.mp4"
        clip, seen = self._settings.clips / take.clip.stored_name, self._settings.evidence / take.evidence_name
        stills = seen.with_name(take.stills_name or "none")
        child = self._children.start(
            blur_others, str(clip), str(model_path(ROOT)), str(seen), str(stills), take.edits.player, name, limits=BLUR_LIMITS
        )  # fmt: skip
        self._job = _Job(take, child, name)

    def _hear(self, job: _Job) -> None:
        try:
            while job.answered is None and job.child.pipe.poll():
                job.answered = job.child.answer(wait_s=0.0)
            job.answered = job.answered or job.child.answer(wait_s=0.0)  # its time may be over
            if job.answered is None:
                return
            told = job.answered.value
            playable = (str(told["playable_name"]), str(told["playable_type"]))
            blurring.kept(HOUSE, job.take, stored_name=str(told["stored_name"]), playable=playable, blurred_for=told["blurred_for"])
        except (ClipUnusable, Died) as why:
            log.warning("the clip of take %s stays as it is kept: %r", job.take.id, why)
            blurring.cannot_blur(HOUSE, job.take.id)
        self._end(job)

    def _end(self, job: _Job) -> None:
        job.child.kill()
        self._job = None
        sweeping.work_off(self._settings)
        sweeping.drop_unowned(self._settings, [LetGo("clips", job.name)])
