"""Readiness before filming: the gate's own limits, on a body turned by hand."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core import gate
from brevin.core.gate import Stretch
from brevin.core.kinds import View
from brevin.core.kinematics.tilt import TOLD_FROM_DEG, Tilt
from brevin.core.pose import landmarks as lm
from brevin.core.readiness import readiness
from brevin.core.track import Body, Picture, PoseSample
from brevin.core.verdict.ready_words import READY
from tests.core.made import HIP_PX, TRUNK_PX, TURNED_DEG, body, marked

SIZE = (1280.0, 720.0)
N = 6


def stretch(bodies: tuple[Body, ...], *, light: float = 90.0, shake_pct: float = 0.0, tilt: Tilt | None = None, restless: bool = False) -> Stretch:
    t_s = np.arange(N) * 0.4
    room = shake_pct * np.column_stack([(-1.0) ** np.arange(N), np.zeros(N)])
    picture = Picture(light=np.full(N, light), detail=np.full(N, 20.0), change=np.zeros(0), clear=np.zeros(0), room_pct=room)
    return Stretch(t_s, picture, tuple(PoseSample(t_s=float(t), bodies=bodies, light=light) for t in t_s), tilt, restless)


def states(found: Stretch, wanted: View = "side-right", *, held: bool = False) -> dict[str, tuple[str, str]]:
    return {line.about: (line.state, line.code) for line in readiness(found, size_px=SIZE, wanted=wanted, held=held)}


def holding(view: View, wrist_pct: tuple[float, float], elbow_pct: tuple[float, float]) -> Body:
    """A body whose arms are where they are put: ahead and up, percent of trunk from the hips."""
    made = body(view=view, lean_deg=0.0)
    ahead, points = (1.0 if view == "side-right" else -1.0), made.points_px.copy()
    for ends, (forward, up) in (((lm.ELBOW_L, lm.ELBOW_R), elbow_pct), ((lm.WRIST_L, lm.WRIST_R), wrist_pct)):
        points[list(ends)] = np.array(HIP_PX) + TRUNK_PX / 100.0 * np.array([ahead * forward, -up])
    return replace(made, points_px=points)


@pytest.mark.parametrize("view", ["side-right", "side-left"])
@pytest.mark.parametrize(
    ("wrist_pct", "elbow_pct", "code"),
    [
        ((45.0, 80.0), (22.0, 55.0), "chest_behind_arms"),  # a trumpet's arms
        ((45.0, 118.0), (45.0, 100.0), "from_{view}_free"),  # held high, a flute's
        ((45.0, 92.0), (4.0, 84.0), "from_{view}"),  # before a part of it
        ((30.0, 40.0), (18.0, 60.0), "from_{view}"),  # resting on the lap: nothing is played
    ],
)
def test_arms_that_hold_the_instrument_before_the_chest_are_said_before_filming(view: View, wrist_pct: tuple, elbow_pct: tuple, code: str) -> None:
    seen = stretch((holding(view, wrist_pct, elbow_pct),))
    found = states(seen, view, held=True)["player"]
    assert found == ("watch" if code == "chest_behind_arms" else "steady", code.format(view=view)) and found[1] in READY
    assert states(seen, view)["player"] == ("steady", f"from_{view}"), "without it arms hide nothing that is asked for"


@pytest.mark.parametrize(
    ("seen", "wanted", "expected"),
    [
        ("side-right", "side-right", ("steady", "from_side-right")), ("side-right", "side-left", ("unreadable", "turn_round_side-left")),
        ("three-quarter", "side-right", ("watch", "turn_more_side-right")), ("front", "side-right", ("unreadable", "turn_side-right")),
        ("front", "front", ("steady", "from_front")), ("side-right", "front", ("unreadable", "turn_front")),
        ("side-left", "side-left", ("steady", "from_side-left")), ("three-quarter", "front", ("watch", "turn_more_front")),
    ],
)  # fmt: skip
def test_the_side_that_is_wanted_is_told_from_the_others(seen: str, wanted: View, expected: tuple[str, str]) -> None:
    assert states(stretch((body(view=seen),)), wanted)["player"] == expected


def test_stickers_that_will_be_believed_are_said_before_filming() -> None:
    ear, shoulder = (lm.STICKERS.index(place) for place in (lm.EAR_R, lm.SHOULDER_R))
    worn = marked(body(), {ear: (4.0, 0.0), shoulder: (0.0, 0.0)})
    assert states(stretch((worn,)))["player"] == ("steady", "from_side-right_stickers") and "stickers" in READY["from_side-right_stickers"].do
    assert states(stretch((marked(body(), {shoulder: (0.0, 0.0)}),)))["player"] == ("steady", "from_side-right"), "one alone is not believed"


def test_dark_rooms_restless_cameras_and_empty_chairs_are_said_each_on_its_own_line() -> None:
    assert states(stretch((body(),), light=gate.DARK_GREY - 1))["light"] == ("unreadable", "too_dark")
    assert states(stretch((body(),), shake_pct=gate.ROOM_MOVES_PCT + 0.5))["camera"] == ("watch", "camera_restless")
    assert states(stretch((body(),), shake_pct=gate.ROOM_SHAKES_PCT + 1))["camera"] == ("unreadable", "camera_moving")
    assert states(stretch(()))["player"] == ("unreadable", "no_person")


def test_a_phone_that_stands_tilted_is_said_where_it_stands_still() -> None:
    tilted, nearly = Tilt(-TOLD_FROM_DEG - 1, 0.5), Tilt(TOLD_FROM_DEG - 0.5, 0.5)
    assert states(stretch((body(),), tilt=tilted))["camera"] == ("watch", "camera_tilted") and "camera_tilted" in READY
    assert states(stretch((body(),), tilt=nearly))["camera"] == ("steady", "camera_still")
    assert states(stretch((body(),), tilt=tilted, shake_pct=gate.ROOM_MOVES_PCT + 0.5))["camera"] == ("watch", "camera_restless"), "first things first"


def test_others_who_move_behind_are_said_where_the_camera_stands_still() -> None:
    assert states(stretch((body(),), restless=True))["camera"] == ("watch", "restless_behind") and "restless_behind" in READY
    assert states(stretch((body(),), restless=True, shake_pct=gate.ROOM_MOVES_PCT + 0.5))["camera"] == ("watch", "camera_restless")


def test_everything_it_may_say_has_words() -> None:
    views: tuple[View, ...] = ("side-left", "side-right", "front")
    codes = {line.code for wanted in views for seen in TURNED_DEG for line in readiness(stretch((body(view=seen),)), size_px=SIZE, wanted=wanted)}
    assert codes <= set(READY) and len(codes) > 8 and {f"from_{wanted}_stickers" for wanted in views} <= set(READY)
    assert {"people_overlap", "player_unclear", "trunk_cut_off", "too_far", "no_person", "too_dark"} <= set(READY)
