"""The ways to say a fault: the usual one first, each another, short, and none asking for what could hurt."""

import pytest

from brevin.core.verdict.cues import LOW_OTHERS, OTHERS, cues
from brevin.core.verdict.rules import CRITERION_KEYS
from brevin.core.verdict.wording import cue_sentence
from brevin.core.verdict.words import CRITERIA
from tests.core.test_help import NEVER

BOTH = [(criterion, side) for criterion in CRITERION_KEYS for side in ("low", "high")]


@pytest.mark.parametrize(("criterion", "side"), BOTH)
def test_every_fault_can_be_said_in_two_ways_or_more_the_usual_one_first(criterion, side) -> None:
    ways = cues(criterion, side)
    assert ways[0] == cue_sentence(criterion, side) and 2 <= len(ways) == len(set(ways)) <= 5
    for way in ways[1:]:
        assert way[0].isupper() and way.endswith(".") and len(way.split()) <= 18, "one sentence for a ten-year-old"
        assert not [word for word in NEVER if word in way.lower()]


def test_other_words_for_the_other_side_are_there_where_the_cue_has_another_side() -> None:
    assert set(OTHERS) == set(CRITERION_KEYS)
    assert set(LOW_OTHERS) == {key for key, words in CRITERIA.items() if words.cue_low is not None}
    assert cues("with_count", None) == cues("with_count", "high") != cues("with_count", "low")
