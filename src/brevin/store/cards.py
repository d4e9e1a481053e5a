"""The programme's ladder of count cards, each with the teacher's own demonstration where there is one."""

from collections import Counter
from dataclasses import replace
from typing import Any

from peewee import Tuple, fn

from brevin.core.plan.check import Check, from_document, to_document
from brevin.core.plan.ladder import starter
from brevin.core.plan.limits import check_limits
from brevin.store import changes, files
from brevin.store.database import db
from brevin.store.models import AskedCheck, CountCardRow, Programme, Take
from brevin.store.records import CardRecord, LetGo, NotThere
from brevin.store.scope import Scope


def cards(scope: Scope) -> list[CardRecord]:
    """The ladder from its first rung on; a programme without one begins with the usual."""
    with db.connection_context(), db.atomic():
        rows = _rows(scope)
        if not rows and scope.programme_id is not None:
            for rung, title, check in starter():
                CountCardRow.create(programme=scope.programme, rung=rung, title=title, document=to_document(check))
            rows = _rows(scope)
        on = _on(scope)
        return [_record(row, on) for row in rows]


def rungs(scope: Scope) -> list[str]:
    """Names of the ladder's cards that check a counted breath, in the order in which they are climbed."""
    with db.connection_context():
        checks = [from_document(row.document) for row in _rows(scope)]
    return [one.name for one in checks if one.kind == "counted_breathing"]


def card(scope: Scope, card_id: int) -> CardRecord:
    """One card. Raises NotThere."""
    with db.connection_context():
        return _record(_row(scope, card_id), Counter())


def put(scope: Scope, card_id: int | None, *, rung: int, title: str, check: Check) -> CardRecord:
    """A new card, or another in the place of one. The name is the rung's: all its cards get it. Raises NotThere, InvalidInput of ``check_limits``."""
    allowed = empty_allowed(scope)
    for one in check.cards if check.counts_breaths else ():
        check_limits(one, empty_allowed=allowed, position=check.position)
    with db.connection_context(), db.atomic():
        if card_id is None:
            card_id = int(CountCardRow.create(programme=scope.programme, rung=rung, title=title, document=to_document(check)).id)
        else:
            kept = replace(check, shown=_row(scope, card_id).shown_name)
            CountCardRow.update(rung=rung, title=title, document=to_document(kept)).where(CountCardRow.id == card_id).execute()
        CountCardRow.update(title=title).where((CountCardRow.rung == rung) & scope.sees(CountCardRow.programme)).execute()
        changes.note(scope, scope.programme, "cards", "")
    return card(scope, card_id)


def show(scope: Scope, card_id: int, name: str, kind: str) -> CardRecord:
    """A demonstration for a card, in the place of the one it had; an empty name takes it away. name: of a file among the clips. Raises NotThere."""
    with db.connection_context(), db.atomic():
        row = _row(scope, card_id)
        _let_go(scope, row)
        shown = to_document(replace(from_document(row.document), shown=name))
        CountCardRow.update(shown_name=name, shown_type=kind, document=shown).where(CountCardRow.id == card_id).execute()
        changes.note(scope, scope.programme, "cards", "")
    return card(scope, card_id)


def shown(scope: Scope, name: str) -> tuple[str, str]:
    """Name and type of a demonstration of the programme. Raises NotThere."""
    with db.connection_context():
        row = CountCardRow.get_or_none((CountCardRow.shown_name == name) & (CountCardRow.shown_name != "") & scope.sees(CountCardRow.programme))
    if row is None:
        raise NotThere(name)
    return str(row.shown_name), str(row.shown_type)


def _let_go(scope: Scope, row: CountCardRow) -> None:
    if row.shown_name:
        files.let_go(scope, [LetGo("clips", row.shown_name)])


def delete(scope: Scope, card_id: int) -> None:
    """Takes made of it keep what they were asked; its demonstration goes. Raises NotThere."""
    with db.connection_context(), db.atomic():
        _let_go(scope, _row(scope, card_id))
        CountCardRow.delete().where(CountCardRow.id == card_id).execute()
        changes.note(scope, scope.programme, "cards", "")


def empty_allowed(scope: Scope) -> bool:
    """Whether cards may ask to stay empty."""
    with db.connection_context():
        row = Programme.get_or_none(Programme.id == scope.programme)
        return bool(row and row.empty_allowed)


def allow_empty(scope: Scope, allowed: bool) -> None:
    """Switch cards that ask to stay empty on or off."""
    with db.connection_context(), db.atomic():
        Programme.update(empty_allowed=allowed).where(Programme.id == scope.programme).execute()
        changes.note(scope, scope.programme, "cards", "")


def _rows(scope: Scope) -> list[CountCardRow]:
    return list(CountCardRow.select().where(scope.sees(CountCardRow.programme)).order_by(CountCardRow.rung, CountCardRow.id))


def _row(scope: Scope, card_id: int) -> CountCardRow:
    row = CountCardRow.get_or_none((CountCardRow.id == card_id) & scope.sees(CountCardRow.programme))
    if row is None:
        raise NotThere(str(card_id))
    found: CountCardRow = row
    return found


def _on(scope: Scope) -> Counter[str]:
    """How many students' newest take was of a card, by the card's short name."""
    newest = Take.select(Take.student, fn.MAX(Take.made_at)).where(scope.sees(Take.programme)).group_by(Take.student)
    rows: Any = Take.select(AskedCheck.name).join(AskedCheck).where(Tuple(Take.student, Take.made_at).in_(newest)).tuples()
    return Counter(name for (name,) in rows)


def _record(row: CountCardRow, on: Counter[str]) -> CardRecord:
    check = from_document(row.document)
    return CardRecord(id=row.id, rung=row.rung, title=row.title, check=check, students=on[check.name])
