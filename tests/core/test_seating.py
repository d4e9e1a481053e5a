"""How a band sits, and what a change makes of it."""

from hypothesis import given
from hypothesis import strategies as st

from brevin.core.kinds import INSTRUMENTS
from brevin.core.plan.seating import MOST_BESIDE, Sits, beside_each_other, changed, placed, seated, sits_of

BAND = {1: "flute", 2: "clarinet", 3: "trumpet", 4: "flute", 5: "horn", 6: "tuba"}


def test_a_band_that_nobody_seated_sits_by_its_instruments_the_loud_ones_behind() -> None:
    assert seated([], BAND) == ((1, 4, 5), (2,), (3, 6))
    assert seated([], {}) == ()


def test_a_large_section_is_parted_into_rows_that_can_be_drawn() -> None:
    rows = seated([], dict.fromkeys(range(25), "clarinet"))
    assert [len(row) for row in rows] == [8, 8, 9] and max(map(len, rows)) <= MOST_BESIDE
    clarinets, altos = dict.fromkeys(range(7), "clarinet"), dict.fromkeys(range(7, 11), "alto_sax")
    assert [len(row) for row in seated([], clarinets | altos)] == [7, 4], "no section is parted that has room in a row"


def test_who_comes_sits_down_with_their_section_and_the_others_stay() -> None:
    kept = ((3, 1), (2, 4), (6,))
    rows = seated(kept, BAND | {7: "flute"})
    assert rows == ((3, 1, 7, 5), (2, 4), (6,)), "and a horn that was forgotten behind the flutes"


def test_the_usual_seats_are_the_same_whether_all_come_at_once_or_one_after_the_other() -> None:
    rows: tuple[tuple[int, ...], ...] = ()
    for count in range(1, len(BAND) + 1):
        rows = seated(rows, dict(list(BAND.items())[:count]))
    assert rows == seated([], BAND)


def test_who_left_leaves_no_gap() -> None:
    assert seated(((1, 4, 5), (2,), (3, 6)), {1: "flute", 5: "horn", 6: "tuba"}) == ((1, 5), (6,))


def test_one_moves_and_everybody_else_moves_up() -> None:
    rows = ((1, 4, 5), (2,), (3, 6))
    assert placed(rows, {5: Sits(1, 1)}) == ((5, 1, 4), (2,), (3, 6))
    assert placed(rows, {1: Sits(1, 3)}) == ((4, 5, 1), (2,), (3, 6))
    assert placed(rows, {2: Sits(3, 2)}) == ((1, 4, 5), (3, 2, 6)), "a row that nobody is left in is gone"
    assert placed(rows, {6: Sits(4, 1)}) == ((1, 4, 5), (2,), (3,), (6,)), "a row of its own behind the last"


def test_a_list_with_every_chair_seats_the_band_so() -> None:
    wished = {1: Sits(2, 2), 2: Sits(2, 10), 3: Sits(1, 1), 4: Sits(1, 2), 5: Sits(5, 1), 6: Sits(2, 1)}
    assert changed(seated([], BAND), BAND, wished=wished) == ((3, 4), (6, 1, 2), (5,))


def test_who_plays_something_else_now_sits_with_the_others() -> None:
    rows = ((3, 6), (1, 4, 5), (2,))
    assert changed(rows, BAND | {4: "tuba"}, up=[4], wished={}) == ((3, 6, 4), (1, 5), (2,))


def test_both_chairs_are_drawn_the_new_one_behind_the_neighbour_who_stays() -> None:
    now, then = ((1, 4, 5), (2,), (3, 6)), ((-9, 1, 5), (2, 4), (3, -8, 6), (-7,))
    drawn = beside_each_other(now, then, {4, -7, -8, -9})
    assert drawn == (
        ((-9, True), (1, False), (4, False), (5, False)), ((2, False), (4, True)), ((3, False), (-8, True), (6, False)), ((-7, True),),
    )  # fmt: skip


KEPT = st.lists(st.lists(st.integers(0, 30), max_size=8), max_size=6)
HERE = st.dictionaries(st.integers(0, 30), st.sampled_from(INSTRUMENTS), max_size=20)


@given(KEPT, HERE, HERE, st.dictionaries(st.integers(0, 30), st.builds(Sits, st.integers(1, 9), st.integers(1, 9)), max_size=6))
def test_whatever_was_kept_and_asked_everybody_sits_once_and_every_chair_is_drawn(kept, here, later, wished) -> None:
    rows = seated(kept, here)
    assert sorted(one for row in rows for one in row) == sorted(here) and all(rows)
    assert placed(rows, {}) == rows == seated(rows, here) and list(sits_of(rows)) == [one for row in rows for one in row]
    up = [one for one in here if later.get(one) not in (None, here[one])]
    wished = {one: sits for one, sits in wished.items() if one in later}
    then = changed(rows, later, up=up, wished=wished)
    assert sorted(one for row in then for one in row) == sorted(later)
    come = {one for one in later if one not in here or one in up or one in wished}
    drawn = [one for row in beside_each_other(rows, then, come) for one in row]
    assert sorted(drawn) == sorted([(one, False) for one in here] + [(one, True) for one in come])
