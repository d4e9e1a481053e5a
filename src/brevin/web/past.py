"""A reading beside what the same check came to on earlier days."""

from flask import Response

from brevin.store import cards, past
from brevin.web.auth import scope
from brevin.web.past_schemas import EarlierOut, EarlierQuery, MarkOut, PastOut
from brevin.web.routes import routes_of
from brevin.web.shapes import answer

routes = routes_of("past", __name__, below="/api/past")


@routes.get("", responses={200: PastOut})
def before(query: EarlierQuery) -> Response:
    """What stands before some takes, by take; nothing of one that was not read or is not there."""
    found = past.beside(scope(), query.ids)
    ladder = cards.rungs(scope()) if any(one.earlier.move != "stay" for one in found.values()) else []
    return answer(PastOut(takes={take_id: _out(one, ladder) for take_id, one in found.items()}))


def _out(one: past.Before, ladder: list[str]) -> EarlierOut:
    found, to = one.earlier, _to(one, ladder)
    marks = [MarkOut(**vars(mark)) for mark in found.marks]
    return EarlierOut(marks=marks, running=found.running, steady_since=found.steady_since, move=found.move if to else "stay", to=to)


def _to(one: past.Before, ladder: list[str]) -> str:
    """The card that comes next on the ladder, or the one before; none where there is none, or this is no card of it."""
    if one.earlier.move == "stay" or one.asked not in ladder:
        return ""
    at = ladder.index(one.asked) + (1 if one.earlier.move == "up" else -1)
    return ladder[at] if 0 <= at < len(ladder) else ""
