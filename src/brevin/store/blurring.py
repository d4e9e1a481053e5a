"""Which stored clips are to be looked at once more for others in them, and what they are kept as after that."""

from brevin.core.pose.others import LEFT, UNCHOSEN
from brevin.store import changes, files, takes
from brevin.store.database import db
from brevin.store.models import Clip, Take
from brevin.store.records import LetGo, TakeRecord
from brevin.store.scope import Scope


def next_to_blur(scope: Scope) -> TakeRecord | None:
    """A take that was read and whose clip is to be looked at, the newest first; None where there is none."""
    with db.connection_context():
        due = Clip.blurred_for.is_null() & (Take.state == "read") & scope.sees(Take.programme)
        row = Take.select(Take.id).join(Clip).where(due).order_by(Take.made_at.desc()).first()
    return None if row is None else takes.take_record(scope, row.id)


def kept(scope: Scope, take: TakeRecord, *, stored_name: str, playable: tuple[str, str], blurred_for: int | None) -> bool:
    """A clip was looked at once more. stored_name: what it is kept as from now on, "" as it is; playable: file a browser plays and its type. Its earlier files
    go. False where it was read again, dropped or deleted meanwhile."""
    assert take.clip is not None
    with db.connection_context(), db.atomic():
        row = Clip.select().where((Clip.take == take.id) & (Clip.stored_name == take.clip.stored_name)).for_update().first()
        if row is None:
            return False
        keep(scope, row, stored_name=stored_name, playable=playable, blurred_for=blurred_for)
        changes.note(scope, take.programme_id, "take", take.id)
    return True


def keep(scope: Scope, row: Clip, *, stored_name: str, playable: tuple[str, str], blurred_for: int | None) -> None:
    """What a clip is kept as; files of it that are no longer needed are let go. Where somebody else is read in it meanwhile, it is to be looked at again.
    Needs its row locked."""
    now = stored_name or row.stored_name
    files.let_go(scope, [LetGo("clips", name) for name in {row.stored_name, row.playable_name} - {"", now, playable[0]}])
    told = {"stored_name": now, "playable_name": playable[0], "playable_type": playable[1], "blurred_for": blurred_for}
    Clip.update(**told).where(Clip.id == row.id).execute()
    look_again(scope, row.take_id)


def look_again(scope: Scope, take_id: str) -> None:
    """Where somebody else is read in a clip than it was blurred for, it is to be blurred for that one. Needs an open connection."""
    player = (Take.get_by_id(take_id).edits or {}).get("player")
    other = (Clip.blurred_for >= 0) & (Clip.blurred_for != (player or 0))
    if player is not None:
        other |= Clip.blurred_for == UNCHOSEN
    Clip.update(blurred_for=None).where((Clip.take == take_id) & other).execute()


def cannot_blur(scope: Scope, take_id: str) -> None:
    """It stays as it is kept: what was seen of it is gone, or no longer understood."""
    with db.connection_context():
        Clip.update(blurred_for=LEFT).where(Clip.take == take_id).execute()
