"""The cards a programme begins with are safe, in order, and each a step from the one before."""

from datetime import UTC, datetime, timedelta
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.errors import InvalidInput
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check, from_document, to_document
from brevin.core.plan.ladder import starter
from brevin.core.plan.limits import MOST_IN_A_ROW, REST_S, Run, check_limits, joined

NOW = datetime(2026, 11, 20, 9, 0, tzinfo=UTC)


def test_the_usual_ladder_is_safe_and_goes_upward() -> None:
    cards = starter()
    for _, _, check in cards:
        assert check.card is not None
        if check.counts_breaths:
            check_limits(check.card, empty_allowed=False)
    assert [check.name for _, _, check in cards if not check.counts_breaths] == ["hold 2-0-6-2@60x3"], "and a hold to begin with"
    assert [rung for rung, _, _ in cards] == sorted(rung for rung, _, _ in cards)
    titles = {rung: title for rung, title, _ in cards}
    assert len(set(titles.values())) == len(titles), "every rung has a name of its own"


def test_the_first_rung_is_the_shortest_and_no_inhale_grows_on_the_quick_ones() -> None:
    breath_s = {rung: max(c.card.cycle_beats * c.card.beat_s for r, _, c in starter() if r == rung) for rung in range(1, 6)}
    assert breath_s[1] == min(breath_s.values())
    quick = [check.card.inhale_beats for rung, _, check in starter() if rung >= 4 and check.counts_breaths]
    assert all(later <= earlier for earlier, later in pairwise(quick))


@pytest.mark.parametrize(
    ("text", "empty_allowed", "code"),
    [(f"3-0-4@72x{MOST_IN_A_ROW + 1}", True, "too_many_in_a_row"), ("3-0-4-2@72x3", False, "empty_off"), ("4-0-*@72x4", True, "too_many_efforts")],
)
def test_what_is_too_much_is_refused_by_its_reason(text: str, empty_allowed: bool, code: str) -> None:
    with pytest.raises(InvalidInput, match=code):
        check_limits(parse(text), empty_allowed=empty_allowed)


@pytest.mark.parametrize("text", ["4-0-*@72x3", "3-0-4-2@72x3"])
@pytest.mark.parametrize("position", ["standing", "lying", "auto"])
def test_longest_tries_and_staying_empty_are_done_seated(text: str, position) -> None:
    with pytest.raises(InvalidInput, match="only_seated"):
        check_limits(parse(text), empty_allowed=True, position=position)
    check_limits(parse("3-0-4@72x3"), empty_allowed=True, position=position)


def test_what_may_be_asked_is_taken() -> None:
    check_limits(parse(f"3-0-4@72x{MOST_IN_A_ROW}"), empty_allowed=False)
    check_limits(parse("3-0-4-2@72x3"), empty_allowed=True)
    check_limits(parse("4-0-*@72x3"), empty_allowed=False)


@pytest.mark.parametrize("words", [["one", "two", "ready", "in"], [" spaced ", "in"], []])
def test_words_of_the_count_in_come_back_with_the_card(words: list[str]) -> None:
    check = from_document({"card": "3-0-4@72x3", "countin_words": words, "asks": "air"})
    assert check.countin_words == tuple(word.strip() for word in words) and from_document(to_document(check)) == check


@pytest.mark.parametrize("words", [["x"] * 10, ["far too long a word"], [""], "one two", [1, 2]])
def test_words_that_cannot_be_said_on_beats_are_refused(words: object) -> None:
    with pytest.raises(InvalidInput, match="bad_check"):
        from_document({"card": "3-0-4@72x3", "countin_words": words})


def test_a_card_from_before_there_were_words_keeps_its_document() -> None:
    assert set(to_document(Check(card=parse("3-0-4@72x3")))) == {"kind", "card", "view", "position", "instrument", "with_instrument"}


@given(gap_s=st.floats(0, 90), breaths=st.integers(1, 6))
def test_runs_are_one_where_there_was_no_rest_between_them(gap_s: float, breaths: int) -> None:
    first = Run(NOW, breaths, 10.0)
    second = Run(NOW + timedelta(seconds=gap_s + 12.0), 2, 12.0)
    both = joined(first, second)
    assert both.ended_at == second.ended_at and joined(None, second) == second
    if abs(gap_s - REST_S) > 1e-3:
        assert both.breaths == (breaths + 2 if gap_s < REST_S else 2)
        assert both.lasted_s == pytest.approx(10.0 + gap_s + 12.0 if gap_s < REST_S else 12.0)
