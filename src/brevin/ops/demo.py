"""The demo school: people of our own invention, one lesson, the stand-in clips read for real. Nobody here exists."""

import hashlib
import shutil
import uuid
from datetime import UTC, datetime, timedelta
from pathlib import Path

from brevin.ops.settings import ROOT, Settings
from brevin.store import lessons, people, takes
from brevin.store.records import ClipRecord

CLIPS = ROOT / "demo" / "clips"
LOGIN, PASSWORD = "teacher", "first-breath"
GROUP = "Alder Lane School, beginner winds"

# name, instrument, note for the set-up, consent on record
STUDENTS: tuple[tuple[str, str, str, bool], ...] = (
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
# read a week ago, for those whose turn comes next
LAST_WEEK: tuple[tuple[str, int, str], ...] = (("seated-chest-high.mp4", 1, "3-0-5@76x3"),)
LESSON_ORDER = (5, 4, 0, 14, 1, 2, 8, 6, 10, 12, 15, 3, 18, 20, 22)
FIRST_MINUTE, MINUTES_EACH = 4.0, 2.0


def fill(settings: Settings) -> bool:
    """Make the demo school where nobody is known yet; returns whether it did."""
    if people.teachers():
        return False
    people.add_teacher(login=LOGIN, name="Marit Solheim-Abara", role="teacher", password=PASSWORD)
    people.add_teacher(login="assistant", name="Tomasz Wilczur", role="assistant", password=PASSWORD)
    ids = _students()
    lesson_id = _lesson(ids)
    week_ago = datetime.now(UTC) - timedelta(days=7)
    for name, place, card in TAKES:
        takes.add(student_id=ids[place], teacher_id=None, lesson_id=lesson_id, card=card, clip=_copy(CLIPS / name, settings))
    for name, place, card in LAST_WEEK:
        takes.add(student_id=ids[place], teacher_id=None, lesson_id=None, card=card, clip=_copy(CLIPS / name, settings), made_at=week_ago)
    return True


def _students() -> list[int]:
    today = datetime.now(UTC).date()
    ids = []
    for name, instrument, note, consent in STUDENTS:
        student = people.add_student(name=name, instrument=instrument, note=note)
        if consent:
            people.give_consent(student.id, given_by="guardian, on paper", from_day=today - timedelta(days=60), until_day=today + timedelta(days=240))
        ids.append(student.id)
    return ids


def _lesson(ids: list[int]) -> int:
    lesson_id = lessons.add_lesson(title="Third lesson", group_name=GROUP, starts_at=datetime.now(UTC), minutes=40)
    cards = {place: card for _, place, card in TAKES}
    for order, place in enumerate(LESSON_ORDER):
        lessons.add_seat(
            lesson_id, student_id=ids[place], place=order + 1, minute=FIRST_MINUTE + MINUTES_EACH * order, card=cards.get(place, CARD),
            position="standing" if STUDENTS[place][1] in ("trumpet", "trombone") else "seated", side="left" if order % 3 == 0 else "right",
        )  # fmt: skip
    return lesson_id


def _copy(source: Path, settings: Settings) -> ClipRecord:
    name = f"{uuid.uuid4().hex}.mp4"
    settings.clips.mkdir(parents=True, exist_ok=True)
    shutil.copyfile(source, settings.clips / name)
    content = source.read_bytes()
    return ClipRecord(name, source.name, hashlib.sha256(content).hexdigest(), len(content), "", "")
