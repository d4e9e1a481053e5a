"""One queued reading: claim the take, look, read, store the report, make the playable copy. Thin: edge, core and store do the work."""

import json
import logging
import time
from dataclasses import replace

from brevin.core.errors import ClipUnusable, InvalidInput
from brevin.core.plan.card import CountCard, parse
from brevin.core.read import Task, read
from brevin.core.report import to_json
from brevin.core.verdict.headline import headline
from brevin.core.verdict.words import reason_text
from brevin.edge.look import look
from brevin.edge.transcode import playable
from brevin.ops.settings import ROOT, Settings, model_path
from brevin.store import takes
from brevin.store.records import NewReport, NotThere

SAY_EVERY_S = 0.4  # progress goes to the database at most this often
log = logging.getLogger("brevin.reading")


class LeaseLost(Exception):
    """The take was deleted, or another worker has it: stop here, store nothing."""


def read_take(take_id: str, settings: Settings) -> None:
    """Read one take from queued to read or failed. Never leaves it half-way: an error of ours is stored as ``reading_failed``."""
    token = takes.claim(take_id)
    if token is None:
        return
    try:
        _read(take_id, token, settings)
    except ClipUnusable as why:
        takes.fail(take_id, token, code=why.code, text=reason_text(why.code, why.facts))
    except (LeaseLost, NotThere):
        log.info("take %s is gone or has another reader", take_id)
    except Exception:
        log.exception("reading take %s failed", take_id)
        takes.fail(take_id, token, code="reading_failed", text=reason_text("reading_failed", {}))


def _read(take_id: str, token: str, settings: Settings) -> None:
    take = takes.take_record(take_id)
    assert take.clip is not None
    path = settings.clips / take.clip.stored_name
    sighting = look(path, model_path(ROOT), progress=_Progress(take_id, token))
    report = read(sighting, Task(card=card_of(take.card), instrument=take.instrument, first_inhale_s=take.first_inhale_s))
    document = to_json(replace(report, clip=replace(report.clip, file=take.clip.original_name)))
    _Progress(take_id, token)("keeping the clip", 0.96)
    line = headline(report)
    new = NewReport(
        document=json.dumps(document, allow_nan=False), readable=report.readable, state=line.state, words=line.words, cue=line.cue,
        software_version=report.software.version, thresholds_id=report.software.thresholds_id, profile_id=report.software.profile_id,
    )  # fmt: skip
    stored = takes.finish(take_id, token, report=new, playable=playable(path, folder=settings.clips))
    if not stored:
        raise LeaseLost(take_id)


def card_of(text: str) -> CountCard | None:
    """The take's count card; None where it has none."""
    try:
        return parse(text) if text else None
    except InvalidInput:
        log.warning("take with the card %r: read without a card", text)
        return None


class _Progress:
    """Heartbeat of the lease, with the stage for the person who waits."""

    def __init__(self, take_id: str, token: str) -> None:
        self.take_id, self.token, self.said_at = take_id, token, 0.0

    def __call__(self, stage: str, share: float) -> None:
        if time.monotonic() - self.said_at < SAY_EVERY_S:
            return
        self.said_at = time.monotonic()
        if not takes.report_progress(self.take_id, self.token, stage=stage, progress=share):
            raise LeaseLost(self.take_id)
