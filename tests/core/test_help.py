"""What helps with a fault: every criterion has a drill, the equipment comes first, and nothing that could hurt is asked for."""

from typing import get_args

import pytest

from brevin.core.kinds import INSTRUMENTS
from brevin.core.verdict.criteria import CRITERIA
from brevin.core.verdict.help import HELP, PARTS, Drill, drill, equipment, may_be, on_record
from brevin.core.verdict.rules import CRITERION_KEYS, CriterionKey
from brevin.core.verdict.words import CRITERIA as WORDS

DRILLS = [one for known in HELP.values() for one in (known.drill, known.drill_low) if one is not None]
NEVER = (
    "hold your breath",
    "hold the breath",
    "as long as you can",
    "as hard as",
    "push",
    "press",
    "lift",
    "tighten",
    "take off",
    "bag",
    "lie down",
    "empty lungs",
)


def test_every_criterion_has_one_drill_and_known_parts_of_the_equipment() -> None:
    assert set(HELP) == set(CRITERION_KEYS) == {row.key for row in CRITERIA}
    for known in HELP.values():
        assert {*known.parts, *(known.parts_low or ())} <= set(PARTS)


def test_every_fault_of_trunk_head_and_hold_names_something_to_look_at_before_the_child() -> None:
    """Whatever is played, by who sits: the chair, the stand, the strap or the room beside."""
    rows = [row for row in CRITERIA if row.area in ("posture", "hold")]
    assert len(rows) >= 8
    for row in rows:
        for instrument in row.where.instruments or [one for one in INSTRUMENTS if one != "none"]:
            for side in ("low", "high"):
                assert equipment(row.key, side, instrument, "seated"), (row.key, side, instrument)


@pytest.mark.parametrize("one", DRILLS, ids=lambda one: one.title)
def test_a_drill_is_short_for_a_ten_year_old_and_asks_for_nothing_that_could_hurt(one: Drill) -> None:
    assert 2 <= one.times <= 5 and len(one.words.split()) <= 28 and len(one.title) <= 24
    assert not [word for word in NEVER if word in one.words.lower()]


def test_a_fault_on_the_other_side_has_the_other_drill_where_its_cue_is_another() -> None:
    assert drill("elbow_left", "low").title == "Wings" and drill("elbow_left", "high").title == "Hang, then up"
    assert drill("real_breath", "low") != drill("real_breath", "high")
    assert drill("pause", "low") == drill("pause", None), "a row without another side has one drill"
    two_sided = {key for key, known in HELP.items() if known.drill_low is not None}
    assert two_sided <= {key for key, words in WORDS.items() if words.cue_low is not None}, "no drill for a side that no cue speaks of"


@pytest.mark.parametrize(
    ("criterion", "side", "instrument", "position", "first"),
    [
        ("head_travel", "high", "alto_sax", "seated", ["fit.strap", "fit.neck", "fit.chair"]),
        ("head_travel", "high", "alto_sax", "standing", ["fit.strap", "fit.neck"]),
        ("head_travel", "high", "trumpet", "seated", ["fit.chair"]),
        ("trunk_inclination", "high", "tuba", "seated", ["fit.cushion", "fit.chair", "fit.stand"]),
        ("trunk_inclination", "low", "tuba", "seated", ["fit.cushion", "fit.chair"]),
        ("trunk_inclination", "low", "none", "auto", ["fit.chair"]),
        ("axis_level", "high", "flute", "seated", ["fit.head_joint", "fit.stand", "fit.turn"]),
        ("axis_level", "low", "flute", "standing", ["fit.head_joint", "fit.stand"]),
        ("arms_stay_up", "high", "clarinet", "seated", ["fit.thumb", "fit.stand"]),
        ("elbow_right", "low", "trumpet", "seated", ["fit.room"]),
        ("abdomen_leads", "low", "none", "lying", []),
        ("pause", "high", "flute", "seated", []),
    ],
)  # fmt: skip
def test_only_what_this_player_has_is_looked_at_in_its_order(criterion, side, instrument, position, first) -> None:
    assert equipment(criterion, side, instrument, position) == first


def test_a_value_that_fits_lies_where_such_a_thing_can_be() -> None:
    for key, part in PARTS.items():
        assert part.title and part.look
        if part.fit is None:
            assert not may_be(key, 1.0), "what has no value keeps none"
            continue
        fit = part.fit
        assert fit.low <= fit.usual <= fit.high and (fit.high - fit.low) / fit.step <= 60, "a few taps away"
        assert may_be(key, fit.low) and may_be(key, fit.high) and not may_be(key, fit.low - fit.step) and not may_be(key, fit.high + fit.step)
        assert len(key) <= 24, "as long as a key of the bench's values may be"
    assert not may_be("reed_tip_mm", 0.3) and not may_be("fit.nothing", 3)


def test_what_fits_is_told_in_the_order_of_the_table_and_other_values_are_left_out() -> None:
    told = on_record({"fit.stand": 96.0, "reed_tip_mm": 0.3, "fit.chair": 41.0})
    assert [(key, part.title, fit.unit, value) for key, part, fit, value in told] == [
        ("fit.chair", "Chair", "cm", 41.0), ("fit.stand", "Music stand", "cm", 96.0),
    ]  # fmt: skip


def test_the_criteria_are_those_of_the_rules() -> None:
    assert set(get_args(CriterionKey)) == set(HELP)
