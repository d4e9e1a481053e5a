import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.errors import InvalidInput
from brevin.core.plan.card import CountCard, parse, short_name

beats = st.sampled_from([0.5, 1.0, 1.5, 2.0, 3.0, 4.0, 6.0, 8.0])
cards = st.builds(
    CountCard, inhale_beats=beats, pause_beats=st.sampled_from([0.0, 0.5, 2.0]), exhale_beats=st.one_of(beats, st.none()),
    empty_beats=st.sampled_from([0.0, 1.0, 2.5]), tempo_bpm=st.integers(40, 160).map(float), cycles=st.integers(1, 12),
    countin_beats=st.sampled_from([2.0, 4.0, 8.0]),
)  # fmt: skip


@given(cards)
def test_text_form_and_card_are_the_same_thing(card: CountCard) -> None:
    assert parse(short_name(card)) == card


def test_parts_of_a_card() -> None:
    card = parse("0.5-0-8@80x6+2")
    assert (card.inhale_beats, card.pause_beats, card.exhale_beats, card.tempo_bpm, card.cycles, card.countin_beats) == (0.5, 0, 8, 80, 6, 2)
    assert parse("3-0-*@72x1").exhale_beats is None


@pytest.mark.parametrize("text", ["", "3-0-7", "3-0-7@72", "3-0-7@72x0", "0-0-7@72x2", "3-0-7@12x2", "3-0-7@900x2", "3-0-7@72x99", "a-b-c@dxe", "3--7@72x2"])
def test_what_is_no_card_is_refused_with_what_is_wanted(text: str) -> None:
    with pytest.raises(InvalidInput) as refused:
        parse(text)
    assert refused.value.code == "bad_card"
    assert refused.value.facts["wanted"]


@given(cards, st.integers(0, 5))
def test_due_times_follow_one_another(card: CountCard, index: int) -> None:
    inhale, exhale = card.inhale_due_beats(index), card.exhale_due_beats(index)
    if inhale is not None and exhale is not None:
        assert exhale - inhale == pytest.approx(card.inhale_beats + card.pause_beats)
    if card.exhale_beats is not None:
        assert card.inhale_due_beats(index + 1) - card.inhale_due_beats(index) == pytest.approx(card.cycle_beats)
