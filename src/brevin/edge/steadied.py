"""Watching a clip again for what is known only at its end: without the camera's own steps, and with a trunk that sank held up."""

from collections.abc import Callable, Iterable, Sequence
from typing import NamedTuple

from brevin.core.track import Floats
from brevin.edge import loop
from brevin.edge.observers.people import People
from brevin.edge.observers.trunks import Trunk, Trunks
from brevin.edge.steady import CameraMoves
from brevin.edge.undone import Undone, with_trunk
from brevin.edge.video import VideoFrame


class Followed(NamedTuple):
    """One player's trunk as lit in the clip, with the camera's steps undone, and held up as well where it sank; and what was undone."""

    lit: Trunk
    steady: Trunk
    upright: Trunk
    undone: Undone


def steadied(
    frames: Callable[[], Iterable[VideoFrame]], people: People, lit: Sequence[Trunk], cameras: Sequence[CameraMoves | None], t_s: Floats,
    progress: Callable[[str, float], None],
) -> list[Followed]:  # fmt: skip
    """What was followed of each player, watched again where the camera stepped, and once more where a trunk sank.

    frames: begins the clip anew; lit: the players' trunks as they were watched; cameras: what the camera did, for each player; t_s: [n] of the pictures.
    """
    undone = [Undone(camera if camera is not None and camera.stepped else None, None) for camera in cameras]
    steady = lit
    if any(one.camera is not None for one in undone):
        progress("steadying the camera", 0.88)
        steady = _watched(frames, people, undone)
    undone = [with_trunk(one, player, people.samples, t_s) for one, player in zip(undone, people.players, strict=True)]
    upright = steady
    if any(one.trunk is not None for one in undone):
        progress("following a trunk that sinks", 0.9)
        upright = _watched(frames, people, undone)
    return [Followed(*own) for own in zip(lit, steady, upright, undone, strict=True)]


def _watched(frames: Callable[[], Iterable[VideoFrame]], people: People, undone: Sequence[Undone]) -> list[Trunk]:
    trunks = Trunks(people, undone)
    loop.run(frames(), [trunks])
    trunks.finish()
    return trunks.trunks
