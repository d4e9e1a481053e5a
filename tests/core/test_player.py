import pytest

from brevin.core.errors import ClipUnusable
from brevin.core.pose.player import choose
from brevin.core.pose.view import position_of, view_of
from brevin.core.track import Body, PoseSample
from tests.core.made import body


def samples(*bodies: Body, count: int = 6) -> list[PoseSample]:
    return [PoseSample(t_s=0.2 * i, bodies=tuple(bodies)) for i in range(count)]


def refused(found: list[PoseSample]) -> str:
    with pytest.raises(ClipUnusable) as why:
        choose(found, width_px=960, height_px=540)
    return why.value.code


@pytest.mark.parametrize("view", ["side-left", "side-right", "front", "three-quarter"])
@pytest.mark.parametrize("position", ["seated", "standing"])
def test_view_and_position_of_a_body(view: str, position: str) -> None:
    assert view_of([body(view=view, position=position)]) == view
    assert position_of([body(view=view, position=position)]) == position


def test_lying_is_seen_by_the_trunks_axis() -> None:
    assert position_of([body(position="lying")]) == "lying"


def test_the_largest_is_read_and_others_are_counted() -> None:
    small = body(at_px=(800, 300), trunk_px=90)
    player = choose(samples(small, body()), width_px=960, height_px=540)
    assert player.trunk_px == pytest.approx(160, rel=0.01)
    assert player.others == 1 and set(player.chosen) == {1}


def test_the_player_keeps_being_the_same_person_when_the_order_changes() -> None:
    small, large = body(at_px=(800, 300), trunk_px=90), body()
    mixed = [PoseSample(0.2 * i, (small, large) if i % 2 else (large, small)) for i in range(6)]
    assert choose(mixed, width_px=960, height_px=540).chosen == (0, 1, 0, 1, 0, 1)


def test_nobody_two_alike_overlap_and_cut_off_are_told_apart() -> None:
    assert refused(samples(count=6)) == "no_person"
    assert refused(samples(body(at_px=(250, 320)), body(at_px=(750, 320), trunk_px=155))) == "player_unclear"
    assert refused(samples(body(), body(at_px=(500, 330), trunk_px=120))) == "people_overlap"
    assert refused(samples(body(at_px=(480, 600)))) == "trunk_cut_off"
    assert refused(samples(body(trunk_px=40))) == "too_far"


def test_somebody_who_walks_past_is_looked_at_often_and_yet_was_there_for_a_moment_only() -> None:
    calm = [PoseSample(1.5 * i, (body(),)) for i in range(15)]
    past = [PoseSample(6.1 + 0.2 * i, (body(), body(at_px=(330 + 30 * i, 330), trunk_px=150))) for i in range(12)]
    found = sorted([*calm, *past], key=lambda sample: sample.t_s)
    assert len(past) > 0.4 * len(found) and choose(found, width_px=960, height_px=540).chosen == (0,) * len(found)
    stays = [*calm[:9], *(PoseSample(13.5 + 0.2 * i, past[5].bodies) for i in range(60))]
    assert refused(stays) == "people_overlap"


@pytest.mark.parametrize(("view", "sign"), [("side-right", 1), ("side-left", -1)])
def test_forward_is_toward_the_face(view: str, sign: int) -> None:
    player = choose(samples(body(view=view)), width_px=960, height_px=540)
    assert sign * player.forward[0] > 0.9 and player.up[1] < -0.9
