"""Tables as spreadsheets write and read them: CSV with commas, semicolons or tabs, in UTF-8 or Windows-1252."""

import csv
import io
from collections.abc import Iterable, Sequence

from brevin.core.errors import InvalidInput

MARKS = ",;\t"
SNIFFED = 8192  # characters from which the mark between cells is found
MOST_BYTES = 3_000_000
FORMULAS = ("=", "+", "-", "@")  # what a spreadsheet would take for a formula, and might run


def table_of(content: bytes) -> list[list[str]]:
    """Rows of cells. Raises InvalidInput(no_table) for what is no text, or no table."""
    if b"\0" in content:
        raise InvalidInput("no_table")
    text = _text(content)
    try:
        return [[_bare(cell) for cell in row] for row in csv.reader(io.StringIO(text, newline=""), delimiter=_mark(text), strict=False)]
    except csv.Error as why:
        raise InvalidInput("no_table", detail=str(why)) from why


def _text(content: bytes) -> str:
    try:
        return content.decode("utf-8-sig")
    except UnicodeDecodeError:
        return content.decode("cp1252", errors="replace")


def _mark(text: str) -> str:
    """What stands between cells: found by the standard library, else the one that the first line has most of."""
    try:
        return csv.Sniffer().sniff(text[:SNIFFED], MARKS).delimiter
    except csv.Error:
        first = text.split("\n", 1)[0]
        return max(MARKS, key=first.count)


def _bare(cell: str) -> str:
    """A cell without the mark that keeps a spreadsheet from running it."""
    return cell[1:] if cell.startswith("'") and cell[1:].startswith(FORMULAS) else cell


def csv_of(rows: Iterable[Sequence[str]]) -> bytes:
    """Rows as CSV that ``table_of`` reads back as they were; a cell that looks like a formula is marked as text."""
    written = io.StringIO(newline="")
    writer = csv.writer(written)
    writer.writerows([[f"'{cell}" if cell.startswith(FORMULAS) else cell for cell in row] for row in rows])
    return b"\xef\xbb\xbf" + written.getvalue().encode()
