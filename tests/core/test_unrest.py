"""How far a breath stands out of the unrest of what shows it: said, and from where on it is not readable."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core.breath.breaths import WHOLE_PX, breaths, inhales_of
from brevin.core.breath.turns import Turn
from brevin.core.breath.unrest import CALM, unrest
from brevin.core.breath_gate import FAINT_MOST, FAINT_NOTED, breath_advice, unreadable_breath
from brevin.core.evidence import Followed, evidence
from brevin.core.gate import reason
from brevin.core.synth import Cycle
from tests.core.made import LOW, sighting

LIFTED = Cycle(abdomen=0.6, chest=2.4, shoulder=3.0, abdomen_window=(0.5, 1.0), chest_window=(0.0, 0.85))


def followed(cycle: Cycle = LOW, *, unquiet: float = 0.0, region: str = "abdomen", **made: bool) -> Followed:
    """Three such breaths of which one region shakes four times a second, by so much."""
    [who] = evidence(sighting("3-0-4@72x3", [cycle] * 3, **made)[0]).players
    shaken = getattr(who.traces, region) + unquiet * np.sqrt(2.0) * np.sin(2 * np.pi * 4.0 * who.traces.t_s)
    return replace(who, traces=replace(who.traces, **{region: shaken}))


def codes(who: Followed, *stops: str) -> tuple[list[str], list[str]]:
    """What stops the breath, and what is advice."""
    turns = breaths(who.traces)
    stopped = unreadable_breath(who, turns, [reason(code) for code in stops], lambda: False)
    return [one.code for one in stopped], [one.code for one in breath_advice(who, turns, lambda: False)]


def test_a_breath_that_is_seen_well_stands_out() -> None:
    who = followed()
    assert unrest(who.traces, inhales_of(breaths(who.traces))) < 0.5 * FAINT_NOTED and codes(who) == ([], [])


@pytest.mark.parametrize(("share", "found"), [(0.055, ([], ["breath_faint"])), (0.1, (["breath_faint"], []))])
def test_unrest_is_a_share_of_the_breath_said_first_and_refused_later(share: float, found: tuple[list[str], list[str]]) -> None:
    size = LOW.abdomen + LOW.chest
    who = followed(unquiet=share * size / 1.48)  # a sine has its half beyond what half of its values stay within
    measured = unrest(who.traces, inhales_of(breaths(who.traces)))
    assert measured == pytest.approx(share, rel=0.25) and codes(who) == found
    twice = followed(replace(LOW, abdomen=2 * LOW.abdomen, chest=2 * LOW.chest), unquiet=share * size / 1.48)
    assert unrest(twice.traces, inhales_of(breaths(twice.traces))) < 0.65 * measured, "the same unrest under a fuller breath"


def test_turns_are_less_sure_by_as_much_as_there_is_more_unrest_than_in_a_calm_clip() -> None:
    size = LOW.abdomen + LOW.chest
    calm, unquiet = (breaths(followed(unquiet=share * size / 1.48).traces) for share in (0.0, 0.06))
    shares = [unrest(followed(unquiet=share * size / 1.48).traces, inhales_of(turns)) for share, turns in ((0.0, calm), (0.06, unquiet))]
    assert shares[0] < CALM < shares[1]
    for one, other in zip(calm, unquiet, strict=True):
        assert other.exhale_end.half_width_s > 0.95 * shares[1] / CALM * 0.1 > one.inhale_start.half_width_s >= 0.1, "the least width there is, and times that"
    cut = replace(calm[0], exhale_end=None)
    assert cut.less_sure(2.0).exhale_end is None and cut.less_sure(2.0).inhale_end.half_width_s == 2.0 * cut.inhale_end.half_width_s
    assert cut.inhale_s is None and calm[0].inhale_s == (calm[0].inhale_start.t_s, calm[0].inhale_end.t_s)


def test_what_the_pictures_say_already_goes_before_it() -> None:
    assert codes(followed(unquiet=1.0), "too_blurred") == ([], [])


def test_where_the_shoulders_tell_the_breath_theirs_counts() -> None:
    quiet = followed(LIFTED, chest_hidden=True)
    shaken = followed(LIFTED, unquiet=0.08, chest_hidden=True)
    both = [unrest(who.traces, inhales_of(breaths(who.traces))) for who in (quiet, shaken)]
    assert both[1] == pytest.approx(both[0], rel=0.3) and max(both) < FAINT_MOST, "the belly's hardly moves, and shakes"


def test_nothing_is_said_of_what_is_not_there() -> None:
    who = followed()
    assert unrest(who.traces, []) is None
    unseen = replace(who.traces, seen=who.traces.seen | {"abdomen": False})
    assert unrest(unseen, inhales_of(breaths(who.traces))) is None


def test_turns_and_the_lag_are_less_sure_in_a_picture_that_shows_the_trunk_smaller() -> None:
    """What moves is followed to a part of a pixel, of however many the trunk has; where that was not kept nothing is said of it."""
    found = followed().traces
    whole, half, unknown = (breaths(replace(found, trunk_px=px)) for px in (2 * WHOLE_PX, 0.5 * WHOLE_PX, 0.0))
    assert unknown == whole, "and a larger one is no surer"
    for one, other in zip(whole, half, strict=True):
        assert other.times == 2 * one.times
        assert other.inhale_start == Turn(one.inhale_start.t_s, 2 * one.inhale_start.half_width_s)
        assert other.exhale_end.half_width_s == 2 * one.exhale_end.half_width_s
