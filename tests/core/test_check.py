"""A check's document: parsed in one place, the same there and back, and refused in words."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.errors import InvalidInput
from brevin.core.kinds import INSTRUMENTS
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check, from_document, to_document


@given(
    st.sampled_from(["counted_breathing", "hold", "posture", "drill", "tone"]), st.sampled_from([None, "4-0-4@72x3", "0.5-0-8-1@80x6+2", "4-0-*@60x1"]),
    st.sampled_from(["side", "front", "three-quarter", "auto"]), st.sampled_from(["seated", "standing", "lying", "auto"]), st.sampled_from(INSTRUMENTS),
    st.booleans(),
)  # fmt: skip
def test_a_check_comes_back_from_its_document(kind, card, view, position, instrument, with_instrument) -> None:
    check = Check(kind, parse(card) if card else None, view, position, instrument, with_instrument)
    assert from_document(json.loads(json.dumps(to_document(check)))) == check
    assert check.name == (kind if card is None else card if kind == "counted_breathing" else f"{kind} {card}")


def test_the_count_of_a_hold_asks_nothing_of_the_breath() -> None:
    hold = from_document({"kind": "hold", "card": "2-0-6-2@60x3", "sets": ["1-0-6-2@60x3"]})
    assert not hold.counts_breaths and hold.judged == Check(kind="hold") and hold.held
    breath = from_document({"card": "4-0-4@72x3"})
    assert breath.counts_breaths and breath.judged == breath


def test_a_full_card_comes_back_and_what_it_does_not_say_leaves_older_documents_as_they_were() -> None:
    full = {"kind": "drill", "card": "3-0-7@72x4", "position": "standing", "with_instrument": True, "taught": {"breathing_out": "small_pushes"}}
    played = {"notes": " concert B flat ", "dynamic": "soft", "articulation": "air"}
    check = from_document(full | played)
    assert (check.name, check.counts_breaths, check.notes) == ("drill 3-0-7@72x4", True, "concert B flat")
    assert from_document(json.loads(json.dumps(to_document(check)))) == check
    assert not {"taught", "notes", "dynamic", "articulation"} & set(to_document(Check()))


def test_what_is_left_out_has_its_usual_value() -> None:
    assert from_document({}) == Check() and from_document({"card": "4-0-4@72x3"}).card.cycles == 3


@pytest.mark.parametrize(
    "document",
    [
        {"kind": "kazoo"},
        {"view": "above"},
        {"position": 3},
        {"instrument": "kazoo"},
        {"with_instrument": "yes"},
        {"card": 4},
        {"card": "4-4"},
        {"x": 1},
        {"kind": "hold", "card": "2-0-6@60x2", "contrast": "high_low"},
        {"taught": ["between"]},
        {"taught": {"between": "never"}},
        {"taught": {"practice": "every_day"}},
        {"notes": "n" * 41},
        {"dynamic": "thunderous"},
    ],
)
def test_what_is_no_check_is_refused(document: dict) -> None:
    with pytest.raises(InvalidInput):
        from_document(document)
