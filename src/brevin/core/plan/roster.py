"""A class list: rows found by their headings, and what it would change of the class; nothing is changed here."""

import re
import unicodedata
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from brevin.core.errors import InvalidInput
from brevin.core.kinds import INSTRUMENTS, Instrument

HEADINGS: dict[str, tuple[str, ...]] = {
    "name": ("name", "student", "player", "pupil", "full name", "student name"),
    "first": ("first name", "given name", "forename", "first"),
    "last": ("last name", "surname", "family name", "last"),
    "instrument": ("instrument", "plays", "section"),
    "note": ("note", "notes", "remark", "remarks"),
}
"""What a column may be headed."""
OTHER_NAMES: dict[str, Instrument] = {
    "alto": "alto_sax", "alto saxophone": "alto_sax", "saxophone": "alto_sax", "sax": "alto_sax", "tenor": "tenor_sax", "tenor saxophone": "tenor_sax",
    "french horn": "horn", "f horn": "horn", "baritone horn": "baritone", "bass": "tuba", "no instrument": "none",
}  # fmt: skip
LONGEST_NAME, LONGEST_NOTE = 120, 255  # letters
MOST_ROWS = 1000  # of a list: more is no class


@dataclass(frozen=True)
class Row:
    """One student of the list. number: of the row in the file, the headings being row 1; instrument: None where it cannot be read; said: what stands there."""

    number: int
    name: str
    instrument: Instrument | None
    said: str = ""
    note: str = ""


@dataclass(frozen=True)
class Known:
    """A student of the class as it is."""

    id: int
    name: str
    instrument: Instrument


@dataclass(frozen=True)
class Changed:
    """A student whose instrument the list has otherwise."""

    student: Known
    row: Row


@dataclass(frozen=True)
class Changes:
    """What a list would change. unreadable: rows without name or instrument; twice: rows whose student came in an earlier one; same: how many stay."""

    new: list[Row] = field(default_factory=list)
    changed: list[Changed] = field(default_factory=list)
    left: list[Known] = field(default_factory=list)
    unreadable: list[Row] = field(default_factory=list)
    twice: list[Row] = field(default_factory=list)
    same: int = 0


def rows_of(table: Sequence[Sequence[str]]) -> list[Row]:
    """The rows of a table whose first line holds headings, in any order. Raises InvalidInput(no_headings, no_rows, too_many_rows)."""
    if not table:
        raise InvalidInput("no_rows")
    columns = _columns(table[0])
    if not ("name" in columns or {"first", "last"} & set(columns)) or "instrument" not in columns:
        raise InvalidInput("no_headings", found=", ".join(cell.strip() for cell in table[0])[:120])
    if len(table) - 1 > MOST_ROWS:
        raise InvalidInput("too_many_rows", rows=len(table) - 1, most=MOST_ROWS)
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
    return Row(number, name[:LONGEST_NAME], instrument_named(cell("instrument")), cell("instrument")[:40], cell("note")[:LONGEST_NOTE])


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
        elif key not in here:
            found.new.append(row)
        elif here[key].instrument != row.instrument:
            found.changed.append(Changed(here[key], row))
        else:
            same += 1
    left = [one for key, one in here.items() if key not in seen]
    return Changes(found.new, found.changed, left, found.unreadable, found.twice, same)
