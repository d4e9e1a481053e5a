"""What makes a check unreadable, and what is only a word of advice."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core import gate
from brevin.core.read import Task, read
from brevin.core.track import Points
from tests.core.made import sighting


def codes(made, card) -> list[str]:
    return [r.code for r in read(made, Task(card=card)).reasons]


def with_room(made, spread_pct: float):
    wave = spread_pct * np.sqrt(2) * np.sin(2 * np.pi * 0.4 * made.t_s)
    at = np.array([[-60.0, 100.0], [60.0, 110.0], [65.0, 20.0]])
    move = np.zeros((len(made.t_s), 3, 2))
    move[:, :, 0] = wave[:, None]
    points = made.points
    return replace(
        made,
        points=Points(
            np.concatenate([points.at_pct, at]), np.concatenate([points.move_pct, move], axis=1),
            np.concatenate([points.error, np.full((len(wave), 3), 2.0)], axis=1), np.concatenate([points.on_body, np.zeros(3, bool)]),
        ),
    )  # fmt: skip


def test_a_still_camera_says_nothing_a_moving_one_is_told_and_a_shaking_one_refused() -> None:
    made, _, card = sighting()
    assert "camera_moving" not in codes(with_room(made, 0.2), card)
    told = read(with_room(made, 3.0), Task(card=card))
    assert "camera_moving" in [r.code for r in told.reasons] and told.readable_for.breath
    refused = read(with_room(made, 9.0), Task(card=card))
    assert refused.reasons[0].code == "camera_moving" and not refused.readable_for.breath


def only(made, kept):
    """The sighting with only some of its pictures. kept: slice or mask over them."""
    return replace(
        made, t_s=made.t_s[kept],
        front=replace(made.front, travel_pct=made.front.travel_pct[kept], misfit=made.front.misfit[kept]),
        back=replace(made.back, travel_pct=made.back.travel_pct[kept], misfit=made.back.misfit[kept]),
        points=replace(made.points, move_pct=made.points.move_pct[kept], error=made.points.error[kept]),
        picture=replace(made.picture, light=made.picture.light[kept], detail=made.picture.detail[kept], change=made.picture.change[kept]),
    )  # fmt: skip


def test_too_few_pictures_a_second_are_refused() -> None:
    made, _, card = sighting()
    assert codes(only(made, slice(None, None, 3)), card)[0] == "low_frame_rate"


def test_a_hole_in_the_pictures_is_told_with_its_place_and_makes_only_its_own_turn_unsure() -> None:
    made, planted, card = sighting()
    at = planted.planted[1].exhale_start_s
    holed = read(only(made, np.abs(made.t_s - at) > 0.4), Task(card=card))
    told = next(r for r in holed.reasons if r.code == "dropped_frames")
    assert holed.readable_for.breath and told.from_s == pytest.approx(at - 0.4, abs=0.05) and told.to_s == pytest.approx(at + 0.4, abs=0.05)
    widths = [b.uncertainty["exhale_start_s"] for b in holed.breaths]
    assert widths[1] >= 0.8 and max(widths[0], widths[2]) < 0.5


def test_a_clip_full_of_holes_is_refused() -> None:
    made, _, card = sighting()
    assert codes(only(made, (made.t_s % 2.0) > 0.6), card)[0] == "dropped_frames"


def test_single_dropped_pictures_are_no_holes() -> None:
    made, _, card = sighting()
    found = codes(only(made, np.arange(len(made.t_s)) % 9 != 4), card)
    assert "dropped_frames" not in found


@pytest.mark.parametrize(("frozen_s", "share"), [(0.5, 0.0), (3.0, 3.0), (10.0, 10.0)])
def test_only_runs_of_the_same_picture_count_as_frozen(frozen_s: float, share: float) -> None:
    made, _, _ = sighting()
    change = np.full(len(made.t_s), 0.3)
    change[50 : 50 + int(frozen_s * 25)] = 0.0
    found = gate.frozen_share(replace(made, picture=replace(made.picture, change=change)))
    assert found == pytest.approx(share / made.t_s[-1], abs=0.01)


def test_a_soft_picture_and_a_restless_player_are_refused() -> None:
    made, _, card = sighting()
    soft = replace(made, front=replace(made.front, clear=np.full(len(made.front.clear), 3.0)))
    assert "too_blurred" in codes(soft, card)
    restless, _, card = sighting(sway_pct=12.0)
    assert codes(restless, card)[0] == "player_moving"


def test_a_covered_belly_is_not_guessed() -> None:
    made, _, card = sighting()
    hidden = replace(made.front, misfit=np.full(made.front.misfit.shape, 0.9))
    report = read(replace(made, front=hidden), Task(card=card))
    assert "trunk_covered" in [r.code for r in report.reasons] and not report.readable_for.breath
    assert report.trace.abdomen == [] and report.breaths == []


def test_posture_stays_readable_where_the_breath_is_not() -> None:
    restless, _, card = sighting(sway_pct=12.0)
    report = read(restless, Task(card=card))
    assert report.readable and report.readable_for.posture
    assert [v.criterion for v in report.verdicts if v.state != "unreadable"] == ["trunk_inclination"]
