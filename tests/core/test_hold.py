"""How the instrument and the elbows are held: planted edges and arms come back, and what cannot be seen is withheld with its reason."""

import json
import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core import packing
from brevin.core.edited import Edits, TappedLine
from brevin.core.errors import InvalidInput
from brevin.core.evidence import KIND, Evidence, evidence, unpacked
from brevin.core.hold.axis import axis
from brevin.core.hold.elbows import JOINT_OUTSIDE_TRUNKS, UPPER_ARM_TRUNKS, elbows
from brevin.core.hold.instruments import HELD
from brevin.core.hold.looks import TAPPED_DEG, Playing, Tapped
from brevin.core.kinds import INSTRUMENTS
from brevin.core.measure import Amount, Measure, NotMeasured
from brevin.core.plain import to_json
from brevin.core.plan.check import Check
from brevin.core.pose import landmarks as lm
from brevin.core.read import Task, judge, read
from brevin.core.track import Body, LinesSeen
from brevin.core.verdict.bands import Asked
from brevin.core.verdict.judge import Judged, verdicts
from brevin.core.verdict.rules import Rules
from brevin.core.verdict.wording import with_sentences
from tests.core.made import HIP_PX, TRUNK_PX, sighting

MOUTH = np.array([HIP_PX[0] + 30.0, HIP_PX[1] - 1.35 * TRUNK_PX])
TIMES = (1.0, 3.0, 5.0, 7.0)


def player(**points: tuple[float, float]) -> Body:
    """Somebody who faces right, hips and shoulders upright; points by their names in ``landmarks``."""
    places = np.zeros((33, 2))
    places[[lm.HIP_L, lm.HIP_R]] = HIP_PX
    places[[lm.SHOULDER_L, lm.SHOULDER_R]] = (HIP_PX[0], HIP_PX[1] - TRUNK_PX)
    places[[lm.MOUTH_L, lm.MOUTH_R]] = MOUTH
    places[[lm.ELBOW_L, lm.ELBOW_R]] = (HIP_PX[0], HIP_PX[1] - 0.4 * TRUNK_PX)
    places[[lm.WRIST_L, lm.WRIST_R]] = HIP_PX
    for name, at in points.items():
        places[getattr(lm, name)] = at
    return Body(points_px=places, visibility=np.ones(33), world=np.zeros((33, 3)))


def along(deg: float, trunks: float, side: float = 1.0) -> np.ndarray:
    """A place so far from the mouth, + = below level."""
    return MOUTH + trunks * TRUNK_PX * np.array([side * math.cos(math.radians(deg)), math.sin(math.radians(deg))])


def tube(deg: float, *, side: float = 1.0, aside_px: float = 4.0) -> np.ndarray:
    """Two edges of a tube from the mouth on."""
    off = aside_px * np.array([-side * math.sin(math.radians(deg)), math.cos(math.radians(deg))])
    return np.array(
        [
            np.concatenate([along(deg, 0.05, side) + off, along(deg, 0.6, side) + off]),
            np.concatenate([along(deg, 0.1, side) - off, along(deg, 0.7, side) - off]),
        ]
    )


def looked(deg: float, edges: np.ndarray, *, hands_deg: float | None = None, view: str = "side-right", side: float = 1.0) -> Playing:
    hand = along(deg if hands_deg is None else hands_deg, 0.4, side)
    body = player(
        INDEX_L=tuple(hand), INDEX_R=tuple(hand), **({"SHOULDER_L": (HIP_PX[0] + 50, 150), "SHOULDER_R": (HIP_PX[0] - 50, 150)} if view == "front" else {})
    )
    return Playing(view=view, bodies=[(t_s, body) for t_s in TIMES], lines=[LinesSeen(t_s, edges) for t_s in TIMES], forward_x=side)


def value(measures: list[Measure], key: str) -> Amount | NotMeasured:
    return next(m.value for m in measures if m.key == key)


@given(deg=st.floats(-8, 30), off_deg=st.floats(-12, 12))
def test_the_edges_say_where_a_trumpet_points_though_the_hand_lies_beside_it(deg: float, off_deg: float) -> None:
    found = axis(looked(deg, tube(deg), hands_deg=deg + off_deg), "trumpet")
    assert value(found, "instrument_axis_deg").value == pytest.approx(deg, abs=0.5)
    assert value(found, "axis_to_trunk_deg").value == pytest.approx(90 - deg, abs=0.6)  # an upright trunk


@given(deg=st.floats(-10, 25))
def test_a_flute_goes_to_the_players_right_which_is_left_in_the_picture(deg: float) -> None:
    found = axis(looked(deg, tube(deg, side=-1.0), view="front", side=-1.0), "flute")
    assert value(found, "instrument_axis_deg").value == pytest.approx(deg, abs=0.5)
    assert value(axis(looked(deg, tube(deg)), "flute"), "instrument_axis_deg") == NotMeasured("view_unserved")


@given(deg=st.floats(-8, 30))
def test_edges_that_lead_elsewhere_are_none_of_the_instruments(deg: float) -> None:
    wall = np.array([[0.0, 40.0, 900.0, 40.0], [MOUTH[0] + 60, 0.0, MOUTH[0] + 60, 500.0]])  # a shelf above the head, a door behind the hands
    sleeve = np.array([np.concatenate([along(deg, 0.5) + (0, 60), along(deg + 4, 1.4) + (0, 60)])])
    both = np.concatenate([tube(deg), wall, sleeve])
    assert value(axis(looked(deg, both), "trombone"), "instrument_axis_deg").value == pytest.approx(deg, abs=0.5)
    for edges in (wall, sleeve, np.zeros((0, 4))):
        assert value(axis(looked(deg, edges), "trombone"), "instrument_axis_deg") == NotMeasured("not_found")


def test_stripes_of_a_sleeve_beside_the_instrument_are_none_of_it() -> None:
    held = looked(-14.0, tube(-14.0))
    elbow, wrist = tuple(along(60.0, 0.35)), tuple(along(-10.0, 0.3))
    bodies = [(t_s, replace(body, points_px=_with(body, ELBOW_R=elbow, WRIST_R=wrist))) for t_s, body in held.bodies]
    across = [np.concatenate([along(deg, far) + (-25, 0), along(deg, far) + (25, 0)]) for deg, far in ((10, 0.27), (20, 0.28), (30, 0.29), (40, 0.3))]
    stripes = np.array([one for one in across for _ in range(4)])
    sleeved = replace(held, bodies=bodies)
    for edges, told in ((np.concatenate([tube(-14.0), stripes]), True), (stripes, False)):
        found = value(axis(replace(sleeved, lines=[LinesSeen(t_s, edges) for t_s in TIMES]), "trumpet"), "instrument_axis_deg")
        assert (found.value == pytest.approx(-14.0, abs=0.5)) if told else found == NotMeasured("not_found")


@pytest.mark.parametrize(("to_trunks", "told"), [(0.4, False), (0.48, False), (0.56, True)])
def test_what_ends_at_the_hands_is_a_cut_off_instrument_or_none(to_trunks: float, told: bool) -> None:
    cut = np.array([np.concatenate([along(10.0, 0.02) + (0, off), along(10.0, to_trunks) + (0, off)]) for off in (-5, 0, 5)])
    found = value(axis(looked(10.0, cut), "trumpet"), "instrument_axis_deg")
    assert isinstance(found, Amount) if told else found == NotMeasured("not_found")


def _with(body: Body, **points: tuple[float, float]) -> np.ndarray:
    places = body.points_px.copy()
    for name, at in points.items():
        places[getattr(lm, name)] = at
    return places


def test_a_picture_that_shows_one_side_of_the_bell_sinks_nothing() -> None:
    even = sinking(0.0, LONG)
    lines = [*even.lines[:-1], LinesSeen(LONG[-1], tube(15.0))]
    found = value(axis(replace(even, lines=lines), "trumpet"), "axis_droop_deg")
    assert isinstance(found, Amount) and abs(found.value) < 0.1


@pytest.mark.parametrize(
    ("instrument", "deg", "told"),
    [("trumpet", 42.0, True), ("trumpet", 56.0, False), ("trombone", 55.0, False), ("clarinet", 75.0, True), ("clarinet", 10.0, False), ("oboe", 12.0, False)],
)
def test_what_points_where_nobody_holds_the_instrument_is_another_one_unless_somebody_says_so(instrument: str, deg: float, told: bool) -> None:
    held = looked(deg, tube(deg))
    found = value(axis(held, instrument), "instrument_axis_deg")
    assert (found.value == pytest.approx(deg, abs=0.5)) if told else found == NotMeasured("points_elsewhere")
    tapped = replace(held, tapped=Tapped(TIMES[1], MOUTH, along(deg, 0.8)))
    assert value(axis(tapped, instrument), "instrument_axis_deg").value == pytest.approx(deg, abs=1.0)


def test_hands_that_were_not_found_leave_where_the_instrument_usually_points() -> None:
    assert value(axis(looked(12.0, tube(12.0), hands_deg=-70.0), "trombone"), "instrument_axis_deg").value == pytest.approx(12.0, abs=0.5)
    assert value(axis(looked(70.0, tube(70.0), hands_deg=-70.0), "trombone"), "instrument_axis_deg") == NotMeasured("not_found")


def test_pictures_that_do_not_agree_are_no_axis() -> None:
    restless = replace(looked(10.0, tube(10.0)), lines=[LinesSeen(t_s, tube(deg)) for t_s, deg in zip(TIMES, (-5.0, 25.0, -5.0, 25.0), strict=True)])
    assert value(axis(restless, "trumpet"), "instrument_axis_deg") == NotMeasured("not_found")


@pytest.mark.parametrize(("others", "told"), [(0, True), (2, True), (4, False), (6, False)])
def test_two_things_seen_by_turns_are_no_axis_though_they_point_much_the_same_way(others: int, told: bool) -> None:
    times = tuple(float(t_s) for t_s in range(12))
    each = [6.0 if (5 * i) % 12 < others else 13.5 for i in range(12)]  # a shelf behind the instrument, in so many of twelve pictures
    body = looked(12.0, tube(12.0)).bodies[0][1]
    seen = Playing("side-right", [(t_s, body) for t_s in times], [LinesSeen(t_s, tube(deg)) for t_s, deg in zip(times, each, strict=True)], 1.0)
    found = value(axis(seen, "trumpet"), "instrument_axis_deg")
    assert found.value == pytest.approx(13.5, abs=0.1) if told else found == NotMeasured("not_found")


def sinking(by_deg: float, times: tuple[float, ...], *, shaken_deg: float = 0.0) -> Playing:
    """A trumpet whose bell sinks evenly from the first picture to the last, shaken to and fro between them."""
    went = [by_deg * (t_s - times[0]) / (times[-1] - times[0]) + shaken_deg * (-1) ** i for i, t_s in enumerate(times)]
    each = [looked(6.0 + deg, tube(6.0 + deg)) for deg in went]
    bodies = [(t_s, one.bodies[0][1]) for t_s, one in zip(times, each, strict=True)]
    return Playing("side-right", bodies, [LinesSeen(t_s, one.lines[0].segments_px) for t_s, one in zip(times, each, strict=True)], 1.0)


LONG = tuple(range(2, 24, 2))


@given(by_deg=st.floats(-10, 14), shaken_deg=st.floats(0, 2))
def test_arms_that_tire_are_told_by_how_far_the_bell_sinks(by_deg: float, shaken_deg: float) -> None:
    found = value(axis(sinking(by_deg, LONG, shaken_deg=shaken_deg), "trumpet"), "axis_droop_deg")
    assert abs(found.value - by_deg) < max(found.half_width, 0.5) and 0.5 < found.half_width < 4.5
    assert found.half_width > 0.9 * value(axis(sinking(by_deg, LONG), "trumpet"), "axis_droop_deg").half_width, "the shakier, the less sure"


@pytest.mark.parametrize("times", [(2.0, 4.0, 6.0, 8.0), (2.0, 9.0, 16.0)])
def test_a_moment_s_sinking_is_no_tiring(times: tuple[float, ...]) -> None:
    measures = axis(sinking(12.0, times), "trumpet")
    assert value(measures, "axis_droop_deg") == NotMeasured("held_briefly") and isinstance(value(measures, "instrument_axis_deg"), Amount)


@pytest.mark.parametrize(("by_deg", "state"), [(-9.0, "steady"), (1.0, "steady"), (7.5, "watch"), (14.0, "work")])
def test_only_what_sinks_is_a_fault(by_deg: float, state: str) -> None:
    asked = Asked(Check(kind="hold", instrument="trumpet"), None, Rules())
    judged = Judged(axis(sinking(by_deg, LONG), "trumpet"), "side-right", "seated", False, ())
    [found] = [v for v in verdicts(judged, asked) if v.criterion == "arms_stay_up"]
    assert found.state == state


def test_a_saxophone_is_as_sure_as_mouth_and_hand_are() -> None:
    found = value(axis(looked(60.0, np.zeros((0, 4))), "alto_sax"), "instrument_axis_deg")
    assert found.value == pytest.approx(60.0, abs=0.1) and found.half_width > 8


def test_an_instrument_without_a_straight_way_has_no_axis() -> None:
    assert {name for name in INSTRUMENTS if not axis(looked(10.0, tube(10.0)), name)} == set(INSTRUMENTS) - set(HELD)


@given(left=st.floats(0, 55), right=st.floats(0, 55))
def test_elbows_come_back_from_the_front(left: float, right: float) -> None:
    def out(deg: float) -> float:
        return TRUNK_PX * (UPPER_ARM_TRUNKS * math.sin(math.radians(deg)) + JOINT_OUTSIDE_TRUNKS)

    middle, up = HIP_PX[0], HIP_PX[1] - TRUNK_PX
    body = player(
        SHOULDER_L=(middle + 50, up), SHOULDER_R=(middle - 50, up), ELBOW_L=(middle + 50 + out(left), up + 70), ELBOW_R=(middle - 50 - out(right), up + 70)
    )
    seen = Playing("front", [(t_s, body) for t_s in TIMES], (), 0.0)
    assert value(elbows(seen, "clarinet"), "elbow_left_deg").value == pytest.approx(left, abs=0.2)
    assert value(elbows(seen, "clarinet"), "elbow_right_deg").value == pytest.approx(right, abs=0.2)
    assert value(elbows(replace(seen, view="side-left"), "clarinet"), "elbow_left_deg") == NotMeasured("view_unserved")


@pytest.mark.parametrize(
    ("instrument", "deg", "told"),
    [("clarinet", -30.0, True), ("clarinet", -14.0, True), ("clarinet", -4.0, True), ("clarinet", 0.0, True), ("flute", -4.0, False), ("flute", 4.0, True)],
)
def test_a_flute_s_arm_that_crosses_the_body_tells_no_clearance_and_any_other_that_touches_it_does(instrument: str, deg: float, told: bool) -> None:
    """How far inside the shoulder an elbow is may be anything down to none, but no more than that: it is close in, for sure."""
    middle, up = HIP_PX[0], HIP_PX[1] - TRUNK_PX
    out = TRUNK_PX * (UPPER_ARM_TRUNKS * math.sin(math.radians(deg)) + JOINT_OUTSIDE_TRUNKS)
    body = player(SHOULDER_L=(middle + 50, up), SHOULDER_R=(middle - 50, up), ELBOW_L=(middle + 50 + out, up + 70), ELBOW_R=(middle - 80, up + 70))
    found = value(elbows(Playing("front", [(t_s, body) for t_s in TIMES], (), 0.0), instrument), "elbow_left_deg")
    if not told:
        assert found == NotMeasured("arm_crosses")
        return
    assert found.value == pytest.approx(deg, abs=0.2)
    assert found.half_width >= -deg - 0.01
    if deg < -10.0:
        assert found.value + found.half_width == pytest.approx(0.0, abs=0.01)


@pytest.mark.parametrize(("instrument", "beyond"), [("clarinet", 1.7), ("trumpet", 1.4), ("trombone", 2.9)])
def test_an_edge_further_away_than_the_instrument_reaches_is_none_of_it(instrument: str, beyond: float) -> None:
    """A shin or a chair's leg, far down where the instrument points."""
    points = {"clarinet": 50.0, "trumpet": 10.0, "trombone": 12.0}[instrument]
    shin = np.concatenate([along(points + 12.0, beyond - 0.3), along(points + 12.0, beyond + 0.4)])
    own = value(axis(looked(points, tube(points)), instrument), "instrument_axis_deg")
    beside = value(axis(looked(points, np.vstack([tube(points), shin, shin + 2.0, shin - 2.0])), instrument), "instrument_axis_deg")
    assert beside.value == pytest.approx(own.value, abs=0.1)


@pytest.mark.parametrize(
    ("instrument", "key", "deg", "state", "side"),
    [
        ("trumpet", "axis_level", 12.0, "steady", None), ("trumpet", "axis_level", 40.0, "work", "high"), ("trumpet", "axis_level", -14.0, "work", "low"),
        ("trombone", "axis_level", 33.0, "watch", "high"), ("flute", "axis_level", 30.0, "work", "high"), ("clarinet", "axis_to_trunk", 38.0, "steady", None),
        ("clarinet", "axis_to_trunk", 15.0, "work", "low"), ("oboe", "axis_to_trunk", 48.0, "steady", None),
    ],
)  # fmt: skip
def test_each_instrument_has_its_own_band(instrument: str, key: str, deg: float, state: str, side: str | None) -> None:
    measure = Measure("instrument_axis_deg" if key == "axis_level" else "axis_to_trunk_deg", Amount(deg, 1.5))
    asked = Asked(Check(kind="hold", instrument=instrument), None, Rules())
    said = {v.criterion: v for v in verdicts(Judged([measure], "front" if instrument == "flute" else "side-left", "seated", False, ()), asked)}
    assert said[key].state == state and (side is None or said[key].side == side)


def test_the_hold_is_judged_only_where_the_instrument_is_held() -> None:
    made, _, card = sighting()
    keys = {"axis_level", "axis_to_trunk", "elbow_left", "elbow_right"}
    without = read(made, Task(Check(card=card, instrument="trumpet")))
    assert not keys & {v.criterion for v in without.verdicts} and without.hold is None, "nothing is in the hands"
    held = {v.criterion: v for v in read(made, Task(Check(card=card, instrument="trumpet", with_instrument=True))).verdicts}
    assert held["axis_level"].state == "unreadable" and held["axis_level"].reason == "not_found"
    assert read(made, Task(Check(card=card))).hold is None


HELD_CHECK = {"instrument": "trumpet", "with_instrument": True}


def line_in_clip(found: Evidence, deg: float, t_s: float = 6.0) -> TappedLine:
    """A line from the mouth of the player as it is seen then, in the clip's own pixels."""
    body = min(found.poses, key=lambda one: abs(one.t_s - t_s)).bodies[0]
    ahead = np.sign(found.players[0].player.forward[0])
    near = lm.mouth(body)
    far = near + 0.8 * lm.trunk_px(body) * np.array([ahead * math.cos(math.radians(deg)), math.sin(math.radians(deg))])
    return TappedLine(t_s, (near / found.shrink).tolist(), (far / found.shrink).tolist())


@pytest.mark.parametrize("larger", [1, 2])
def test_a_line_set_by_hand_is_judged_drawn_and_kept_whatever_the_clip_s_size(larger: int) -> None:
    made, _, card = sighting()
    size = replace(made.clip, width_px=1280 * larger, height_px=720 * larger)
    found, task = evidence(replace(made, clip=size)), Task(Check(card=card, **HELD_CHECK))
    assert found.shrink == 1.0 / larger and judge(found, task).report.hold.instrument_axis_deg is None
    edits = Edits(line=line_in_clip(found, 40.0))
    report = judge(found, task, edits=edits).report
    assert report.hold.instrument_axis_deg.value == pytest.approx(40.0, abs=0.5) and report.edits == edits
    [said] = [v for v in report.verdicts if v.criterion == "axis_level"]
    assert (said.state, said.side) == ("work", "high")
    drawn = report.hold.axis_px
    assert math.degrees(math.atan2(drawn[3] - drawn[1], abs(drawn[2] - drawn[0]))) == pytest.approx(40.0, abs=0.5)
    assert drawn[0] == pytest.approx(edits.line.near_px[0], abs=12 * larger)


@pytest.mark.parametrize(
    ("near", "far"),
    [((10, 10), (12, 11)), ((-5, 10), (200, 200)), ((10, 10), (99_999, 10)), ((float("nan"), 10), (200, 200)), ((10, 10, 10), (200, 200, 200)), ((), ())],
)
def test_what_is_no_line_is_refused(near: tuple[float, ...], far: tuple[float, ...]) -> None:
    made, _, card = sighting("2-0-2@120x1")
    with pytest.raises(InvalidInput) as why:
        judge(evidence(made), Task(Check(card=card, **HELD_CHECK)), edits=Edits(line=TappedLine(3.0, list(near), list(far))))
    assert why.value.code == "bad_edit"


@pytest.mark.parametrize("view", ["side-left", "side-right", "front", "three-quarter", "back"])
@pytest.mark.parametrize("position", ["seated", "standing", "lying"])
def test_whatever_is_held_from_wherever_it_is_seen_can_be_said(view: str, position: str) -> None:
    made, _, card = sighting("2-0-2@120x1", view=view if view in ("side-left", "side-right", "front") else "side-right", position=position)
    found = evidence(replace(made, view=view))
    for instrument in INSTRUMENTS:
        report = judge(found, Task(Check(card=card, instrument=instrument, with_instrument=True))).report
        said = with_sentences(to_json(report))
        assert all(verdict["why"] and "{" not in verdict["why"] for verdict in said["verdicts"]), instrument
        json.dumps(said, allow_nan=False)


def test_evidence_from_before_there_were_edges_is_still_judged() -> None:
    made, _, card = sighting()
    found = evidence(replace(made, lines=(LinesSeen(1.0, np.ones((3, 4))),)))
    assert found.lines[0].segments_px.shape == (3, 4)
    without = replace(
        found, players=tuple(replace(one, traces=_without(one.traces, "looked", "lost", "stale_s", "passed", "behind", "trunk_px")) for one in found.players)
    )
    older = packing.pack(_without(without, "lines", "uprights_px", "faces"), kind=KIND, version=1)
    again = unpacked(older)
    assert isinstance(again, Evidence) and again.lines == () and again.players[0].traces.looked == {}
    task = Task(Check(card=card, instrument="trumpet", with_instrument=True))
    assert judge(again, task).report.breaths == judge(found, task).report.breaths


from dataclasses import fields, make_dataclass  # noqa: E402 (an evidence record as the first version had it)


def _without(record: Any, *names: str) -> Any:
    """The record as it was before it had some fields."""
    kept = {f.name: getattr(record, f.name) for f in fields(record) if f.name not in names}
    return make_dataclass("Older", list(kept), frozen=True)(**kept)


def tapped(deg: float, t_s: float = 6.0, trunks: float = 1.0) -> Tapped:
    """A line set by hand from the mouth on."""
    return Tapped(t_s, along(deg, 0.02), along(deg, trunks))


@given(deg=st.floats(-8, 60), off_deg=st.floats(-3, 3))
def test_a_tapped_line_finds_the_edges_that_go_with_it_whatever_else_is_there(deg: float, off_deg: float) -> None:
    """The hands lie far off, and a stand's edge leads past the mouth where a trumpet usually points."""
    stand = tube(10.0) if abs(deg - 10.0) > 9.0 else np.zeros((0, 4))
    seen = looked(deg, np.concatenate([tube(deg), stand]), hands_deg=75.0)
    found = axis(replace(seen, tapped=tapped(deg + off_deg)), "trumpet")
    assert value(found, "instrument_axis_deg").value == pytest.approx(deg, abs=0.6), "the edges say it better than a finger"
    assert next(m.samples for m in found if m.key == "instrument_axis_deg") == len(TIMES)


@given(deg=st.floats(-8, 60))
def test_where_no_edge_goes_with_it_the_line_itself_counts_and_is_as_sure_as_two_taps(deg: float) -> None:
    alone = axis(replace(looked(deg, np.zeros((0, 4))), tapped=tapped(deg)), "trombone")
    found = value(alone, "instrument_axis_deg")
    assert found.value == pytest.approx(deg, abs=0.1) and found.half_width == pytest.approx(1.645 * TAPPED_DEG, rel=0.01)
    assert value(alone, "axis_to_trunk_deg").value == pytest.approx(90.0 - deg, abs=0.2) and value(alone, "axis_droop_deg") == NotMeasured("held_briefly")
    far = axis(replace(looked(deg, tube(deg + 15.0)), tapped=tapped(deg)), "trombone")
    assert value(far, "instrument_axis_deg").value == pytest.approx(deg, abs=0.1), "edges that point elsewhere are not what was meant"


def test_a_tapped_line_goes_along_with_the_hands() -> None:
    """The instrument sinks by twelve degrees after the tap, and its edges are followed."""
    each = [looked(deg, tube(deg)) for deg in (4.0, 4.0, 16.0, 16.0)]
    bodies = [(t_s, one.bodies[0][1]) for t_s, one in zip((2.0, 6.0, 10.0, 14.0), each, strict=True)]
    lines = [LinesSeen(t_s, one.lines[0].segments_px) for t_s, one in zip((2.0, 6.0, 10.0, 14.0), each, strict=True)]
    seen = Playing("side-right", bodies, lines, 1.0, tapped(4.5, 6.0))
    found = axis(seen, "trumpet")
    assert [m.samples for m in found if m.key == "instrument_axis_deg"] == [1], "pictures that differ by so much are not one axis"
    nearer = [looked(deg, tube(deg)) for deg in (4.0, 4.0, 9.0, 9.0)]
    bodies = [(t_s, one.bodies[0][1]) for t_s, one in zip((2.0, 6.0, 10.0, 14.0), nearer, strict=True)]
    lines = [LinesSeen(t_s, one.lines[0].segments_px) for t_s, one in zip((2.0, 6.0, 10.0, 14.0), nearer, strict=True)]
    assert value(axis(Playing("side-right", bodies, lines, 1.0, tapped(4.5, 6.0)), "trumpet"), "instrument_axis_deg").value == pytest.approx(6.5, abs=2.6)


def test_a_line_set_at_a_moment_at_which_nobody_was_seen_playing_tells_nothing() -> None:
    assert value(axis(replace(looked(10.0, tube(10.0)), tapped=tapped(10.0, t_s=60.0)), "trumpet"), "instrument_axis_deg") == NotMeasured("not_found")
    assert value(axis(replace(looked(10.0, tube(10.0), view="front"), tapped=tapped(10.0)), "trumpet"), "instrument_axis_deg") == NotMeasured("view_unserved")


@given(deg=st.floats(20, 80))
def test_a_saxophone_that_bends_is_told_by_the_tapped_line_alone(deg: float) -> None:
    found = value(axis(replace(looked(deg, tube(deg + 2.0), hands_deg=50.0), tapped=tapped(deg)), "alto_sax"), "instrument_axis_deg")
    assert found.value == pytest.approx(deg, abs=0.1) and found.half_width < 4.0, "surer than mouth and hand are"
