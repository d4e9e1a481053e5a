"""A class list: rows found by their headings, and what it would change of the class; nothing is changed here."""

import re
import unicodedata
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from brevin.core.errors import InvalidInput
from brevin.core.kinds import INSTRUMENTS, Instrument
from brevin.core.plan import seating
from brevin.core.plan.seating import MOST_CHAIRS, MOST_ROWS, Rows, Sits

HEADINGS: dict[str, tuple[str, ...]] = {
    "name": ("name", "student", "player", "pupil", "full name", "student name"),
    "first": ("first name", "given name", "forename", "first"),
    "last": ("last name", "surname", "family name", "last"),
    "instrument": ("instrument", "plays", "section"),
    "note": ("note", "notes", "remark", "remarks"),
    "row": ("row", "seat row"),
    "chair": ("chair", "seat", "place"),
}
"""What a column may be headed."""
OTHER_NAMES: dict[str, Instrument] = {
    "alto": "alto_sax", "alto saxophone": "alto_sax", "saxophone": "alto_sax", "sax": "alto_sax", "tenor": "tenor_sax", "tenor saxophone": "tenor_sax",
    "french horn": "horn", "f horn": "horn", "baritone horn": "baritone", "bass": "tuba", "no instrument": "none",
}  # fmt: skip
LONGEST_NAME, LONGEST_NOTE = 120, 255  # letters
LONGEST_LIST = 1000  # rows: more is no class


@dataclass(frozen=True)
class Row:
    """One student of the list. number: of the row in the file, the headings being row 1; instrument: None where it cannot be read; said: what stands there;
    sits: where the list has a chair that can be read; sits_said: what stands there where it cannot."""

    number: int
    name: str
    instrument: Instrument | None
    said: str = ""
    note: str = ""
    sits: Sits | None = None
    sits_said: str = ""


@dataclass(frozen=True)
class Known:
    """A student of the class as it is."""

    id: int
    name: str
    instrument: Instrument
    note: str = ""
    sits: Sits | None = None


@dataclass(frozen=True)
class Changed:
    """A student whose instrument, or chair, the list has otherwise."""

    student: Known
    row: Row


@dataclass(frozen=True)
class Changes:
    """What a list would change. changed: of the instrument; elsewhere: of the chair alone; unreadable: rows without name or instrument; unseated: those of
    other rows whose chair cannot be read; twice: rows whose student came in an earlier one; same: how many stay."""

    new: list[Row] = field(default_factory=list)
    changed: list[Changed] = field(default_factory=list)
    elsewhere: list[Changed] = field(default_factory=list)
    left: list[Known] = field(default_factory=list)
    unreadable: list[Row] = field(default_factory=list)
    unseated: list[Row] = field(default_factory=list)
    twice: list[Row] = field(default_factory=list)
    same: int = 0


def rows_of(table: Sequence[Sequence[str]]) -> list[Row]:
    """The rows of a table whose first line holds headings, in any order. Raises InvalidInput(no_headings, no_rows, too_many_rows)."""
    if not table:
        raise InvalidInput("no_rows")
    columns = _columns(table[0])
    if not ("name" in columns or {"first", "last"} & set(columns)) or "instrument" not in columns:
        raise InvalidInput("no_headings", found=", ".join(cell.strip() for cell in table[0])[:120])
    if len(table) - 1 > LONGEST_LIST:
        raise InvalidInput("too_many_rows", rows=len(table) - 1, most=LONGEST_LIST)
    found = [_row(number, cells, columns) for number, cells in enumerate(table[1:], start=2) if any(cell.strip() for cell in cells)]
    if not found:
        raise InvalidInput("no_rows")
    return found


def _columns(headings: Sequence[str]) -> dict[str, int]:
    known = {plain(word): key for key, words in HEADINGS.items() for word in words}
    return {known[plain(cell)]: place for place, cell in reversed(list(enumerate(headings))) if plain(cell) in known}


def _row(number: int, cells: Sequence[str], columns: Mapping[str, int]) -> Row:
    def cell(key: str) -> str:
        place = columns.get(key)
        return _tidy(cells[place]) if place is not None and place < len(cells) else ""

    name = cell("name") or _tidy(f"{cell('first')} {cell('last')}")
    sits, sits_said = _sits(cell("row"), cell("chair"))
    return Row(number, name[:LONGEST_NAME], instrument_named(cell("instrument")), cell("instrument")[:40], cell("note")[:LONGEST_NOTE], sits, sits_said)


def _sits(row: str, chair: str) -> tuple[Sits | None, str]:
    """The chair that is meant, and what stands there where that cannot be read; neither where nothing does."""
    numbers = [int(cell) if re.fullmatch(r"[0-9]{1,3}", cell) else 0 for cell in (row, chair)]
    if 1 <= numbers[0] <= MOST_ROWS and 1 <= numbers[1] <= MOST_CHAIRS:
        return Sits(*numbers), ""
    return None, " ".join(cell for cell in (row, chair) if cell)[:40]


def _tidy(text: str) -> str:
    return " ".join("".join(letter for letter in text if letter.isprintable() or letter.isspace()).split())


def plain(text: str) -> str:
    """A name for comparing: case, accents and what is between words make no difference."""
    bare = unicodedata.normalize("NFKD", text).encode("ascii", "ignore").decode()
    return " ".join(re.findall(r"[a-z0-9]+", (bare if re.search(r"[A-Za-z]", bare) else text).casefold())) or text.casefold().strip()


def instrument_named(text: str) -> Instrument | None:
    """The instrument that is meant, in the singular or the plural; None where it is none that is known."""
    said = plain(text.replace("_", " "))
    names: dict[str, Instrument] = {name.replace("_", " "): name for name in INSTRUMENTS} | OTHER_NAMES
    return names.get(said) or names.get(said.removesuffix("s"))


def changes_of(rows: Sequence[Row], known: Sequence[Known]) -> Changes:
    """What the list would change of the class; students are told apart by their names alone."""
    here = {plain(one.name): one for one in known}
    found = Changes()
    seen: set[str] = set()
    same = 0
    for row in rows:
        key = plain(row.name)
        if key and key in seen:
            found.twice.append(row)
            continue
        seen.add(key)
        if not row.name or row.instrument is None:
            found.unreadable.append(row)
            continue
        if row.sits_said:
            found.unseated.append(row)
        if key not in here:
            found.new.append(row)
        elif here[key].instrument != row.instrument:
            found.changed.append(Changed(here[key], row))
        elif row.sits not in (None, here[key].sits):
            found.elsewhere.append(Changed(here[key], row))
        else:
            same += 1
    left = [one for key, one in here.items() if key not in seen]
    return replace(found, left=left, same=same)


@dataclass(frozen=True)
class Chair:
    """A chair as it is drawn before anything changes. student: who sits there now; number: of the row by which somebody would sit there."""

    student: int | None = None
    number: int | None = None


def drawn(found: Changes, rows: Rows, known: Sequence[Known]) -> list[list[Chair]]:
    """The band as it sits, rows, with the chairs on which others would sit."""
    numbers = {one.student.id: one.row.number for one in [*found.changed, *found.elsewhere]} | {-row.number: row.number for row in found.new}
    plays = {one.id: one.instrument for one in known} | {one.student.id: one.row.instrument for one in found.changed if one.row.instrument}
    plays |= {-row.number: row.instrument for row in found.new if row.instrument}
    gone = {one.id for one in found.left}
    wished = {one.student.id: one.row.sits for one in [*found.changed, *found.elsewhere] if one.row.sits}
    wished |= {-row.number: row.sits for row in found.new if row.sits}
    here = {student: instrument for student, instrument in plays.items() if student not in gone}
    then = seating.changed(rows, here, up=[one.student.id for one in found.changed], wished=wished)
    both = seating.beside_each_other(rows, then, numbers)
    return [[Chair(number=numbers[one]) if comes else Chair(student=one) for one, comes in row] for row in both]
