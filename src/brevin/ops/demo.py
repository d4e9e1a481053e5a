"""The demo school: people of our own invention, one lesson, the stand-in clips. Nobody here exists.

What the edge saw of the clips ships beside them (``standin/seen.py``) and is judged here; a clip without it, or with one of another release, waits to be read
like any other."""

import hashlib
import shutil
import uuid
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from pathlib import Path

from brevin.core.errors import InvalidInput
from brevin.core.evidence import unpacked
from brevin.core.handling.cards import Outcome
from brevin.core.kinds import Instrument
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.edge.pictures import KEPT
from brevin.jobs.judging import report_of
from brevin.ops.settings import DEMO_PASSWORD, ROOT, Settings
from brevin.store import instruments, lessons, programmes, readings, sounds, students, takes
from brevin.store.reading_records import Leased, Looked
from brevin.store.records import ClipRecord
from brevin.store.scope import HOUSE, Scope

CLIPS = ROOT / "demo" / "clips"
LOGIN, PASSWORD = "teacher", DEMO_PASSWORD
GROUP = "Alder Lane School, beginner winds"

# name, instrument, note for the set-up, consent on record
STUDENTS: tuple[tuple[str, Instrument, str, bool], ...] = (
    ("Mirembe Okello-Dahl", "flute", "", True),
    ("Tadeo Villanque", "flute", "", True),
    ("Sunniva Ekeberg", "flute", "footrest under the chair", True),
    ("Iolana Makoa", "flute", "", True),
    ("Noor Haddadi", "oboe", "stand to the left, off the belly", True),
    ("Bram Oosterveld", "clarinet", "", True),
    ("Kwaku Asantewa", "clarinet", "", True),
    ("Hana Morikawa", "clarinet", "", True),
    ("Wren Talbot-Ilesanmi", "clarinet", "", False),
    ("Anouk Perrelet", "clarinet", "", True),
    ("Lazar Stojanic", "alto_sax", "strap at hole 3", True),
    ("Priya Venkataraman", "alto_sax", "", True),
    ("Odalys Brandeiro", "alto_sax", "strap at hole 4", True),
    ("Emre Salcan", "tenor_sax", "harness", True),
    ("Jonas Lindqvast", "trumpet", "", True),
    ("Amaru Quispeta", "trumpet", "", True),
    ("Teodor Vasilescu-Ng", "trumpet", "", True),
    ("Saskia Vermeul", "trumpet", "no wrist check", True),
    ("Pavel Horacek", "horn", "", True),
    ("Ziva Kaplansky", "horn", "", True),
    ("Declan Moriartaigh", "trombone", "clear space in front", True),
    ("Yara Benhaddou", "trombone", "brace finger near the mouthpiece", True),
    ("Mateus Figueirol", "euphonium", "", True),
    ("Ingrid Solbakke", "tuba", "stand for the tuba", False),
)
CARD = "4-0-4@72x3"
# clip, student's place in the list above, card, which is also on the clip's click track
TAKES: tuple[tuple[str, int, str], ...] = (
    ("seated-low-then-wide.mp4", 5, "4-0-4@72x3"),
    ("seated-chest-high.mp4", 4, "3-0-5@76x3"),
    ("front-flute-sags.mp4", 0, "3-0-6@72x3"),
    ("standing-full-early.mp4", 14, "4-0-6@84x3"),
)
# read so many weeks ago: of those whose turn comes next, and of those whom today's reading stands beside
EARLIER: tuple[tuple[str, int, str, int], ...] = (
    ("earlier/chest-high-two-weeks-ago.mp4", 4, "3-0-5@76x3", 2), ("seated-chest-high.mp4", 4, "3-0-5@76x3", 1),
    ("seated-chest-high.mp4", 1, "3-0-5@76x3", 1), ("earlier/low-and-small-a-week-ago.mp4", 5, "4-0-4@72x3", 1),
)  # fmt: skip
HOLD_TAKE: tuple[str, int] = ("seated-trumpet-raised.mp4", 17)  # how the instrument is brought up and held, without a count
# student's place in the list above, task, days ago
CARE: tuple[tuple[int, str, int], ...] = (
    (14, "oil", 3), (15, "oil", 5), (16, "oil", 1), (17, "oil", 3), (14, "mouthpiece", 6), (15, "mouthpiece", 9), (16, "mouthpiece", 2), (17, "mouthpiece", 7),
    (14, "slides_moved", 2), (15, "slides_moved", 4), (16, "slides_moved", 1), (17, "slides_moved", 3), *((place, "mouthpiece", 3) for place in range(5, 10)),
    *((place, "cloths", 4) for place in range(24)), *((place, "lip_plate", 5) for place in range(4)), (20, "slide_oil", 0), (21, "slide_oil", 2),
)  # fmt: skip
FIRST_SOUNDS: tuple[int, tuple[tuple[str, Outcome, str], ...]] = (
    7, (("alone", "nothing", "mouth"), ("alone", "only_air", "corners"), ("alone", "note", ""), ("alone", "squeak", "reed"), ("alone", "note", ""),
        ("alone", "note", ""), ("E4", "squeak", "reed"), ("E4", "note", ""), ("E4", "thin", "")),
)  # fmt: skip
FITS: tuple[tuple[int, str, float], ...] = (
    (14, "fit.stand", 104), (5, "fit.chair", 41), (5, "fit.stand", 96), (17, "fit.chair", 43), (1, "fit.chair", 40), (1, "fit.turn", 35), (6, "fit.chair", 39),
)  # fmt: skip
LESSON_ORDER = (5, 4, 0, 14, 1, 2, 8, 6, 10, 12, 15, 3, 18, 20, 22)
HELD_UP = ("flute", "trumpet")  # in the clips of these the instrument is at the mouth
FIRST_MINUTE, MINUTES_EACH = 4.0, 2.0


def fill(settings: Settings) -> bool:
    """Make the demo school where nobody is known yet; returns whether it did."""
    if programmes.members(HOUSE):
        return False
    scope = Scope(programmes.add_programme(HOUSE, name=GROUP).id)
    programmes.add_person(scope, login=LOGIN, name="Marit Solheim-Abara", role="owner", password=PASSWORD)
    programmes.add_person(scope, login="assistant", name="Tomasz Wilczur", role="assistant", password=PASSWORD)
    group_id = students.add_group(scope, GROUP)
    ids = _students(scope, group_id)
    lesson_id = _lesson(scope, group_id, ids)
    at = datetime.now(UTC)
    for name, place, card in TAKES:
        takes.add(scope, student_id=ids[place], lesson_id=lesson_id, check=_check(place, card), clip=_copy(CLIPS / name, settings))
    for name, place, card, weeks in EARLIER:
        clip, made_at = _copy(CLIPS / name, settings), at - timedelta(days=7 * weeks)
        takes.add(scope, student_id=ids[place], lesson_id=None, check=_check(place, card), clip=clip, made_at=made_at)
    name, place = HOLD_TAKE
    hold = Check(kind="hold", position="seated", instrument=STUDENTS[place][1], with_instrument=True)
    takes.add(scope, student_id=ids[place], lesson_id=None, check=hold, clip=_copy(CLIPS / name, settings))
    _bench(scope, ids)
    while (held := readings.claim_next(scope)) is not None:
        _judge(held, settings)
    readings.free_leases(scope)
    return True


def _bench(scope: Scope, ids: list[int]) -> None:
    """What is known of the weeks before: care, what fitted, and one clarinet's way to the first notes."""
    for place, task, days in CARE:
        instruments.log_care(scope, [ids[place]], task, at=datetime.now(UTC) - timedelta(days=days))
    for place, key, value in FITS:
        instruments.keep_value(scope, ids[place], key, value)
    last = datetime.now(UTC) - timedelta(days=2)
    place, sounds_made = FIRST_SOUNDS
    for i, (rung, outcome, fixed_by) in enumerate(sounds_made):
        made = sounds.add(scope, ids[place], rung=rung, outcome=outcome, at=last + timedelta(seconds=75 * i))
        sounds.fixed(scope, made, fixed_by)


def _judge(held: Leased, settings: Settings) -> None:
    """Judge what was seen of a take's clip before it was shipped; where that cannot be used the take keeps its lease, until all are freed."""
    take = held.take
    assert take.clip is not None
    shipped = next(CLIPS.rglob(take.clip.original_name))
    try:
        content = shipped.with_suffix(".evidence").read_bytes()
        found = unpacked(content)
    except (OSError, InvalidInput):
        return
    settings.evidence.mkdir(parents=True, exist_ok=True)
    name = f"{take.id}.evidence"
    (settings.evidence / name).write_bytes(content)
    report = report_of(HOUSE, take, found, rules=take.rules, edits=take.edits)
    stills = _copied_stills(shipped, settings.evidence / name)
    looked = Looked(name, (take.clip.stored_name, "video/mp4"), report, take.rules, timed=False, stills_name=stills)
    assert readings.finish(HOUSE, take.id, held.token, looked)


def _copied_stills(clip: Path, kept_at: Path) -> str:
    """The stills that ship with a clip, beside its take's evidence: the file's name, "" where there are none."""
    shipped, kept = clip.with_suffix(KEPT), kept_at.with_suffix(KEPT)
    if not shipped.exists():
        return ""
    shutil.copyfile(shipped, kept)
    return kept.name


def _check(place: int, card: str) -> Check:
    instrument = STUDENTS[place][1]
    check = Check(card=parse(card), position="seated", instrument=instrument, with_instrument=instrument in HELD_UP)
    return replace(check, position="standing") if instrument in ("trumpet", "trombone") else check


def _students(scope: Scope, group_id: int) -> list[int]:
    today = datetime.now(UTC).date()
    ids = []
    for name, instrument, note, consent in STUDENTS:
        student = students.add_student(scope, name=name, instrument=instrument, note=note, group_id=group_id)
        if consent:
            students.give_consent(
                scope, student.id, given_by="guardian, on paper", from_day=today - timedelta(days=60), until_day=today + timedelta(days=240)
            )  # fmt: skip
        ids.append(student.id)
    return ids


def _lesson(scope: Scope, group_id: int, ids: list[int]) -> int:
    lesson_id = lessons.add_lesson(scope, title="Third lesson", group_id=group_id, starts_at=datetime.now(UTC), minutes=40)
    cards = {place: card for _, place, card in TAKES}
    for order, place in enumerate(LESSON_ORDER):
        lessons.add_seat(
            scope, lesson_id, student_id=ids[place], place=order + 1, minute=FIRST_MINUTE + MINUTES_EACH * order,
            check=_check(place, cards.get(place, CARD)), side="left" if order % 3 == 0 else "right",
        )  # fmt: skip
    return lesson_id


def _copy(source: Path, settings: Settings) -> ClipRecord:
    name = f"{uuid.uuid4().hex}.mp4"
    settings.clips.mkdir(parents=True, exist_ok=True)
    shutil.copyfile(source, settings.clips / name)
    content = source.read_bytes()
    return ClipRecord(name, source.name, hashlib.sha256(content).hexdigest(), len(content))
