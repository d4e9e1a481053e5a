"""Where the band sits, from the teacher's stand: rows of students, the nearest row first, each from the teacher's left."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

from brevin.core.kinds import INSTRUMENTS, Instrument

USUAL_ROWS: tuple[tuple[Instrument, ...], ...] = (
    ("flute", "oboe", "horn"), ("clarinet", "alto_sax", "tenor_sax"), ("trumpet", "cornet", "euphonium", "baritone", "trombone", "tuba", "none"),
)  # fmt: skip
"""How a band sits that nobody has seated yet: quiet instruments before loud ones, those that sound alike beside each other."""
MOST_BESIDE = 10  # chairs of a usual row
MOST_ROWS, MOST_CHAIRS = 200, 100  # of what is kept: more than the largest class list needs
Rows = tuple[tuple[int, ...], ...]
"""Keys of students; no row is empty, and nobody sits twice."""


@dataclass(frozen=True)
class Sits:
    """Where somebody sits. row: from the teacher's stand, chair: from the teacher's left; the first of both is 1."""

    row: int
    chair: int


Here = Mapping[int, Instrument]
"""Who is in the class, in the order of their names, and what they play."""


def seated(kept: Sequence[Sequence[int]], here: Here) -> Rows:
    """Everybody who is here on a chair. kept: how they were seated; whoever has no chair there sits down with the section, or where it usually sits."""
    rows = _known(kept, here)
    if not rows:
        return _usual(here)
    sits = {student for row in rows for student in row}
    for student in sorted((one for one in here if one not in sits), key=lambda one: INSTRUMENTS.index(here[one])):
        _sit_down(student, rows, here)
    return _rows(rows)


def _known(kept: Sequence[Sequence[int]], here: Collection[int]) -> list[list[int]]:
    """Those of it who are here, each on the first chair that was kept; rows in which nobody is are gone."""
    seen: set[int] = set()
    rows: list[list[int]] = []
    for row in kept:
        rows.append([one for one in dict.fromkeys(row) if one in here and one not in seen])
        seen.update(row)
    return [row for row in rows if row]


def _usual(here: Here) -> Rows:
    """Sections whole, as many in a row as there is room for."""
    rows: list[list[int]] = []
    for instruments in USUAL_ROWS:
        rows.append([])
        for instrument in instruments:
            for part in _parted([student for student, plays in here.items() if plays == instrument]):
                if len(rows[-1]) + len(part) > MOST_BESIDE:
                    rows.append([])
                rows[-1] += part
    return _rows(rows)


def _parted(section: list[int]) -> list[list[int]]:
    """A section in as few rows of its own as it needs, about the same in each."""
    parts = -(-len(section) // MOST_BESIDE)
    return [section[i * len(section) // parts : (i + 1) * len(section) // parts] for i in range(parts)]


def _sit_down(student: int, rows: list[list[int]], plays: Here) -> None:
    """In the row where most of the section sit, behind the last of them; else where most sit who usually share a row with it; else in a row of its own."""
    own = plays[student]
    at = _usually(own)
    for alike in ({own}, set(USUAL_ROWS[at[0]])):
        row = max(rows, key=lambda row: sum(plays[one] in alike for one in row))
        if any(plays[one] in alike for one in row):
            before = [k for k, one in enumerate(row) if plays[one] == own or plays[one] in alike and _usually(plays[one]) < at]
            row.insert(before[-1] + 1 if before else 0, student)
            return
    rows.insert(sum(any(_usually(plays[one]) < at for one in row) for row in rows), [student])


def _usually(instrument: Instrument) -> tuple[int, int]:
    """Row and place in it, from 0."""
    return next((i, row.index(instrument)) for i, row in enumerate(USUAL_ROWS) if instrument in row)


def placed(rows: Sequence[Sequence[int]], wished: Mapping[int, Sits]) -> Rows:
    """The same with some on other chairs, the first one first: everybody else moves up, and a row behind the last is a new one."""
    found = [[one for one in row if one not in wished] for row in rows]
    for student, sits in sorted(wished.items(), key=lambda one: (one[1].row, one[1].chair)):
        while len(found) < sits.row:
            found.append([])
        found[sits.row - 1].insert(sits.chair - 1, student)
    return _rows(found)


def changed(rows: Rows, here: Here, *, up: Collection[int] = (), wished: Mapping[int, Sits]) -> Rows:
    """How they sit after a change. rows: before it; here: who is in the class after it; up: who gets up to sit with others, as they play something else
    now; wished: who is given which chair."""
    stay = [[one for one in row if one in here and one not in up] for row in rows]
    return seated(placed(stay, wished), here)


def sits_of(rows: Rows) -> dict[int, Sits]:
    """Where each sits."""
    return {student: Sits(i, k) for i, row in enumerate(rows, start=1) for k, student in enumerate(row, start=1)}


def beside_each_other(now: Rows, then: Rows, come: Collection[int]) -> tuple[tuple[tuple[int, bool], ...], ...]:
    """Rows in which the chairs of both are drawn: each with who sits there, and whether that is only then. come: who sits on another chair then, or is
    new: drawn behind the neighbour who stays, before the next one where there is none, and in a row of its own where nobody of its row stays."""
    rows = [[(one, False) for one in row] for row in now]
    for row in then:
        stay = [one for one in row if one not in come]
        if not stay:
            rows.append([(one, True) for one in row])
            continue
        before = (stay[0], False)
        place = next((line, line.index(before)) for line in rows if before in line)
        line, at = place
        for one in row:
            if one in come:
                line.insert(at, (one, True))
                at += 1
            else:
                line, at = next((own, own.index((one, False)) + 1) for own in rows if (one, False) in own)
    return tuple(tuple(row) for row in rows if row)


def _rows(rows: Sequence[Sequence[int]]) -> Rows:
    return tuple(tuple(row) for row in rows if row)
