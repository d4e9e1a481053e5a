"""Readiness before filming: what the gate of the reading says of the last moments a camera saw, as three lines."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from brevin.core import gate
from brevin.core.gate import Stretch
from brevin.core.kinds import State, View
from brevin.core.kinematics.arms import over_chest
from brevin.core.kinematics.stickers import worn
from brevin.core.pose import landmarks as lm
from brevin.core.pose.view import view_of
from brevin.core.track import Body

About = Literal["light", "player", "camera"]
COVERED_SHARE, FREE_SHARE = 0.4, 0.2  # of the chest's heights, over which arms lie: from here they hide it, below here they do not; own (docs/method.md)
OTHER_SIDE: dict[View, View] = {"side-left": "side-right", "side-right": "side-left"}


@dataclass(frozen=True)
class Ready:
    """One line. code: of ``core.verdict.ready_words``; state: steady, watch, or unreadable where filming now would be in vain."""

    about: About
    state: State
    code: str


def readiness(stretch: Stretch, *, size_px: tuple[float, float], wanted: View, held: bool = False) -> tuple[Ready, Ready, Ready]:
    """Light, player and camera in the stretch. size_px: of the picture that the key points are in; wanted: from where the check is filmed; held: whether a
    breath is asked for with the instrument, the arms of which may hide the chest."""
    player = _player(stretch, size_px, wanted, held)
    dark = player.code == "too_dark" or (len(stretch.picture.light) > 0 and gate.is_dark(stretch.picture))
    return Ready("light", "unreadable", "too_dark") if dark else Ready("light", "steady", "light_good"), player, _camera(stretch)


def _camera(stretch: Stretch) -> Ready:
    state = gate.camera_state(stretch)
    if state == "steady" and stretch.tilt is not None and stretch.tilt.told:
        return Ready("camera", "watch", "camera_tilted")
    if state == "steady" and stretch.restless:
        return Ready("camera", "watch", "restless_behind")
    codes: dict[State, str] = {"steady": "camera_still", "watch": "camera_restless", "unreadable": "camera_moving"}
    return Ready("camera", state, codes[state])


def _player(stretch: Stretch, size_px: tuple[float, float], wanted: View, held: bool) -> Ready:
    why = gate.player_reason(stretch.samples, width_px=size_px[0], height_px=size_px[1])
    if why is not None:
        return Ready("player", "unreadable", why.code)
    seen = [(sample.t_s, _largest(sample.bodies)) for sample in stretch.samples if sample.bodies]
    found = view_of([body for _, body in seen])
    if found == wanted:
        return _stands_right([body for _, body in seen], wanted, held=held, stickers=bool(worn(seen, wanted).places))
    if wanted != "front" and found == OTHER_SIDE[wanted]:
        return Ready("player", "unreadable", f"turn_round_{wanted}")
    if found == "three-quarter":
        return Ready("player", "watch", f"turn_more_{wanted}")
    return Ready("player", "unreadable", f"turn_{wanted}")


def _stands_right(bodies: list[Body], view: View, *, held: bool, stickers: bool) -> Ready:
    """Of a player who shows the side that is wanted: whether the arms that hold the instrument leave the chest to be seen."""
    ahead = 1.0 if view == "side-right" else -1.0
    covered = [share for body in bodies if held and view in OTHER_SIDE and (share := over_chest(body, ahead)) is not None]
    if covered and np.median(covered) >= COVERED_SHARE:
        return Ready("player", "watch", "chest_behind_arms")
    if covered and np.median(covered) < FREE_SHARE and not stickers:
        return Ready("player", "steady", f"from_{view}_free")
    return Ready("player", "steady", f"from_{view}" + ("_stickers" if stickers else ""))


def _largest(bodies: tuple[Body, ...]) -> Body:
    return bodies[int(np.argmax([lm.trunk_px(body) for body in bodies]))]
