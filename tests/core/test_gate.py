"""What makes a check unreadable, and what is only a word of advice."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brevin.core import gate
from brevin.core.kinematics import profile
from brevin.core.plan.check import Check
from brevin.core.read import Task, read
from tests.core.made import body, shape, sighting


def codes(made, card) -> list[str]:
    return [r.code for r in read(made, Task(Check(card=card))).reasons]


def stretch_of(made) -> gate.Stretch:
    return gate.Stretch(made.t_s, made.picture, made.poses)


def with_picture(made, **change):
    return replace(made, picture=replace(made.picture, **change))


def with_room(made, spread_pct: float):
    wave = spread_pct * np.sqrt(2) * np.sin(2 * np.pi * 0.4 * made.t_s)
    return with_picture(made, room_pct=np.column_stack([wave, 0 * wave]))


def test_a_still_camera_says_nothing_a_moving_one_is_told_and_a_shaking_one_refused() -> None:
    made, _, card = sighting()
    assert "camera_moving" not in codes(with_room(made, 0.2), card)
    told = read(with_room(made, 3.0), Task(Check(card=card)))
    assert "camera_moving" in [r.code for r in told.reasons] and told.readable_for.breath
    refused = read(with_room(made, 9.0), Task(Check(card=card)))
    assert refused.reasons[0].code == "camera_moving" and not refused.readable_for.breath


def only(made, kept):
    """The sighting with only some of its pictures. kept: slice or mask over them."""
    return replace(
        made, t_s=made.t_s[kept],
        front=replace(made.front, travel_pct=made.front.travel_pct[kept], misfit=made.front.misfit[kept]),
        back=replace(made.back, travel_pct=made.back.travel_pct[kept], misfit=made.back.misfit[kept]),
        points=replace(made.points, move_pct=made.points.move_pct[kept], error=made.points.error[kept]),
        picture=replace(made.picture, **{name: values[kept] for name, values in vars(made.picture).items()}),
    )  # fmt: skip


def test_too_few_pictures_a_second_are_refused() -> None:
    made, _, card = sighting()
    assert codes(only(made, slice(None, None, 3)), card)[0] == "low_frame_rate"


def test_a_hole_in_the_pictures_is_told_with_its_place_and_makes_only_its_own_turn_unsure() -> None:
    made, planted, card = sighting()
    at = planted.planted[1].exhale_start_s
    holed = read(only(made, np.abs(made.t_s - at) > 0.4), Task(Check(card=card)))
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
    found = gate.frozen_share(stretch_of(with_picture(made, change=change)))
    assert found == pytest.approx(share / made.t_s[-1], abs=0.01)


def test_a_soft_picture_and_a_restless_player_are_refused() -> None:
    made, _, card = sighting()
    soft = with_picture(made, clear=np.full(len(made.t_s), 3.0))
    assert "too_blurred" in codes(soft, card)
    restless, _, card = sighting(sway_pct=12.0)
    assert codes(restless, card)[0] == "player_moving"


COVERED = np.array([[[18.0, -10.0], [18.0, 110.0]]])  # an arm along the whole outline


def test_a_covered_belly_is_not_guessed() -> None:
    made, _, card = sighting()
    nothing = replace(made.points, on_body=np.zeros_like(made.points.on_body))
    report = read(replace(made, arms_pct=COVERED, points=nothing), Task(Check(card=card)))
    assert "trunk_covered" in [r.code for r in report.reasons] and not report.readable_for.breath
    assert report.trace.abdomen == [] and report.breaths == []


@pytest.mark.parametrize(("last", "code"), [({}, "trunk_covered"), ({"outline": shape(bow_pct=9.0)}, "trunk_sank"), ({"lean_deg": 18.0}, "trunk_sank")])
def test_a_belly_that_is_lost_while_the_trunk_sinks_is_covered_by_nothing(last: dict, code: str) -> None:
    made, _, card = sighting()
    hidden = replace(made, arms_pct=COVERED, points=replace(made.points, on_body=np.zeros_like(made.points.on_body)))
    half = len(made.poses) // 2
    poses = tuple(one if i < half else replace(one, bodies=(body(**last),)) for i, one in enumerate(made.poses))
    codes = [reason.code for reason in read(replace(hidden, poses=poses), Task(Check(card=card))).reasons]
    assert [one for one in codes if one.startswith("trunk_")] == [code]


@pytest.mark.parametrize(("at_s", "lasts_s", "breaths"), [(0.4, 0.35, 0), (9.0, 1.5, 1)])
@pytest.mark.parametrize("sinks", [True, False])
def test_what_a_trunk_moves_by_sinking_is_no_breath(sinks: bool, at_s: float, lasts_s: float, breaths: int) -> None:
    """The belly is pushed about while the back rounds, and keeps still in all that was to be breathed."""
    made, _, card = sighting(cycles=[])
    pushed = 4.0 * np.exp(-0.5 * ((made.t_s - at_s) / lasts_s) ** 2)
    travel = made.front.travel_pct + pushed[:, None] * profile.abdomen_share(made.front.up_pct)
    half = len(made.poses) // 2
    poses = tuple(one if i < half else replace(one, bodies=(body(outline=shape(bow_pct=9.0)),)) for i, one in enumerate(made.poses))
    report = read(replace(made, front=replace(made.front, travel_pct=travel), poses=poses if sinks else made.poses), Task(Check(card=card)))
    assert len(report.breaths) == breaths and report.readable_for.breath == (not sinks)
    assert ("trunk_sank" in [reason.code for reason in report.reasons]) == sinks


@pytest.mark.parametrize(("share", "code"), [(0.0, None), (1.0, "outline_lost")])
def test_an_edge_that_is_not_found_again_is_lost_and_covered_by_nothing(share: float, code: str | None) -> None:
    made, _, card = sighting()
    nothing = replace(made.points, on_body=np.zeros_like(made.points.on_body))
    misfit = np.where(np.arange(made.front.misfit.shape[1]) < share * made.front.misfit.shape[1], 0.9, made.front.misfit)
    report = read(replace(made, front=replace(made.front, misfit=misfit), points=nothing), Task(Check(card=card)))
    assert [reason.code for reason in report.reasons if reason.check == "breath"] == ([code] if code else [])
    assert report.readable_for.breath == (code is None)


def test_what_a_room_that_moves_does_to_an_edge_is_laid_to_the_room_and_not_to_the_child() -> None:
    made, _, card = sighting()
    nothing = replace(made.points, on_body=np.zeros_like(made.points.on_body))
    lost = replace(made, front=replace(made.front, misfit=np.full_like(made.front.misfit, 0.9)), points=nothing)
    grainy = replace(made, front=replace(made.front, travel_pct=made.front.travel_pct + np.random.default_rng(2).normal(0.0, 1.5, (len(made.t_s), 1))))
    for seen, code in ((lost, "outline_lost"), (grainy, "breath_faint")):
        alone = read(seen, Task(Check(card=card)))
        restless = read(replace(seen, notes=(("restless_behind", {}),)), Task(Check(card=card)))
        assert [one.code for one in alone.reasons if one.check == "breath"] == [code] and not alone.readable_for.breath
        assert [one.code for one in restless.reasons if one.check == "breath"] == ["restless_behind"] and not restless.readable_for.breath
    clear = read(replace(made, notes=(("restless_behind", {}),)), Task(Check(card=card)))
    assert clear.readable_for.breath and [one.code for one in clear.reasons if one.check == "breath"] == ["restless_behind"], "read all the same, and said"


def test_an_edge_that_is_found_where_no_belly_goes_is_lost_too() -> None:
    """A striped shirt that rises: what is found again is the stripe below, and far off."""
    made, _, card = sighting()
    nothing = replace(made.points, on_body=np.zeros_like(made.points.on_body))
    astray = np.where(made.t_s > made.t_s.mean(), 12.0, 0.0)[:, None] * (made.front.up_pct < profile.ABDOMEN_TO)
    report = read(replace(made, front=replace(made.front, travel_pct=made.front.travel_pct + astray), points=nothing), Task(Check(card=card)))
    assert [reason.code for reason in report.reasons if reason.check == "breath"] == ["outline_lost"] and not report.readable_for.breath


def test_posture_stays_readable_where_the_breath_is_not() -> None:
    restless, _, card = sighting(sway_pct=12.0)
    report = read(restless, Task(Check(card=card)))
    assert report.readable and report.readable_for.posture
    assert [v.criterion for v in report.verdicts if v.state != "unreadable"] == [
        "feet_flat",
        "trunk_inclination",
        "keeps_tall",
        "back_rounding",
        "head_forward",
        "body_still",
    ]


@settings(max_examples=30, deadline=None)
@given(st.sampled_from(["dark", "frozen", "soft", "shaking", "good"]), st.floats(0.0, 12.0), st.floats(2.0, 8.0))
def test_a_window_of_a_clip_is_judged_as_the_clip_would_be(kind: str, from_s: float, length_s: float) -> None:
    """Live readiness and the verdict come from one code: where all of a clip is alike, every window of it says the same."""
    made, _, _ = sighting()
    n = len(made.t_s)
    change = {
        "dark": {"light": np.full(n, 9.0)}, "frozen": {"change": np.zeros(n)}, "soft": {"clear": np.full(n, 3.0)}, "good": {},
        "shaking": {"room_pct": np.column_stack([9.0 * np.sqrt(2) * np.sin(2 * np.pi * 1.5 * made.t_s), np.zeros(n)])},
    }[kind]  # fmt: skip
    whole = stretch_of(with_picture(made, **change))
    window = whole.between(from_s, from_s + length_s)
    said = [[r.code for r in gate.picture_reasons(s, view="side-left")[0]] for s in (whole, window)]
    assert said[0] == said[1] and bool(said[0]) == (kind != "good")


def test_a_window_sees_what_happens_in_it_and_not_before() -> None:
    made, _, _ = sighting()
    half = made.t_s[-1] / 2
    whole = stretch_of(with_picture(made, light=np.where(made.t_s < half, 9.0, 120.0)))
    early, late = whole.between(0.0, half - 0.1), whole.between(half + 0.1, made.t_s[-1])
    assert [r.code for r in gate.picture_reasons(early, view="side-left")[0]] == ["too_dark"]
    assert gate.picture_reasons(late, view="side-left") == ([], [])


def test_the_player_is_judged_in_a_window_as_in_the_clip() -> None:
    made, _, _ = sighting()
    assert gate.player_reason(made.poses, width_px=960, height_px=540) is None
    empty = [replace(sample, bodies=(), light=120.0) for sample in made.poses]
    assert gate.player_reason(empty, width_px=960, height_px=540).code == "no_person"
    assert gate.player_reason([replace(sample, light=20.0) for sample in empty], width_px=960, height_px=540).code == "too_dark"
    assert gate.player_reason(made.poses[:4], width_px=960, height_px=200).code == "trunk_cut_off"


def test_a_chest_that_is_hidden_is_not_put_down_to_a_sinking_that_was_undone() -> None:
    made, _, card = sighting(chest_hidden=True)
    half = len(made.poses) // 2
    poses = tuple(one if i < half else replace(one, bodies=(body(outline=shape(bow_pct=9.0)),)) for i, one in enumerate(made.poses))
    left = replace(made, poses=poses)
    undone = replace(left, sunk=np.column_stack([np.linspace(0.0, 0.15, len(made.t_s)), np.zeros(len(made.t_s)), np.ones(len(made.t_s))]))
    codes = [[reason.code for reason in read(seen, Task(Check(card=card))).reasons] for seen in (left, undone)]
    assert ["trunk_sank" in own for own in codes] == [True, False] and ["chest_covered" in own for own in codes] == [False, True]
