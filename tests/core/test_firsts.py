"""First notes: what to check first, when the next one opens, when lips and head rest."""

from datetime import date, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.errors import InvalidInput
from brevin.core.handling.cards import OUTCOMES, Amount, Gate
from brevin.core.handling.care import UNKNOWN, Passport, asked_back, days_left, due, fitted
from brevin.core.handling.firsts import ALONE, GateNow, Try, checks_after, gate_now, lips_rest_s, opened, rungs
from brevin.core.handling.ways import ways
from tests.shipped import CONTENT

CARDS = CONTENT.cards
GATE = Gate(3, 5, on=True)
NOON = datetime(2026, 9, 1, 12)
SOUNDS = st.lists(st.sampled_from(OUTCOMES), max_size=20)


@pytest.mark.parametrize("instrument", list(CARDS))
@pytest.mark.parametrize("outcome", [one for one in OUTCOMES if one != "note"])
def test_the_instrument_is_looked_at_before_the_child(instrument, outcome) -> None:
    groups = [one.group for one in checks_after(CARDS[instrument], outcome, {})]
    assert groups == sorted(groups, key=["instrument", "hands", "mouth", "air"].index)
    assert groups[0] == "instrument" and {"mouth", "air"} <= set(groups)


def test_what_most_often_was_the_reason_here_comes_first_in_its_group() -> None:
    usual = [one.name for one in checks_after(CARDS["clarinet"], "squeak", {})]
    here = checks_after(CARDS["clarinet"], "squeak", {"bridge": 4, "air": 9})
    assert usual[:2] == ["reed", "bridge"] and [one.name for one in here][:2] == ["bridge", "reed"]
    assert here[-1].name == "air" and here[-1].times == 9, "the child's air comes last, however often it was that"


def test_three_good_of_five_open_and_stay_open() -> None:
    assert not gate_now(GATE, ["note", "squeak", "note"]).opened
    assert gate_now(GATE, ["note", "squeak", "note", "thin", "note"]) == GateNow(3, 3, 5, opened=True, stands=True)
    assert gate_now(GATE, ["note"] * 3 + ["nothing"] * 9).opened
    assert not gate_now(GATE, ["note", "thin", "thin", "thin", "thin", "note", "note"]).opened, "the first good one is six tries ago"
    assert gate_now(Gate(3, 5, on=False), []).opened


@given(SOUNDS, SOUNDS)
def test_a_gate_never_shuts_again(before, later) -> None:
    assert gate_now(GATE, before + later).opened or not gate_now(GATE, before).opened
    assert gate_now(GATE, before).good <= 5


def test_any_note_that_counts_as_the_first_opens_the_others() -> None:
    card = CARDS["trumpet"]
    keys = rungs(card, alone=True)
    assert keys == (ALONE, "C4", "D4", "E4", "F4", "G4")

    def may(*open_ones: str) -> list[str]:
        gates = {key: GateNow(0, 3, 5, opened=key in open_ones, stands=True) for key in keys}
        return [key for key, able in opened(keys, card.accepts, gates).items() if able]

    assert may() == [ALONE] and may(ALONE) == [ALONE, "C4", "G4"]
    assert may(ALONE, "G4") == [ALONE, "C4", "D4", "G4"] and may(ALONE, "G4", "D4") == [ALONE, "C4", "D4", "E4", "G4"]


def test_without_the_part_alone_the_notes_are_open() -> None:
    assert rungs(CARDS["tuba"], alone=False)[0] == "B flat 1"


def test_the_way_is_the_programme_s_own_else_what_it_teaches_else_the_usual() -> None:
    card = CARDS["clarinet"]
    assert ways(card, {}, {})["first_sound"] == "alone" and ways(card, {}, {})["note_start"] == "breath"
    taught = ways(card, {}, {"first_sounds": "whole", "tongue": "at_once"})
    assert (taught["first_sound"], taught["note_start"], taught["order"]) == ("whole", "tongue", "bottom_up")
    assert ways(card, {"first_sound": "alone", "order": "sideways"}, {"first_sounds": "whole"})["first_sound"] == "alone"
    assert ways(card, {"order": "sideways"}, {})["order"] == "bottom_up"
    assert ways(CARDS["tuba"], {}, {"first_sounds": "one_part"})["first_sound"] == "whole", "the large brass never waits"


def tries(rung: str, *seconds_ago: float) -> list[Try]:
    return [Try(rung, "thin", NOON - timedelta(seconds=one)) for one in seconds_ago]


def test_ten_tries_and_the_lips_rest_two_minutes() -> None:
    assert lips_rest_s(tries("C4", *range(10, 100, 10)), at=NOON) == 0
    assert lips_rest_s(tries("C4", *range(10, 110, 10)), at=NOON) == pytest.approx(110)
    assert lips_rest_s([*tries("C4", *range(200, 300, 20)), *tries("C4", *range(10, 60, 10))], at=NOON) == 0, "between them there was a rest"


def test_days_until_it_is_due_again() -> None:
    oil = next(task for task in CARDS["trumpet"].care if task.key == "oil")
    water = next(task for task in CARDS["trumpet"].care if task.key == "water")
    today = date(2026, 9, 10)
    assert days_left(oil, date(2026, 9, 9), today) == 2 and days_left(oil, date(2026, 9, 5), today) == -2 and days_left(oil, None, today) is None
    assert days_left(water, today, today) == 1 and days_left(water, date(2026, 9, 9), today) == 0
    assert days_left(oil, date(2026, 9, 5), today, every_days=7) == 2
    assert due(None, every_days=7) and not due(None, every_days=30) and due(0, every_days=30) and due(-3, every_days=30) and not due(1, every_days=3)


def test_a_card_adapts_to_its_instrument() -> None:
    horn, tuba = CARDS["horn"], CARDS["tuba"]
    assert "bell" in [step.key for step in fitted(horn, UNKNOWN).steps]
    fixed = fitted(horn, Passport({"bell_off": False}))
    assert not {"bell", "bell_off"} & {step.key for step in fixed.steps} and "bell" not in fixed.use
    assert "rotor_oil" not in [task.key for task in fitted(tuba, UNKNOWN).care]
    assert "rotor_oil" in [task.key for task in fitted(tuba, Passport({"rotors": True})).care]
    shown = fitted(CARDS["trumpet"], Passport({}, frozenset({"top caps"})))
    assert {part.name: part.rule for part in shown.parts}["top caps"] == "yours"
    assert fitted(fixed, Passport({"bell_off": False})) == fixed


def test_a_value_out_of_its_range_is_asked_back() -> None:
    reed = Amount("reed_tip_mm", "a hair", 0.3, 0.2, 0.5, "mm")
    assert not asked_back(reed, 0.2) and asked_back(reed, 0.6) and asked_back(reed, -1)
    with pytest.raises(InvalidInput, match="bad_value"):
        asked_back(reed, 1e9)
