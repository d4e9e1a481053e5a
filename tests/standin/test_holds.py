"""The set of clips of how instruments are held: every fault is planted clear of its limit, every good one inside, and the bodies differ."""

import numpy as np
import pytest

from brevin.core.plan.check import Check
from brevin.core.verdict.bands import Asked, Band
from brevin.core.verdict.criteria import CRITERIA
from brevin.core.verdict.rules import Rules
from brevin.standin import instruments
from brevin.standin.film import SWAYS_FROM_M, _clearance_deg, _hands_planted, _lens, _stance
from brevin.standin.hand import PLAIN_M
from brevin.standin.hold_cases import COUNT, Case
from brevin.standin.holds import drawn
from brevin.standin.raising import Stage, stages
from brevin.standin.stance import Stance

ROWS = {row.key: row for row in CRITERIA}
MADE = [drawn(number) for number in range(COUNT)]
FIRST_BODIES = [number for number, made in enumerate(MADE) if not made.unseen]


def band(key: str, case: Case) -> Band:
    found = ROWS[key].band({}, Asked(Check(instrument=case.instrument), None, Rules()))
    assert found is not None
    return found


def planted(number: int) -> dict[str, float]:
    """What a reading without error would read of each row."""
    script, end = MADE[number].script, Stage(1.0, sunk=1.0)
    pose = _stance(script, Stage(1.0), 0.0)
    lean = script.lean_deg + 0.5 * script.sinks_deg
    height_m = pose.joints["spine"][2]
    hands = _hands_planted(script, pose, _lens(script, pose)) if script.grips else {}
    bent = {f"wrist_{side}": hands[side[0]]["wrist_seen_deg"] for side in ("left", "right") if hands}
    return bent | {
        "trunk_inclination": lean, "keeps_tall": script.sinks_deg, "shoulder_tilt": script.shoulder_deg, "arms_stay_up": script.droops_deg,
        "body_still": 100.0 * script.sway_m * (height_m - SWAYS_FROM_M) * np.sqrt(0.5 * (1.0 + 0.25)) / script.build.trunk,
        "feet_flat": 0.0 if script.tuck_deg or script.crossed_m else 1.0,
        "axis_level": script.axis_deg + 0.5 * script.droops_deg, "axis_to_trunk": 90.0 - script.axis_deg + lean,
        "elbow_left": _clearance_deg(pose, script.build, "l"), "elbow_right": _clearance_deg(pose, script.build, "r"),
        "end_deg": end.axis_deg(script), "head_level": script.head_deg,
        "head_with_flute": script.head_deg - script.axis_deg, "hands_in_order": _order_pct(pose, script.build.trunk),
        "back_rounding": 100.0 * _stance(script, end, 0.0).rounded_m / script.build.trunk,
        "head_forward": 100.0 * (_stance(script, end, script.head_out_m).joints["ear_l"] - pose.joints["spine"])[0] / script.build.trunk,
    }  # fmt: skip


def _order_pct(pose: Stance, trunk_m: float) -> float:
    left, right = (float(np.linalg.norm((pose.joints[f"wrist_{side}"] - pose.joints["mouth"])[1:])) for side in "lr")
    return 100.0 * (right - left) / trunk_m


@pytest.mark.parametrize("number", FIRST_BODIES, ids=[MADE[number].case.name for number in FIRST_BODIES])
def test_a_fault_is_planted_clear_of_its_limit_and_a_good_one_inside(number: int) -> None:
    case, found = MADE[number].case, planted(number)
    for key in case.faults:
        limits = band(key, case)
        assert found[key] < limits.steady_low if case.side == "low" else found[key] > limits.steady_high, key
    if not case.faults:
        view = "front" if case.view == "front" else "side-left"

        def applies(row) -> bool:
            where = row.where
            return (where.views is None or view in where.views) and (where.instruments is None or case.instrument in where.instruments)

        rows = [row for row in CRITERIA if row.key in found and applies(row)]
        assert len(rows) >= (1 if case.instrument == "none" else 3)
        for row in rows:
            if row.key.startswith("elbow") and found[row.key] < -10.0:
                continue  # an arm that crosses the body tells no clearance
            limits = band(row.key, case)
            assert limits.steady_low <= found[row.key] <= limits.steady_high, row.key


def test_the_set_is_the_same_each_time_and_its_bodies_are_not() -> None:
    assert [drawn(number) for number in range(6)] == MADE[:6]
    assert len({one.script.build.trunk for one in MADE}) == COUNT and len({one.script.look.pattern_colour for one in MADE}) == COUNT
    assert {one.script.view for one in MADE} == {"front", "side-left", "side-right"}
    for part in (True, False):
        assert {one.case.name for one in MADE if one.unseen == part} == {MADE[number].case.name for number in FIRST_BODIES}


def test_who_tires_is_drawn_in_stages_from_the_beginning_to_the_end() -> None:
    script = next(one.script for one in MADE if one.case.name == "trumpet-tires")
    each, shown = stages(script, np.arange(0.0, 10.0, 0.1))
    assert each[0].axis_deg(script) == script.axis_deg and each[-1].axis_deg(script) == script.axis_deg + script.droops_deg
    assert list(shown) == sorted(shown) and (shown[0], shown[-1]) == (0, len(each) - 1)
    slumps = next(one.script for one in MADE if one.case.name == "trumpet-slumps")
    assert Stage(1.0, sunk=0.5).lean_deg(slumps) == slumps.lean_deg + 0.5 * slumps.sinks_deg


def test_one_shoulder_is_higher_by_what_was_planted_and_the_elbows_are_where_they_were_asked() -> None:
    high = next(one.script for one in MADE if one.case.name == "flute-left-shoulder-high")
    left, right = (_stance(high, Stage(1.0), 0.0).joints[f"shoulder_{side}"] for side in "lr")
    assert np.degrees(np.arctan2(left[2] - right[2], left[1] - right[1])) == pytest.approx(12.0, abs=0.5)
    for name, deg in (("trumpet-front-good", 32.0), ("trumpet-elbows-in", 4.0)):
        script = next(one.script for one in MADE if one.case.name == name)
        pose = _stance(script, Stage(1.0), 0.0)
        assert np.mean([_clearance_deg(pose, script.build, side) for side in "lr"]) == pytest.approx(deg, abs=8.0)


@pytest.mark.parametrize("number", [number for number, made in enumerate(MADE) if made.case.instrument != "none" and not made.case.faults])
def test_who_holds_an_instrument_well_has_both_hands_on_it_and_the_elbows_under_the_shoulders(number: int) -> None:
    script = MADE[number].script
    pose = _stance(script, Stage(1.0), 0.0)
    _, ends = instruments.drawn(script, pose.joints["mouth"], np.radians(script.axis_deg))
    assert ends is not None
    way = (ends[1] - ends[0]) / np.linalg.norm(ends[1] - ends[0])
    for side in "l" if script.instrument == "horn" else "lr":  # a horn's right hand is in its bell
        shoulder, elbow, wrist = (pose.joints[f"{name}_{side}"] for name in ("shoulder", "elbow", "wrist"))
        assert elbow[2] < shoulder[2] + 0.03, "nobody plays with the elbows over the shoulders"
        hand = wrist if script.grips else wrist + PLAIN_M / script.build.forearm * (wrist - elbow)
        off = hand - ends[0] - way * ((hand - ends[0]) @ way)
        assert np.linalg.norm(off) < 0.12, "a hand's breadth beside the tube at most"
