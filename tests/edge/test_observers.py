"""Each observer alone, shown frames that were drawn for it."""

import threading
from collections.abc import Iterable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import numpy as np
import pytest

from brevin.core.errors import ClipUnusable
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body
from brevin.edge import film, loop, scale_card
from brevin.edge.observers.people import FIRST_POSES_S, OFTEN_S, SELDOM_S, SHAPED_S, People
from brevin.edge.observers.printed_card import PrintedCard
from brevin.edge.observers.reference import REFERENCE_LATEST_S, REFERENCE_LENGTH_S, reference_at
from brevin.edge.observers.trunks import TOGETHER, Trunk, Trunks, change_of, light_of
from brevin.edge.pose_model import Seen
from brevin.edge.video import VideoFrame
from tests.core.made import body
from tests.edge.test_following import body_film


class Frame(VideoFrame):
    """A drawn frame: grey, and the same in colour."""

    def rgb(self) -> np.ndarray:
        return np.repeat(self.luma[:, :, None], 3, axis=2)


def frame(t_s: float, grey: float = 120.0) -> Frame:
    return Frame(t_s=t_s, luma=np.full((540, 960), grey, np.uint8), shrink=1.0, source=None)


class Network:
    """Sees the same bodies in every picture, and counts how often it was asked."""

    def __init__(self, *bodies) -> None:
        self.bodies, self.asked = bodies, 0

    def see(self, rgb: np.ndarray, *, with_masks: bool) -> Seen:
        self.asked += 1
        return Seen(self.bodies, tuple(np.ones(rgb.shape[:2], np.float32) for _ in self.bodies) if with_masks else ())


class Close:
    """Finds nothing in a face or a hand, and counts how often it was asked."""

    people: People
    asked = 0

    def see(self, rgb: np.ndarray, body: Body) -> Body:
        self.asked += 1
        return body


def watched(network: Network, frames: Iterable[Frame], most_players: int = 3, closer: Close | None = None) -> tuple[People, Trunks]:
    with ThreadPoolExecutor(1) as pool, ThreadPoolExecutor(1) as beside:
        people = People(network, pool, beside, most_players=most_players, closer=closer)
        if closer is not None:
            closer.people = people
        trunks = Trunks(people)
        loop.run(frames, [people, trunks])
        people.finish()
        trunks.finish()
    return people, trunks


def test_key_points_come_often_while_something_moves_and_seldom_while_all_is_still() -> None:
    still, moving = Network(body()), Network(body())
    times = np.arange(0, 10, 0.04)
    watched(still, [frame(t) for t in times])
    people, _ = watched(moving, [frame(t, 120.0 + 60.0 * np.sin(9.0 * t) * (4.0 < t < 6.0)) for t in times])
    first = FIRST_POSES_S / OFTEN_S
    assert first + 8.4 / SELDOM_S - 3 <= still.asked <= first + 8.4 / SELDOM_S + 3
    inside = [s.t_s for s in people.samples if 4.2 < s.t_s < 5.8]
    assert max(np.diff(inside)) <= 2 * OFTEN_S + 0.05 and moving.asked > still.asked + 3
    assert all(s.light == pytest.approx(120.0, abs=61) for s in people.samples)


def test_nothing_waits_for_faces_and_hands_and_they_are_there_in_the_end() -> None:
    class Slow(Close):
        picked = threading.Event()

        def see(self, rgb: np.ndarray, body: Body) -> Body:
            assert self.picked.wait(10), "who is followed must be known without"
            return replace(super().see(rgb, body), hands=())

    def shown():
        for t in np.arange(0, 10, 0.04):
            yield frame(t)
            if close.people.picked:
                close.picked.set()

    close = Slow()
    people, _ = watched(Network(body()), shown(), closer=close)
    closely = [s.t_s for s in people.samples if s.bodies[0].hands is not None]
    assert close.asked == len(closely) < len(people.samples)
    assert closely[:3] == [s.t_s for s in people.samples][:3] and closely[-1] > 10 - 2 * SHAPED_S, "as often at first as key points"


def with_arm(t_s: float, x_px: int) -> Frame:
    """An empty room with a dark arm in it."""
    shown = frame(t_s)
    shown.luma[200:360, x_px : x_px + 90] = 40
    return shown


def test_an_arm_that_moves_is_looked_at_from_where_it_began_to_where_it_comes_to_rest() -> None:
    """A raise lasts less than the time between two looks at what is still."""
    network = Network(body())
    began_s, rests_s = 5.0, 5.9
    way = lambda t: 300 + int(400 * np.clip((t - began_s) / (rests_s - began_s), 0.0, 1.0))  # noqa: E731
    people, _ = watched(network, [with_arm(t, way(t)) for t in np.arange(0, 10, 0.04)])
    looks = np.array([s.t_s for s in people.samples])
    around = looks[(looks > began_s - 0.5) & (looks < rests_s + 0.5)]
    assert around[0] <= began_s <= around[1] and around[-1] >= rests_s and max(np.diff(around)) <= OFTEN_S + 0.05
    assert list(looks) == sorted(looks) and len(set(looks)) == len(looks)
    assert max(np.diff(looks[looks > rests_s + 0.5])) > 1.0, "and what is still again is looked at seldom"


def test_a_breath_at_the_edge_of_a_body_is_nothing_that_moves() -> None:
    still, breathing = Network(body()), Network(body())
    times = np.arange(0, 10, 0.04)
    watched(still, [with_arm(t, 400) for t in times])
    watched(breathing, [with_arm(t, 400 + round(3.0 * np.sin(2 * np.pi * t / 5.0))) for t in times])
    assert breathing.asked <= still.asked + 1


def test_a_foot_that_taps_asks_for_no_key_points() -> None:
    still, tapping, elsewhere = (Network(body(at_px=(480.0, 260.0))) for _ in range(3))
    x, y = still.bodies[0].points_px[lm.TOE_L].astype(int)

    def with_foot(t_s: float, x: int, up_px: int) -> Frame:
        shown = frame(t_s)
        shown.luma[y - 24 - up_px : y + 4 - up_px, x - 60 : x + 20] = 30
        return shown

    times = np.arange(0, 10, 0.04)
    taps = [int(14 * (t % 0.7 < 0.3)) for t in times]
    watched(still, [with_foot(t, x, 0) for t in times])
    watched(tapping, [with_foot(t, x, up) for t, up in zip(times, taps, strict=True)])
    watched(elsewhere, [with_foot(t, x - 300, up) for t, up in zip(times, taps, strict=True)])
    assert tapping.asked <= still.asked + 1 and elsewhere.asked > still.asked + 10


def test_everyone_who_can_be_followed_is_the_largest_first_and_each_trunk_is_seen_in_every_frame() -> None:
    large, small = body(at_px=(600.0, 320.0), trunk_px=170.0), body(at_px=(200.0, 320.0), trunk_px=110.0)
    frames = [frame(t) for t in np.arange(0, 5, 0.04)]
    people, trunks = watched(Network(small, large), frames)
    assert [round(p.trunk_px) for p in people.players] == [170, 110] and people.refused == ()
    assert [len(t.light) for t in trunks.trunks] == [len(t.texture.points().error) for t in trunks.trunks] == [len(frames)] * 2
    assert [len(t.front.contrast()) for t in trunks.trunks] == [len(frames)] * 2
    alone, _ = watched(Network(small, large), frames, most_players=1)
    assert len(alone.players) == 1


def test_a_toss_up_is_followed_and_said_and_nobody_ends_the_watching() -> None:
    frames = [frame(t) for t in np.arange(0, 4, 0.04)]
    people, _ = watched(Network(body(at_px=(250.0, 320.0)), body(at_px=(700.0, 320.0))), frames)
    assert [code for code, _ in people.refused] == ["player_unclear"] and len(people.players) == 2
    network = Network()
    with pytest.raises(ClipUnusable) as why:
        watched(network, frames)
    assert why.value.code == "no_person" and network.asked <= FIRST_POSES_S / OFTEN_S + 2, "it is said after the first seconds"
    with pytest.raises(ClipUnusable) as why:
        watched(Network(), [frame(t, 20.0) for t in np.arange(0, 4, 0.04)])
    assert why.value.code == "too_dark"


def test_the_printed_card_is_found_in_the_first_seconds_only() -> None:
    card, late = PrintedCard(), PrintedCard()
    room = np.full((540, 960), 150, np.uint8)
    drawn = scale_card.drawn(80)
    room[100 : 100 + len(drawn), 200 : 200 + len(drawn)] = drawn
    with_card = [Frame(t_s=t, luma=room, shrink=1.0, source=None) for t in np.arange(0, 3, 0.04)]
    loop.run(with_card, [card])
    loop.run([f for f in with_card if f.t_s > 2.0], [late])
    assert 5 <= len(card.cards) <= 10 and late.cards == []
    assert card.cards[0].mm_per_px == pytest.approx(scale_card.SIDE_MM / 80, rel=0.05)
    assert card.cards[0].corners_px.mean(axis=0) == pytest.approx([260.0, 160.0], abs=2.0)


def test_light_and_change_are_read_picture_by_picture() -> None:
    pictures = [np.full((film.HEIGHT, film.WIDTH), grey, np.uint8) for grey in (100, 130, 20)]
    assert [light_of(p) for p in pictures] == [(100, 0), (130, 0), (20, 0)]
    assert [change_of(a, b) for a, b in zip(pictures, pictures[1:], strict=False)] == [30, 110]


def test_pictures_wait_for_the_reference_only_and_what_is_followed_goes_on_across_batches() -> None:
    travel_px = 6.0 * np.sin(0.8 * np.arange(0, 14, 0.04)) ** 2
    pictures, mask, _ = body_film(travel_px, texture=True)
    identity = film.BodyMap(matrix=np.array([[1.0, 0.0, 0.0], [0.0, 1.0, 0.0]]))
    trunk = Trunk(mask, np.zeros((0, 2, 2)), lambda _: identity)
    most = 0
    for t_s, picture in zip(np.arange(0, 14, 0.04), pictures, strict=True):
        trunk.see(Frame(t_s=float(t_s), luma=picture, shrink=1.0, source=None))
        most = max(most, trunk.waiting) if t_s > REFERENCE_LATEST_S + REFERENCE_LENGTH_S else most
    trunk.finish()
    assert most <= TOGETHER and trunk.waiting == 0
    strips = trunk.front.strips()
    travel = np.median(strips.travel_pct[:, (strips.up_pct > 5) & (strips.up_pct < 90)], axis=1) * film.PX_PER_PCT
    assert len(travel) == len(travel_px) and travel - travel.mean() == pytest.approx(travel_px - travel_px.mean(), abs=0.3)
    behind = np.median(trunk.back.strips().travel_pct, axis=1)
    assert np.abs(behind - behind.mean()).max() < 0.15, "the cloth slides, the back stays"


def smear_of(values: np.ndarray):
    return lambda frames: float(np.std(values[frames]))


def test_the_reference_is_the_count_in_unless_the_outline_moves_in_it() -> None:
    t_s = np.arange(0, 20, 0.04)
    breathes = np.where(t_s < 4.0, 30.0 * np.sin(np.pi * t_s / 4.0), 0.0)  # slowly: from frame to frame nothing is to be seen of it
    for calm in (np.zeros(len(t_s)), 0.02 * breathes):  # at rest, and as little as a picture's own noise
        found = t_s[reference_at(t_s, smear_of(calm))]
        assert len(found) == 9 and found.min() >= 0.5 and found.max() <= 2.55
    found = t_s[reference_at(t_s, smear_of(breathes))]
    assert len(found) == 9 and found.min() >= 3.9, "after the breath"
    short = np.arange(0, 1.0, 0.04)
    assert short[reference_at(short, smear_of(short))].max() <= short[-1]


def test_a_clip_that_begins_in_the_middle_of_a_breath_is_followed_as_well() -> None:
    t_s = np.arange(0, 16, 0.04)
    travel_px = np.where(t_s < 2.7, 8.0 * np.sin(np.pi * t_s / 2.7) ** 2, 8.0 * np.sin(np.pi * np.clip(t_s - 8.0, 0.0, 4.0) / 4.0) ** 2)
    pictures, mask, _ = body_film(travel_px, texture=True)
    identity = film.BodyMap(matrix=np.array([[1.0, 0.0, 0.0], [0.0, 1.0, 0.0]]))
    trunk = Trunk(mask, np.zeros((0, 2, 2)), lambda _: identity)
    for at_s, picture in zip(t_s, pictures, strict=True):
        trunk.see(Frame(t_s=float(at_s), luma=picture, shrink=1.0, source=None))
    trunk.finish()
    strips = trunk.front.strips()
    belly = (strips.up_pct > 10) & (strips.up_pct < 60)
    assert np.median(strips.misfit[:, belly]) < 0.1, "as in a clip that begins at rest"
    travel = np.median(strips.travel_pct[:, belly], axis=1) * film.PX_PER_PCT
    assert np.ptp(travel) == pytest.approx(8.0, abs=0.4)
