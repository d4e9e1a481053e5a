"""Clips that are looked at while they are filmed: begun with their first pieces, and taken over by the reading of their take."""

import contextlib
import logging
import time
import uuid
from dataclasses import dataclass
from pathlib import Path

from brevin.core.errors import ClipUnusable
from brevin.edge.clip_work import READ_LIMITS, read_growing
from brevin.edge.growing import STALLED_S, Growing, growing
from brevin.edge.limited import Answer, Child, Children, Died
from brevin.edge.pictures import KEPT, SEEN
from brevin.ops import files as sweeping
from brevin.ops.settings import ROOT, Settings, model_path
from brevin.store.records import LetGo

MOST = 2  # at once; more are read when they have come whole
BEGINS_BYTES = 20_000  # a container's head and most of its first picture
LEFT_S, ENDED_S = 4 * STALLED_S, 600.0  # after its last piece nobody will want it any more: not ended, or ended and waiting for its take's turn
log = logging.getLogger("brevin.reader")


@dataclass
class Early:
    """A clip that is filmed, with the child that looks at it. answered: once it has seen all; child: None where it ended without, so that it is not begun
    again."""

    clip: Growing
    child: Child | None
    evidence_name: str
    answered: Answer | None = None
    resting: bool = False

    def rest(self, resting: bool) -> None:
        """Stand still, or go on."""
        if self.child is not None and resting != self.resting:
            self.child.rest(resting)
        self.resting = resting


def looked_at(evidence_name: str) -> list[LetGo]:
    """Every file that looking at a clip makes."""
    return [LetGo("evidence", name) for name in (evidence_name, *(Path(evidence_name).with_suffix(ending).name for ending in (SEEN, KEPT)))]


class EarlyLooks:
    """Keeps a look going at each clip that is filmed."""

    def __init__(self, settings: Settings, children: Children) -> None:
        self._settings, self._children = settings, children
        self._looks: dict[str, Early] = {}

    def step(self) -> None:
        """Begin what has begun to come, hear the children, let go of what nobody sends any more."""
        there = {one.key: one for one in growing(self._settings.filming)}
        for key in [key for key in self._looks if key not in there]:
            self._end(self._looks.pop(key))
        for key, clip in there.items():
            if key not in self._looks:
                self._begin(key, clip)
        for early in self._looks.values():
            self._hear(early)
        for clip in there.values():
            with contextlib.suppress(FileNotFoundError):
                if time.time() - clip.path.stat().st_mtime > (ENDED_S if clip.ended.exists() else LEFT_S):
                    clip.drop()

    def take_over(self, sent_as: str | None) -> tuple[Early, Child] | None:
        """The look at the recording that became a take, if it goes on or is done; it is the caller's from now on."""
        if sent_as is None:
            return None
        early = self._looks.pop(sent_as, None)
        if early is not None:
            early.rest(False)
        if early is not None and early.child is not None and early.clip.path.exists():
            return early, early.child
        if early is not None:
            self._end(early)
        for clip in growing(self._settings.filming, key=sent_as):
            clip.drop()
        return None

    def give_way(self, awaited: bool) -> None:
        """Stand still while somebody waits for a clip that is over already: two that share the cores would both be late. They go on where they were."""
        for early in self._looks.values():
            early.rest(awaited)

    def stop(self) -> None:
        """End every child."""
        for early in self._looks.values():
            self._end(early)
        self._looks.clear()

    def _begin(self, key: str, clip: Growing) -> None:
        busy = sum(early.child is not None for early in self._looks.values())
        if busy >= MOST or clip.ended.exists() or (clip.size or 0) < BEGINS_BYTES:
            return
        name = f"{uuid.uuid4().hex}.evidence"
        kept_at = str(self._settings.evidence / name)
        child = self._children.start(read_growing, str(clip.path), str(model_path(ROOT)), kept_at, clip.view, limits=READ_LIMITS)
        self._looks[key] = Early(clip, child, name)

    def _hear(self, early: Early) -> None:
        """How far it is nobody asks yet, but its line must not fill."""
        try:
            while early.child is not None and early.answered is None and early.child.pipe.poll():
                early.answered = early.child.answer(wait_s=0.0)
        except (ClipUnusable, Died) as why:
            log.info("a look at a clip that is being filmed ended: %r", why)
            self._end(early)

    def _end(self, early: Early) -> None:
        if early.child is not None:
            early.child.kill()
            early.child = None
        sweeping.drop_unowned(self._settings, looked_at(early.evidence_name))
