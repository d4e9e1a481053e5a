"""Notes on their staff, what they sound like, and what hands can do."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.errors import InvalidInput
from brevin.core.handling.fingering import in_words, play
from brevin.core.handling.notes import clef_fits, ledger_lines, lower, note, staff_steps, where_on_staff
from tests.shipped import CONTENT

CARDS = CONTENT.cards
NAMES = st.builds("{}{}".format, st.sampled_from(["C", "D", "E", "F", "G", "A", "B", "B flat ", "E flat ", "F sharp "]), st.integers(1, 6))


@pytest.mark.parametrize(("name", "midi", "hz"), [("C4", 60, 261.63), ("A4", 69, 440.0), ("B flat 1", 34, 58.27), ("C sharp 5", 73, 554.37)])
def test_a_note_has_its_place_among_the_keys(name: str, midi: int, hz: float) -> None:
    assert note(name).midi == midi and note(name).hz == pytest.approx(hz, abs=0.01)


@pytest.mark.parametrize("wrong", ["H4", "B", "Bflat4", "b4", "C 4", "C4 ", ""])
def test_what_is_no_note_is_refused(wrong: str) -> None:
    with pytest.raises(InvalidInput, match="bad_note"):
        note(wrong)


@given(NAMES, st.integers(0, 24))
def test_what_sounds_lower_is_lower_by_as_much(name: str, semitones: int) -> None:
    assert lower(note(name), semitones).midi == note(name).midi - semitones
    assert lower(note(name), 12).place == note(name).place - 7 or semitones >= 0


@pytest.mark.parametrize(
    ("name", "clef", "where"),
    [
        ("E4", "treble", "on the first line"), ("G4", "treble", "on the second line"), ("C4", "treble", "below the staff, on a short line"),
        ("D4", "treble", "just below the staff"), ("B flat 2", "bass", "on the second line"), ("F3", "bass", "on the fourth line"),
        ("A4", "treble", "in the second space"), ("B flat 1", "bass", "below the staff, beyond 2 short lines"), ("G5", "treble", "just above the staff"),
    ],
)  # fmt: skip
def test_a_note_stands_where_players_say(name: str, clef, where: str) -> None:
    assert where_on_staff(staff_steps(note(name), clef)) == where


@given(st.integers(-12, 22))
def test_short_lines_grow_with_the_distance(steps: int) -> None:
    assert ledger_lines(steps) == (0 if -1 <= steps <= 9 else ((steps - 8) // 2 if steps > 8 else -steps // 2))


def test_a_clef_that_nobody_reads_there_does_not_fit() -> None:
    assert clef_fits("bass", "trombone", [note("B flat 2")]) and not clef_fits("treble", "trombone", [note("B flat 2")])
    assert not clef_fits("treble", "flute", [note("B1")]), "seven lines below the staff"


@pytest.mark.parametrize(
    ("instrument", "written", "pressed", "words"),
    [
        ("flute", "T·23|123", ("LT", "L2", "L3", "R1", "R2", "R3"), "left thumb 2 3, right 1 2 3"), ("clarinet", "open", (), "nothing pressed"),
        ("oboe", "12", ("L1", "L2"), "left 1 2"), ("trumpet", "1-3", ("R1", "R3"), "valves 1 and 3"), ("horn", "open", (), "nothing pressed"),
        ("alto_sax", "2", ("L2",), "left 2"),
    ],
)  # fmt: skip
def test_a_fingering_says_which_fingers_press(instrument, written: str, pressed: tuple[str, ...], words: str) -> None:
    found = play(CARDS[instrument], written)
    assert found.fingers == pressed and in_words(CARDS[instrument], found) == words


def test_a_slide_has_positions() -> None:
    assert play(CARDS["trombone"], "6").position == 6 and in_words(CARDS["trombone"], play(CARDS["trombone"], "6")) == "sixth position"


@pytest.mark.parametrize(
    ("instrument", "written"),
    [
        ("flute", "T5"), ("flute", "T11"), ("flute", "21"), ("flute", "1|T2"), ("flute", "1|2|3"), ("flute", ""), ("flute", "|"), ("oboe", "T1"),
        ("alto_sax", "T1"), ("trumpet", "4"), ("trumpet", "1-1"), ("trumpet", "3-1"), ("trumpet", "T1"), ("trombone", "8"), ("trombone", "0"),
        ("trombone", "1-2"), ("horn", "123"), ("tuba", ""),
    ],
)  # fmt: skip
def test_what_no_hand_can_do_is_refused(instrument, written: str) -> None:
    with pytest.raises(InvalidInput, match="bad_fingering"):
        play(CARDS[instrument], written)
