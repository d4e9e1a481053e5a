"""Who else is in the picture, and what of it is kept clear."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core.pose import landmarks as lm
from brevin.core.pose.others import KeptClear, kept_clear
from brevin.core.pose.player import everyone
from brevin.core.track import Face, Player, PoseSample
from tests.core.made import HIP_PX, TRUNK_PX, body

ME, AWAY = body(), body(view="front", at_px=(HIP_PX[0] + 2.2 * TRUNK_PX, HIP_PX[1]), trunk_px=0.6 * TRUNK_PX)
SIZE = {"width_px": 960.0, "height_px": 540.0}


def looks(*others: object, count: int = 8, step_s: float = 1.5) -> list[PoseSample]:
    return [PoseSample(step_s * i, (ME, *others)) for i in range(count)]


def clear(poses: list[PoseSample], *faces: Face, players: list[Player] | None = None, shown: slice = slice(1)) -> KeptClear | None:
    players = everyone(poses, **SIZE) if players is None else players
    return kept_clear(poses, players, players[shown], faces)


def head_px(one: object) -> np.ndarray:
    return one.points_px[[lm.NOSE, lm.EAR_L, lm.EAR_R]].mean(axis=0)


def covers(circles: tuple, place: np.ndarray) -> bool:
    return any(np.hypot(*(place - circle.middle_px)) < circle.radius_px for circle in circles)


def test_where_nobody_else_is_nothing_is_to_be_blurred() -> None:
    assert clear(looks()) is None
    assert clear(looks(), Face(3.0, head_px(ME), 40.0)) is None, "the player's own face"
    assert clear(looks(), Face(3.0, np.array(HIP_PX) - (0.0, 0.4 * TRUNK_PX), 40.0)) is None, "a pattern of the shirt"


def test_the_body_that_is_followed_stays_with_its_head_and_the_other_loses_its_own() -> None:
    seen = clear(looks(AWAY)).at(4.0)
    assert covers(seen.hidden, head_px(AWAY)) and not covers(seen.shown, head_px(AWAY))
    assert covers(seen.shown, head_px(ME)) and not covers(seen.hidden, head_px(ME))
    assert len(seen.bodies) >= 4, "both are followed, so that the other may be chosen"


def test_one_who_is_chosen_instead_is_the_one_who_is_seen() -> None:
    seen = clear(looks(AWAY), shown=slice(1, 2)).at(4.0)
    assert covers(seen.hidden, head_px(ME)) and covers(seen.shown, head_px(AWAY))


def test_a_face_that_no_body_was_found_for_is_somebody() -> None:
    far = Face(3.0, np.array([60.0, 90.0]), 16.0)
    found = clear(looks(), far)
    assert covers(found.at(3.0).hidden, far.middle_px) and covers(found.at(9.0).hidden, far.middle_px), "who sits behind sits there all the time"
    assert not any((np.abs(points - far.middle_px) < 20.0).all(axis=1).any() for points in found.at(3.0).bodies)


def test_one_who_walks_past_is_blurred_between_two_looks_as_well() -> None:
    poses = looks()
    poses[3] = replace(poses[3], bodies=(ME, AWAY))
    players = everyone([replace(sample, bodies=(ME,)) for sample in poses], **SIZE)
    found = clear(poses, players=players)
    assert covers(found.at(poses[3].t_s + 1.2).hidden, head_px(AWAY)) and not found.at(0.0).hidden


def test_a_player_who_leans_over_for_a_moment_is_no_stranger() -> None:
    poses = looks()
    leant = body(at_px=(HIP_PX[0] + 0.7 * TRUNK_PX, HIP_PX[1]))
    poses[4] = replace(poses[4], bodies=(leant,))
    lost = replace(everyone(poses[:4], **SIZE)[0], chosen=(0, 0, 0, 0, -1, 0, 0, 0))
    assert clear(poses, players=[lost]) is None
    gone = [*poses[:4], replace(poses[4], bodies=(AWAY,)), *poses[5:]]
    assert covers(clear(gone, players=[lost]).at(6.0).hidden, head_px(AWAY)), "one who stands where the player never was"


@pytest.mark.parametrize("several", [True, False])
def test_where_nobody_is_followed_nobody_is_seen_if_there_are_several(several: bool) -> None:
    found = clear(looks(*([AWAY] if several else [])), players=[])
    assert (found is not None) == several
    if found is not None:
        assert found.at(2.0).bodies == () and covers(found.at(2.0).hidden, head_px(ME)) and covers(found.at(2.0).hidden, head_px(AWAY))


def test_after_the_last_look_the_player_is_still_clear() -> None:
    assert clear(looks(AWAY)).at(60.0).bodies


def test_a_patch_is_a_third_of_the_widest_head() -> None:
    near = Face(3.0, np.array([100.0, 200.0]), 120.0)
    assert clear(looks(), near).coarse_px == pytest.approx(2.0 * 1.1 * 120.0 / 3.0)
