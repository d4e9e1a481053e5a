"""Rules in layers: what each layer may change, who wins, and what the fingerprint holds."""

import json
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.breath.patterns import Inhale, pattern_of
from brevin.core.errors import InvalidInput
from brevin.core.verdict.rules import CRITERION_KEYS, LIMITS, Rules, from_document, layer_from, resolve, to_document

RULES = Rules()


def test_a_profile_changes_a_limit_by_name_and_its_fingerprint() -> None:
    strict = resolve([layer_from({"profile_id": "strict", "limits": {"pattern.share_low": 0.6}})])
    assert pattern_of(Inhale(2.6, 1.4, 0.2, 0.3), lag_half_width_s=0.05, rules=strict) == "low"
    assert strict.profile_id == "strict" and strict.thresholds_id != RULES.thresholds_id
    assert resolve([layer_from({"profile_id": "same", "limits": {}})]).thresholds_id == RULES.thresholds_id


@pytest.mark.parametrize(
    "document",
    [
        {"limits": {"no.such": 1}}, {"limits": {"pattern.lift": "high"}}, {"limits": {"pattern.lift": True}}, {"limits": []},
        {"limits": {"pattern.lift": math.nan}}, {"limits": {"pattern.lift": math.inf}}, {"off": ["abdomen_leeds"]}, {"off": "pause"}, {"exempt": ["no.such"]},
        {"off": [3]},
    ],
)  # fmt: skip
def test_a_layer_that_is_none_is_refused(document: dict) -> None:
    with pytest.raises(InvalidInput):
        layer_from(document)


def test_a_later_layer_wins_whatever_order_they_come_in_and_says_that_it_did() -> None:
    programme = layer_from({"profile_id": "ours", "limits": {"inclination.work_high": 12, "pause.steady_s": 0.3}, "off": ["even_exhale"]})
    instrument = layer_from({"limits": {"inclination.work_high": 18}}, name="instrument")
    student = layer_from({"exempt": ["trunk_inclination"]}, name="student")
    card = layer_from({"limits": {"pause.steady_s": 0.5}, "off": ["even_intake"]}, name="card")
    layers = [card, student, instrument, programme]
    found = resolve(layers)
    assert found == resolve(layers[::-1])
    assert (found.limit("inclination.work_high"), found.limit("pause.steady_s")) == (18, 0.5)
    assert found.set_by == {"inclination.work_high": "instrument", "pause.steady_s": "card"}
    assert (found.off, found.exempt) == ({"even_exhale", "even_intake"}, {"trunk_inclination", "keeps_tall", "back_rounding"}) and found.profile_id == "ours"


@given(st.sets(st.sampled_from(CRITERION_KEYS), max_size=3), st.sets(st.sampled_from(CRITERION_KEYS), max_size=3))
def test_rules_come_back_from_what_is_stored_and_what_is_switched_off_is_in_the_fingerprint(off: set, exempt: set) -> None:
    found = resolve(
        [layer_from({"profile_id": "a", "limits": {"pattern.lift": 2.5}, "off": sorted(off)}), layer_from({"exempt": sorted(exempt)}, name="student")]
    )
    assert from_document(json.loads(json.dumps(to_document(found)))) == found
    plain = resolve([layer_from({"profile_id": "a", "limits": {"pattern.lift": 2.5}})])
    assert (found.thresholds_id == plain.thresholds_id) == (not off and not exempt)


def test_every_limit_has_unit_source_and_meaning() -> None:
    assert all(limit.unit and limit.source and limit.means for limit in LIMITS.values())
