"""Raises planted into the hands come back with their times; the head's way and the spread of the landings with theirs; what is no raise is none."""

import json
import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.evidence import unpacked
from brevin.core.hold.held import Instrumental, held
from brevin.core.hold.instruments import HANDS
from brevin.core.hold.looks import Look
from brevin.core.hold.raising import Hands, heights, raising, stills
from brevin.core.hold.segments import segments, with_breaths
from brevin.core.hold.ticks import TICKS
from brevin.core.kinds import INSTRUMENTS
from brevin.core.kinematics.posture import Stance
from brevin.core.measure import Amount, NotMeasured
from brevin.core.plan.check import Check
from brevin.core.pose import landmarks as lm
from brevin.core.read import Task, judge
from brevin.core.report import Report, Segment
from brevin.core.track import Body
from brevin.core.verdict.headline import headline, headline_words
from brevin.ops.demo import CLIPS
from tests.core import made

TRUNK_PX, LAP, MOUTH = 160.0, -110.0, -25.0  # hands below the mouth, percent of trunk
RISE_S = 0.9
RAISED = "seated-trumpet-raised"


def up(t_s: float, raises: tuple[float, ...], held_s: float) -> float:
    """Share of the way at a moment."""
    for from_s in raises:
        if from_s <= t_s < from_s + 2 * RISE_S + held_s:
            since = t_s - from_s
            share = since / RISE_S if since < RISE_S else 1.0 - max(since - RISE_S - held_s, 0.0) / RISE_S
            return float(0.5 - 0.5 * math.cos(math.pi * np.clip(share, 0, 1)))
    return 0.0


def player(t_s: float, *, raises: tuple[float, ...], held_s: float = 2.5, head_pct: float = 0.0, lands_pct: tuple[float, ...] = (), side: float = 1.0) -> Body:
    """Somebody who faces right (side 1) or left, at one moment."""
    share = up(t_s, raises, held_s)
    number = max([i for i, from_s in enumerate(raises) if t_s >= from_s], default=0)
    landed = lands_pct[number] if lands_pct else 0.0
    places = np.zeros((33, 2))
    places[[lm.HIP_L, lm.HIP_R]] = (400.0, 400.0)
    places[[lm.SHOULDER_L, lm.SHOULDER_R]] = (400.0, 400.0 - TRUNK_PX)
    head_px = side * share * head_pct * TRUNK_PX / 100.0
    places[[lm.MOUTH_L, lm.MOUTH_R]] = (400.0 + side * 22.0 + head_px, 200.0)
    places[[lm.EAR_L, lm.EAR_R]] = (400.0 + side * 5.0 + head_px, 190.0)
    below = LAP + share * (MOUTH + landed - LAP)
    places[[lm.INDEX_L, lm.INDEX_R]] = (400.0 + side * 60.0, 200.0 - below * TRUNK_PX / 100.0)
    places[[lm.WRIST_L, lm.WRIST_R]] = places[[lm.INDEX_L, lm.INDEX_R]] + (-side * 12.0, 16.0)
    places[[lm.ELBOW_L, lm.ELBOW_R]] = (400.0 + side * 30.0, 260.0 - 0.5 * landed * TRUNK_PX / 100.0)
    return Body(points_px=places, visibility=np.ones(33), world=np.zeros((33, 3)))


def seen(*, every_s: float = 0.2, to_s: float = 16.0, **made) -> list[tuple[float, Body]]:
    return [(float(t), player(float(t), **made)) for t in np.arange(0.0, to_s, every_s)]


RAISES = (1.6, 6.2, 10.8)


def test_every_raise_is_found_with_its_time_and_the_segments_are_one_line() -> None:
    held = heights(seen(raises=RAISES), "trumpet")
    assert len(held.raises) == 3 and held.moves
    for one, from_s in zip(held.raises, RAISES, strict=True):
        assert from_s <= one.from_s < one.to_s <= from_s + RISE_S + 0.1
        assert one.until_s == pytest.approx(from_s + RISE_S + 2.5, abs=0.5)
    line = segments(held)
    assert [one.kind for one in line[:4]] == ["instrument_down", "raising", "playing", "instrument_down"]
    assert all(a.to_s == b.from_s for a, b in zip(line, line[1:], strict=False)) and line[0].from_s == 0.0


@given(every_s=st.floats(0.1, 0.35), head_pct=st.floats(-2.0, 10.0), side=st.sampled_from([1.0, -1.0]))
def test_the_heads_way_is_what_was_planted_however_often_it_was_looked_at(every_s: float, head_pct: float, side: float) -> None:
    own = seen(raises=RAISES, every_s=every_s, head_pct=head_pct, side=side)
    head, spread = raising(heights(own, "trumpet"), own, "side-right" if side > 0 else "side-left", side, ())
    assert isinstance(head.value, Amount) and head.value.value == pytest.approx(head_pct, abs=0.8) and head.samples == 3
    assert isinstance(spread.value, Amount) and spread.value.value < 1.0


@given(lands=st.lists(st.floats(-4.0, 4.0), min_size=3, max_size=3))
def test_how_far_apart_the_raises_land_is_what_was_planted(lands: list[float]) -> None:
    own = seen(raises=RAISES, lands_pct=tuple(lands))
    spread = raising(heights(own, "clarinet"), own, "side-left", 1.0, ())[1].value
    assert isinstance(spread, Amount) and spread.value == pytest.approx(max(lands) - min(lands), abs=0.9)


@given(lands=st.lists(st.floats(-4.0, 4.0), min_size=3, max_size=3), sinks_pct=st.floats(-5.0, 5.0), deg=st.floats(-15.0, 40.0))
def test_where_the_axis_is_seen_it_says_where_each_raise_lands_whatever_the_arms_and_the_mouth_say(lands: list[float], sinks_pct: float, deg: float) -> None:
    own, shown = [], []
    for t_s, body in seen(raises=RAISES):
        number = max([i for i, from_s in enumerate(RAISES) if t_s >= from_s], default=0)
        body.points_px[:, 1] += number * sinks_pct / 100.0 * TRUNK_PX  # the whole player slides down on the chair
        body.points_px[[lm.MOUTH_L, lm.MOUTH_R], 1] += lands[number] / 100.0 * TRUNK_PX  # and the network's mouth goes along with the mouthpiece
        own.append((t_s, body))
        way = np.array([math.cos(math.radians(deg)), math.sin(math.radians(deg))])
        past = lm.shoulders(body) + [30.0, (lands[number] - 20.0) / 100.0 * TRUNK_PX]
        shown.append(Look(t_s, deg, 90.0 - deg, 0.1, 1.0, way, past + 5.0 * number * way))
    spread = raising(heights(own, "trumpet"), own, "side-right", 1.0, shown)[1].value
    assert isinstance(spread, Amount) and spread.value == pytest.approx(max(lands) - min(lands), abs=0.3)
    few = raising(heights(own, "trumpet"), own, "side-right", 1.0, [one for one in shown if one.t_s < RAISES[2]])[1].value
    assert few == raising(heights(own, "trumpet"), own, "side-right", 1.0, ())[1].value, "not seen after each raise: by the arms"


def test_a_saxophones_line_from_the_mouth_on_says_nothing_of_where_it_lands() -> None:
    own = seen(raises=RAISES, lands_pct=(0.0, 4.0, -2.0))
    hands = heights(own, "alto_sax")
    stance = Stance("side-right", "seated", (), [(one.to_s, one.until_s) for one in hands.raises])
    found = {m.key: m.value for m in held(own, made.player(len(own)), stance, Instrumental("alto_sax", (), hands, 1.0))}
    assert isinstance(found["instrument_axis_deg"], Amount) and found["raise_spread_pct"].value == pytest.approx(6.0, abs=0.9)


@given(jump=st.floats(-9.0, 9.0))
def test_one_hand_s_points_that_sit_elsewhere_after_a_raise_move_no_landing_and_make_it_less_sure(jump: float) -> None:
    """The network's points of one hand may lie on another part of it from raise to raise, and stay there."""
    steady = seen(raises=RAISES)
    own = [(t_s, body) for t_s, body in seen(raises=RAISES)]
    for t_s, body in own:
        if RAISES[1] <= t_s < RAISES[1] + 4.0:
            body.points_px[[lm.INDEX_R, lm.WRIST_R], 1] -= jump * TRUNK_PX / 100.0
    before, after = (raising(heights(one, "trumpet"), one, "side-right", 1.0, ())[1].value for one in (steady, own))
    assert abs(after.value - before.value) < 0.6 and after.half_width >= before.half_width
    assert after.half_width > 0.25 * abs(jump), "what half of an arm says is not what the other says"


def test_what_was_never_raised_or_once_is_told_so_and_from_the_front_nothing() -> None:
    still = seen(raises=())
    assert [m.value for m in raising(heights(still, "flute"), still, "side-left", 1.0, ())] == [NotMeasured("not_raised")] * 2
    once = seen(raises=(2.0,), held_s=20.0)
    head, spread = raising(heights(once, "trumpet"), once, "side-right", 1.0, ())
    assert isinstance(head.value, Amount) and spread.value == NotMeasured("raised_once")
    assert {m.value for m in raising(heights(once, "trumpet"), once, "front", 1.0, ())} == {NotMeasured("view_unserved")}
    assert not heights(once, "none").moves and not heights([], "trumpet").moves


def test_hands_that_scratch_a_knee_raise_nothing() -> None:
    own = seen(raises=())
    for t_s, body in own:
        body.points_px[[lm.INDEX_L, lm.INDEX_R], 1] += 15.0 * math.sin(t_s)
    assert not heights(own, "trumpet").moves and segments(heights(own, "trumpet")) == []


def test_a_breath_goes_before_what_is_held_meanwhile() -> None:
    held = [Segment("playing", 2.0, 10.0), Segment("instrument_down", 10.0, 12.0)]
    breaths = [Segment("inhale", 3.0, 4.0), Segment("exhale", 4.0, 6.0), Segment("inhale", 9.5, 10.5)]
    line = with_breaths(held, breaths)
    assert [(one.kind, one.from_s, one.to_s) for one in line] == [
        ("playing", 2.0, 3.0), ("inhale", 3.0, 4.0), ("exhale", 4.0, 6.0), ("playing", 6.0, 9.5), ("inhale", 9.5, 10.5), ("instrument_down", 10.5, 12.0),
    ]  # fmt: skip


def test_a_way_up_goes_before_a_breath_that_goes_on_meanwhile() -> None:
    held = [Segment("instrument_down", 0.0, 4.0), Segment("raising", 4.0, 5.0), Segment("playing", 5.0, 9.0)]
    line = with_breaths(held, [Segment("inhale", 3.5, 5.5), Segment("exhale", 5.5, 10.0)])
    assert [(one.kind, one.from_s, one.to_s) for one in line] == [
        ("instrument_down", 0.0, 3.5), ("inhale", 3.5, 4.0), ("raising", 4.0, 5.0), ("inhale", 5.0, 5.5), ("exhale", 5.5, 10.0),
    ]  # fmt: skip


@given(st.lists(st.tuples(st.floats(0.0, 20.0), st.floats(-150.0, 20.0)), max_size=60))
def test_whatever_the_hands_do_the_line_of_segments_has_no_overlap(looks: list[tuple[float, float]]) -> None:
    own = []
    for t_s, below in sorted({t: (t, y) for t, y in looks}.values()):
        body = player(0.0, raises=())
        body.points_px[[lm.INDEX_L, lm.INDEX_R], 1] = 200.0 - below * TRUNK_PX / 100.0
        own.append((t_s, body))
    held = heights(own, "trumpet")
    line = segments(held)
    assert all(one.to_s > one.from_s for one in line) and all(a.to_s <= b.from_s + 1e-9 for a, b in zip(line, line[1:], strict=False))
    assert isinstance(held, Hands) and all(one.from_s <= one.to_s <= one.until_s for one in held.raises)
    assert len(raising(held, own, "side-left", 1.0, ())) == 2


@pytest.fixture(scope="module")
def raised() -> Report:
    """The demo's clip of a trumpet that is raised three times, from what the edge saw of it."""
    found = unpacked((CLIPS / f"{RAISED}.evidence").read_bytes())
    return judge(found, Task(Check(kind="hold", position="seated", instrument="trumpet", with_instrument=True))).report


def test_a_filmed_raise_is_read_as_it_was_planted(raised: Report) -> None:
    planted = json.loads((CLIPS / f"{RAISED}.json").read_text())["raising"]
    ways = [one for one in raised.segments if one.kind == "raising"]
    assert len(ways) == len(planted["raises_s"]) == 3
    for way, (from_s, to_s) in zip(ways, planted["raises_s"], strict=True):
        assert from_s - 0.1 <= way.from_s < way.to_s <= to_s + 0.1
    for key in ("head_travel_pct", "raise_spread_pct"):
        read = getattr(raised.hold, key)
        assert abs(read.value - planted[key]) < min(read.uncertainty, 1.0), key
    assert raised.hold.instrument_axis_deg.value == pytest.approx(24.0, abs=1.5), "judged while it is up, though it lies in the lap for half of the clip"


def test_a_check_of_the_hold_says_nothing_of_the_breath(raised: Report) -> None:
    assert raised.readable_for.hold and not [one for one in raised.reasons if one.check == "breath"]
    of_posture = {"feet_flat", "trunk_inclination", "keeps_tall", "back_rounding", "body_still"}
    assert {v.criterion for v in raised.verdicts} == of_posture | {"axis_level", "arms_stay_up", "head_travel", "raise_spread"}
    assert raised.posture.trunk_inclination_deg.by_segment.keys() >= {"instrument_down", "playing"}


def test_the_line_of_a_hold_names_its_fault_and_no_breath(raised: Report) -> None:
    line = headline(raised)
    assert line.state == "watch" and headline_words(line) == "each raise lands elsewhere" and line.pattern is None
    steady = replace(raised, verdicts=[replace(v, state="steady", outside=False) for v in raised.verdicts])
    assert headline_words(headline(steady)) == "as it should be"
    inside = replace(raised, verdicts=[replace(v, outside=False) for v in raised.verdicts])
    assert headline_words(headline(inside)) == "just about"
    unseen = replace(raised, verdicts=[replace(v, state="unreadable", reason="not_raised") for v in raised.verdicts])
    assert headline(unseen).state == "unreadable" and "not brought up" in headline_words(headline(unseen))


def test_the_stills_are_of_rest_raising_and_playing_in_this_order(raised: Report) -> None:
    stills = raised.hold.hands.stills
    assert [one.kind for one in stills] == ["rest", "raising", "playing"] and [one.t_s for one in stills] == sorted(one.t_s for one in stills)
    below = [one.right_hand_px[1] - one.mouth_px[1] for one in stills]
    assert below[0] > below[1] > below[2] > 0
    assert raised.hold.hands.raised == 3 and len(raised.hold.hands.t_s) == len(raised.hold.hands.height_pct) > 25


def test_without_a_raise_one_still_of_the_time_that_is_judged_is_kept() -> None:
    own = seen(raises=())
    [still] = stills(heights(own, "trumpet"), own, [(4.0, 8.0)])
    assert still.kind == "playing" and still.t_s == pytest.approx(6.0, abs=0.2)
    assert stills(heights([], "trumpet"), [], []) == []


def test_every_instrument_has_hands_and_a_list_of_what_no_camera_sees() -> None:
    played = set(INSTRUMENTS) - {"none"}
    assert set(HANDS) == played == set(TICKS)
    for ticks in TICKS.values():
        keys = [tick.key for tick in ticks]
        assert len(keys) == len(set(keys)) >= 5 and {tick.near for tick in ticks} == {"mouth", "left_hand", "right_hand", "back", "rest"}
        assert keys[-2:] == ["backrest", "at_rest"], "they come last, so that a clip which does not show them has no gap"
        assert all(tick.fine and tick.wrong and tick.fine != tick.wrong for tick in ticks)
