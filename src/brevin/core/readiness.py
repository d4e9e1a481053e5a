"""Readiness before filming: what the gate of the reading says of the last moments a camera saw, as three lines."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from brevin.core import gate
from brevin.core.gate import Stretch
from brevin.core.kinds import State, View
from brevin.core.kinematics.stickers import worn
from brevin.core.pose import landmarks as lm
from brevin.core.pose.view import view_of
from brevin.core.track import Body

About = Literal["light", "player", "camera"]
OTHER_SIDE: dict[View, View] = {"side-left": "side-right", "side-right": "side-left"}


@dataclass(frozen=True)
class Ready:
    """One line. code: of ``core.verdict.ready_words``; state: steady, watch, or unreadable where filming now would be in vain."""

    about: About
    state: State
    code: str


def readiness(stretch: Stretch, *, size_px: tuple[float, float], wanted: View) -> tuple[Ready, Ready, Ready]:
    """Light, player and camera in the stretch. size_px: of the picture that the key points are in; wanted: from where the check is filmed."""
    player = _player(stretch, size_px, wanted)
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


def _player(stretch: Stretch, size_px: tuple[float, float], wanted: View) -> Ready:
    why = gate.player_reason(stretch.samples, width_px=size_px[0], height_px=size_px[1])
    if why is not None:
        return Ready("player", "unreadable", why.code)
    seen = [(sample.t_s, _largest(sample.bodies)) for sample in stretch.samples if sample.bodies]
    found = view_of([body for _, body in seen])
    if found == wanted:
        return Ready("player", "steady", f"from_{wanted}" + ("_stickers" if worn(seen, wanted).places else ""))
    if wanted != "front" and found == OTHER_SIDE[wanted]:
        return Ready("player", "unreadable", f"turn_round_{wanted}")
    if found == "three-quarter":
        return Ready("player", "watch", f"turn_more_{wanted}")
    return Ready("player", "unreadable", f"turn_{wanted}")


def _largest(bodies: tuple[Body, ...]) -> Body:
    return bodies[int(np.argmax([lm.trunk_px(body) for body in bodies]))]
