import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.kinds import AskedPosition
from brevin.core.kinematics import heads
from brevin.core.kinematics.angles import head_forward_pct, inclination_deg
from brevin.core.kinematics.posture import Stance, bodies_of, posture
from brevin.core.kinematics.sway import POINTS
from brevin.core.measure import Amount, Measure, NotMeasured
from brevin.core.plan.check import Check
from brevin.core.pose import landmarks as lm
from brevin.core.read import Task, read
from brevin.core.report import Segment
from brevin.core.verdict.bands import Asked
from brevin.core.verdict.judge import Judged, cue, verdicts
from brevin.core.verdict.rules import Rules
from brevin.core.verdict.wording import cue_sentence, line_words
from tests.core.made import body, player, sighting


@given(st.floats(-30, 40), st.sampled_from(["side-left", "side-right"]))
def test_lean_is_an_angle_toward_the_face(lean_deg: float, view: str) -> None:
    assert inclination_deg(body(view=view, lean_deg=lean_deg), player(1, view=view)) == pytest.approx(lean_deg, abs=0.1)


@given(st.floats(-10, 40), st.sampled_from(["side-left", "side-right"]))
def test_a_head_is_forward_by_a_share_of_the_trunk_toward_the_face(forward_pct: float, view: str) -> None:
    who, seen = player(1, view=view), body(view=view)
    near, ahead = (lm.EAR_R, 1.0) if view == "side-right" else (lm.EAR_L, -1.0)
    seen.points_px[near, 0] = lm.shoulders(seen)[0] + ahead * forward_pct / 100.0 * who.trunk_px
    assert head_forward_pct(seen, who) == pytest.approx(forward_pct, abs=0.1)


@given(st.floats(20.0, 70.0), st.floats(-30, 30), st.sampled_from(["side-left", "side-right", "front"]))
def test_the_ear_stands_over_the_shoulders_along_the_trunk_however_it_leans(height: float, lean_deg: float, view: str) -> None:
    seen, who = body(view=view, lean_deg=lean_deg), player(1, view=view)
    _, up = lm.trunk_axes(seen)
    ears = {"front": (lm.EAR_L, lm.EAR_R), "side-right": (lm.EAR_R,), "side-left": (lm.EAR_L,)}[view]
    for ear in ears:
        seen.points_px[ear] = lm.shoulders(seen) + height / 100.0 * lm.trunk_px(seen) * up
    assert heads.height_pct(seen, who, front=view == "front") == pytest.approx(height, abs=0.01)


def measured(segments=(), playing_s=None, **kwargs) -> dict:
    made = sighting(**kwargs)[0]
    found = posture(bodies_of(made.poses, made.player), made.player, Stance(made.view, made.position, segments, [playing_s] if playing_s else ()))
    return {(m.key, m.segment): m for m in found}


def test_a_head_is_told_more_surely_with_nothing_before_the_face() -> None:
    made = sighting()[0]
    bare, held = (
        next(m for m in posture(bodies_of(made.poses, made.player), made.player, Stance(made.view, made.position, bare=bare)) if m.key == "head_forward_pct")
        for bare in (True, False)
    )
    assert held.amount.value - bare.amount.value == pytest.approx(2.8) and bare.amount.half_width < 5.0 < 7.0 < held.amount.half_width


def test_each_view_gives_what_it_can_serve_and_says_of_the_rest_why_not() -> None:
    side, front, lying = measured(), measured(view="front"), measured(position="lying")
    lean, tilt, height = ("trunk_inclination_deg", None), ("shoulder_tilt_deg", None), ("shoulder_height_pct", None)
    assert side[lean].amount and side[lean].samples > 10 and side[tilt].value == NotMeasured("view_unserved")
    assert front[tilt].amount and front[lean].value == NotMeasured("view_unserved")
    assert lying[lean].value == lying[tilt].value == lying[height].value == NotMeasured("lying")
    assert side[height].amount and front[height].amount


def test_posture_is_told_for_each_kind_of_segment_that_holds_key_points_enough() -> None:
    found = measured(segments=[Segment("inhale", 3.0, 7.0), Segment("pause", 7.0, 7.1), Segment("inhale", 11.0, 14.0)], lean_deg=6.0)
    inhale = found["trunk_inclination_deg", "inhale"]
    assert inhale.amount.value == pytest.approx(6.0, abs=0.1) and 10 < inhale.samples < found["trunk_inclination_deg", None].samples
    assert ("trunk_inclination_deg", "pause") not in found


NO_MOVES = (np.zeros(1), np.zeros(1))
CLIP_S = tuple(np.arange(2.0, 26.0, 1.5))


@pytest.mark.parametrize("view", ["side-left", "side-right"])
@pytest.mark.parametrize(("by_pct", "state"), [(0.0, "steady"), (0.8, "steady"), (2.5, "watch"), (6.5, "work")])
def test_head_and_shoulders_that_go_together_sway_and_a_camera_that_goes_with_them_is_no_sway(by_pct: float, state: str, view: str) -> None:
    seen, room = swaying(by_pct, view), (np.array(CLIP_S), by_pct * np.sqrt(2) * np.sin(1.3 * np.array(CLIP_S)))
    found = swayed(seen, view)
    assert abs(found.value - by_pct) <= found.half_width
    held_in_the_hand = swayed(seen, view, room=room)
    assert held_in_the_hand.value < 0.05, "what the room does as well is the camera's"
    judged = verdicts(Judged([Measure("sway_pct", found)], view, "seated", False, ()), Asked(Check(kind="posture"), None, Rules()))
    assert next(one for one in judged if one.criterion == "body_still").state == state


def test_points_that_wander_apart_tell_no_sway_nor_does_a_short_look_nor_one_that_goes_evenly_somewhere() -> None:
    seen = swaying(0.0)
    for i, (_, one) in enumerate(seen):
        one.points_px[list(POINTS), 0] += 4.0 * (-1.0) ** i * np.arange(-3, 4)
    assert swayed(seen) == NotMeasured("points_apart")
    assert swayed(swaying(2.0)[:5]) == NotMeasured("seen_briefly")
    assert swayed(sinking(12.0)).value < 0.3, "that is a trunk that sinks"
    assert swayed(swaying(2.0, "front"), "front") == NotMeasured("view_unserved")


def swaying(by_pct: float, view: str = "side-left") -> list[tuple[float, object]]:
    """A player whose head and shoulders go forward and back together, by so much in standard deviation."""
    who = player(1, view=view)
    found = [(float(t_s), body(view=view)) for t_s in CLIP_S]
    for t_s, one in found:
        one.points_px[list(POINTS), 0] += who.forward[0] * who.trunk_px * by_pct / 100.0 * np.sqrt(2) * np.sin(1.3 * t_s)
    return found


def swayed(seen, view: str = "side-left", room=NO_MOVES) -> object:
    found = posture(seen, player(1, view=view), Stance(view, "seated", room=room))
    return next(m.value for m in found if m.key == "sway_pct")


def sinking(by_deg: float, times=CLIP_S, view: str = "side-left", shakes_deg: float = 0.0) -> list[tuple[float, object]]:
    """A player whose trunk sinks forward evenly, by so much from the first look to the last, and shakes about that."""
    leans = [3.0 + by_deg * (t_s - times[0]) / (times[-1] - times[0]) + shakes_deg * (-1) ** i for i, t_s in enumerate(times)]
    return [(float(t_s), body(view=view, lean_deg=lean)) for t_s, lean in zip(times, leans, strict=True)]


def sag(seen, view: str = "side-left", position: str = "seated", judged_s=(), key: str = "sag_deg") -> object:
    found = posture(seen, player(1, view=view), Stance(view, position, (), judged_s))
    return next(m.value for m in found if m.key == key)


@given(st.floats(-25, 25), st.sampled_from(["side-left", "side-right"]), st.floats(0, 1.0))
def test_a_trunk_that_sinks_is_told_by_how_far(by_deg: float, view: str, shakes_deg: float) -> None:
    found = sag(sinking(by_deg, view=view, shakes_deg=shakes_deg), view)
    assert isinstance(found, Amount) and abs(found.value - by_deg) <= found.half_width and 0.4 < found.half_width < 10.0


def test_a_sag_is_told_of_the_time_that_is_judged_and_of_nothing_shorter_than_eight_seconds() -> None:
    stands, sinks = sinking(0.0, tuple(np.arange(0.0, 14.0, 1.0))), sinking(8.0, tuple(np.arange(14.0, 26.0, 1.0)))
    late = sag([*stands, *sinks], judged_s=[(14.0, 26.0)])
    assert abs(late.value - 8.0) <= late.half_width and abs(sag([*stands, *sinks], judged_s=[(0.0, 13.5)]).value) < 0.5
    assert sag(sinking(8.0, (2.0, 4.0, 6.0, 8.0))) == NotMeasured("seen_briefly")
    assert sag(sinking(8.0), position="lying") == NotMeasured("lying") and sag(sinking(8.0, view="front"), view="front") == NotMeasured("view_unserved")


@pytest.mark.parametrize(("long_s", "a_minute"), [(24.0, None), (59.0, None), (60.0, 9.0), (90.0, 6.0)])
def test_how_fast_it_sinks_is_told_of_a_minute_and_of_nothing_shorter(long_s: float, a_minute: float | None) -> None:
    found = sag(sinking(9.0, tuple(np.linspace(0.0, long_s, 25))), key="sag_deg_per_min")
    assert found == NotMeasured("seen_briefly") if a_minute is None else found.value == pytest.approx(a_minute, abs=1e-6)


@pytest.mark.parametrize(
    ("by_deg", "state", "line"),
    [(0.0, "steady", ""), (2.5, "steady", ""), (7.0, "watch", "forward"), (16.0, "work", "forward"), (-16.0, "work", "back"), (-2.5, "steady", "")],
)
def test_sinking_is_a_fault_either_way_with_a_cue_of_its_own(by_deg: float, state: str, line: str) -> None:
    measures = [Measure("sag_deg", sag(sinking(by_deg)))]
    judged = verdicts(Judged(measures, "side-left", "seated", False, ()), Asked(Check(kind="posture"), None, Rules()))
    found = next(one for one in judged if one.criterion == "keeps_tall")
    assert found.state == state
    if line:
        said = cue(judged)
        assert said.criterion == "keeps_tall" and line in line_words("keeps_tall", said.side)
        assert ("back of the chair" in cue_sentence("keeps_tall", said.side)) == (line == "back")


@pytest.mark.parametrize("asked", ["auto", "seated", "lying"])
def test_a_clip_that_lies_on_its_side_judges_no_posture_and_says_so_where_nobody_was_to_lie(asked: AskedPosition) -> None:
    made, _, card = sighting(position="lying")
    report = read(made, Task(Check(card=card, position=asked)))
    assert report.posture.trunk_inclination_deg is None and report.posture.sway_pct is None, "it would be 90 deg forward"
    assert ("lies_on_its_side" in [reason.code for reason in report.reasons]) == (asked != "lying")
    assert all(verdict.state == "unreadable" for verdict in report.verdicts if verdict.criterion in ("trunk_inclination", "back_rounding", "feet_flat"))
    upright, _, card = sighting()
    assert "lies_on_its_side" not in [reason.code for reason in read(upright, Task(Check(card=card, position=asked))).reasons]
