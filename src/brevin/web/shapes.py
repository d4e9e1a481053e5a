"""From records to what goes over the wire."""

from brevin.store.records import LessonRecord, SeatRecord, StudentRecord, TakeRecord
from brevin.web.schemas import ClipOut, HeadlineOut, LessonOut, SeatOut, StudentOut, TakeOut


def student_out(record: StudentRecord) -> StudentOut:
    """A student."""
    return StudentOut(**vars(record))


def take_out(record: TakeRecord) -> TakeOut:
    """A take; the clip's address only once a browser can play it."""
    own = {key: value for key, value in vars(record).items() if key in TakeOut.model_fields}
    clip = record.clip
    shown = None
    if clip is not None:
        url = f"/api/takes/{record.id}/clip" if clip.playable_name else None
        shown = ClipOut(original_name=clip.original_name, size_bytes=clip.size_bytes, url=url, type=clip.playable_type or "video/mp4")
    head = HeadlineOut(**vars(record.headline)) if record.headline else None
    return TakeOut(**(own | {"student": student_out(record.student), "clip": shown, "headline": head}))


def seat_out(record: SeatRecord) -> SeatOut:
    """A chair."""
    return SeatOut(**(vars(record) | {"student": student_out(record.student), "take": take_out(record.take) if record.take else None}))


def lesson_out(record: LessonRecord) -> LessonOut:
    """A lesson with its chairs."""
    return LessonOut(id=record.id, title=record.title, group_name=record.group_name, minutes=record.minutes, seats=[seat_out(s) for s in record.seats])
