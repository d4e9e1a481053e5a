"""The bench's content: the facts it must hold, and that what cannot be right is refused with file and line."""

import shutil
from pathlib import Path

import pytest

from brevin.core.handling.fingering import play
from brevin.core.handling.ways import looks, ways
from brevin.core.hold.ticks import TICKS, as_taught
from brevin.core.kinds import INSTRUMENTS
from brevin.edge.drawings import drawing
from brevin.edge.instrument_files import ContentFaults, content
from brevin.ops.settings import ROOT
from tests.shipped import CONTENT

CARDS = CONTENT.cards
# instrument: clef, semitones lower, first notes with their fingering
NOTES = {
    "flute": ("treble", 0, "B4 T1|·4, A4 T12|·4, G4 T123|·4, F4 T123|1·4, F5 T123|1·4, E flat 5 T·23|1234, D5 T·23|123"),
    "oboe": ("treble", 0, "B4 1, A4 12, G4 123"),
    "clarinet": ("treble", 2, "G4 open, E4 T1, D4 T12, C4 T123"),
    "alto_sax": ("treble", 9, "C sharp 5 open, B4 1, A4 12, G4 123, C5 2"),
    "tenor_sax": ("treble", 14, "C sharp 5 open, B4 1, A4 12, G4 123, C5 2"),
    "trumpet": ("treble", 2, "C4 open, D4 1-3, E4 1-2, F4 1, G4 open"),
    "cornet": ("treble", 2, "C4 open, D4 1-3, E4 1-2, F4 1, G4 open"),
    "horn": ("treble", 7, "C4 open, E4 open, G4 open"),
    "trombone": ("bass", 0, "B flat 2 1, F3 1, D3 4, E flat 3 3, C3 6"),
    "euphonium": ("bass", 0, "B flat 2 open, F3 open, C3 1-3, D3 1-2, E flat 3 1"),
    "baritone": ("bass", 0, "B flat 2 open, F3 open, C3 1-3, D3 1-2, E flat 3 1"),
    "tuba": ("bass", 0, "B flat 1 open, F2 open, C2 1-3, D2 1-2, E flat 2 1"),
}
# instrument, step: value, low, high, unit
VALUES = {
    ("clarinet", "reed"): (0.3, 0.2, 0.5, "mm"), ("alto_sax", "reed"): (0.3, 0.2, 0.5, "mm"), ("clarinet", "wet_reed"): (45, 30, 60, "s"),
    ("flute", "head"): (6, 6, 13, "mm"), ("flute", "foot"): (0, 0, 1, "mm"), ("oboe", "soak"): (150, 120, 180, "s"), ("oboe", "upper"): (0, 0, 1, "mm"),
    ("clarinet", "upper"): (0, 0, 1, "mm"), ("clarinet", "barrel"): (0, 0, 2, "mm"), ("alto_sax", "mouthpiece"): (8, 5, 12, "mm"),
    ("alto_sax", "neck"): (0, -5, 5, "deg"), ("trumpet", "look"): (10, 0, 20, "mm"), ("trombone", "bell"): (90, 80, 90, "deg"),
    ("euphonium", "look"): (10, 0, 20, "mm"), ("tuba", "look"): (13, 0, 25, "mm"), ("horn", "mouthpiece"): (45, 0, 90, "deg"),
}  # fmt: skip
ORDER = {
    "flute": "ready case foot head rest", "oboe": "ready case soak bell upper reed rest",
    "clarinet": "ready case wet_reed bell upper barrel mouthpiece reed rest",
    "alto_sax": "ready case wet_reed mouthpiece reed strap body neck rest", "trumpet": "ready case look mouthpiece rest",
    "horn": "ready case bell look mouthpiece rest", "trombone": "ready case slide bell mouthpiece try_slide rest",
    "euphonium": "ready case lap look mouthpiece rest", "tuba": "ready case seat look mouthpiece rest",
}  # fmt: skip
# instrument, task: days, drops of oil, grains of grease
CARE = {
    ("trumpet", "oil"): (3, 3, 0), ("trumpet", "slides_moved"): (7, 0, 0), ("trumpet", "slide_grease"): (30, 0, 1), ("trumpet", "mouthpiece"): (7, 0, 0),
    ("trumpet", "water"): (0, 0, 0), ("trumpet", "inside"): (180, 0, 0), ("trumpet", "shop"): (365, 0, 0), ("trumpet", "leadpipe"): (30, 0, 0),
    ("horn", "rotor_oil"): (7, 2, 0), ("horn", "bearings"): (30, 0, 0), ("trombone", "slide_oil"): (1, 3, 0), ("trombone", "old_film"): (7, 0, 0),
    ("trombone", "tuning_grease"): (30, 0, 1), ("flute", "dry"): (0, 0, 0), ("flute", "lip_plate"): (7, 0, 0), ("flute", "stopper"): (180, 0, 0),
    ("oboe", "brush"): (30, 0, 0), ("clarinet", "mouthpiece"): (7, 0, 0), ("clarinet", "reed_new"): (28, 0, 0), ("clarinet", "cloths"): (7, 0, 0),
    ("alto_sax", "neck_tenon"): (7, 0, 0), ("euphonium", "oil"): (3, 3, 0), ("tuba", "slides_moved"): (1, 0, 0),
}  # fmt: skip
SHUT = {
    "flute": "crown|screws|rods", "oboe": "small screws|rods", "clarinet": "screws|rods", "alto_sax": "octave lever|rods|key screws",
    "trumpet": "bottom caps|braces",
    "horn": "rotor caps|strings|braces", "trombone": "bent legs", "euphonium": "bottom caps|braces", "tuba": "bottom caps|braces",
}  # fmt: skip
WAYS = {
    "flute": "order hole first_sound", "oboe": "order soaking note_start", "clarinet": "ligature_order corners note_start order drying",
    "alto_sax": "ligature_order order strap_when first_note",
    "trumpet": "into_receiver lips corners rim first_sound right_little right_thumb third_ring oiling",
    "horn": "bell_hand rim_on", "trombone": "slide_free left_forefinger rest_place slide_oil", "euphonium": "held_on first_sound oiling",
    "tuba": "stands_on on_chair first_sound teeth",
}  # fmt: skip


def test_every_instrument_of_the_programme_has_a_card() -> None:
    assert list(CARDS) == [name for name in INSTRUMENTS if name != "none"]


@pytest.mark.parametrize("name", list(NOTES))
def test_the_first_notes_are_those_of_the_job(name) -> None:
    clef, semitones, written = NOTES[name]
    card = CARDS[name]
    assert (card.clef, card.sounds[name]) == (clef, semitones)
    assert ", ".join(f"{one.written} {one.play}" for one in card.notes) == written


@pytest.mark.parametrize(("name", "key"), list(VALUES))
def test_values_are_those_of_the_bench(name, key: str) -> None:
    value = next(step.value for step in CARDS[name].steps if step.key == key)
    assert value is not None and (value.value, value.low, value.high, value.unit) == VALUES[name, key]


@pytest.mark.parametrize("name", list(ORDER))
def test_the_order_is_the_bench_s(name) -> None:
    assert " ".join(step.key for step in CARDS[name].steps if step.phase == "together") == ORDER[name]
    away = [step for step in CARDS[name].steps if step.phase == "away"]
    assert len(away) >= 2


@pytest.mark.parametrize(("name", "task"), list(CARE))
def test_how_often_and_how_little(name, task: str) -> None:
    found = next(one for one in CARDS[name].care if one.key == task)
    assert (found.every_days, found.drops, found.rice) == CARE[name, task]


@pytest.mark.parametrize("name", list(SHUT))
def test_what_a_beginner_must_not_open(name) -> None:
    shut = {part.name for part in CARDS[name].parts if part.rule == "shut"}
    assert set(SHUT[name].split("|")) == shut
    assert any(part.rule == "yours" for part in CARDS[name].parts)


@pytest.mark.parametrize("name", list(WAYS))
def test_where_teachers_disagree_there_is_a_choice(name) -> None:
    found = {choice.key for choice in CARDS[name].choices}
    assert set(WAYS[name].split()) <= found
    assert all(option.reason for choice in CARDS[name].choices for option in choice.options), "each way says why"


def test_the_large_brass_has_no_gate_and_the_others_have() -> None:
    assert {name for name, card in CARDS.items() if not card.gate.on} == {"euphonium", "baritone", "tuba"}
    assert {(card.gate.good, card.gate.of) for card in CARDS.values()} == {(3, 5)}


def test_higher_is_said_the_same_way_on_every_brass_card() -> None:
    brass = {card.higher for card in CARDS.values() if card.family == "brass"}
    assert brass == {"Higher by faster air and firmer corners, lower by slower air."}


@pytest.mark.parametrize("name", list(CARDS))
def test_the_cautions_stand_on_every_card(name) -> None:
    said = " ".join(one.say.lower() for one in CARDS[name].cautions)
    assert {one.at for one in CARDS[name].cautions} == {"before", "steps", "first_notes", "care"}
    for word in ("slippery", "mouths and eyes", "no pliers", "stop, breathe normally, sit", "then a minute of rest", "not shared", "bring it"):
        assert word in said, word


def test_a_reed_is_never_shared() -> None:
    for name in ("oboe", "clarinet", "alto_sax", "tenor_sax"):
        assert "never shared" in " ".join(one.say for one in CARDS[name].cautions) and any("shared" in step.careful for step in CARDS[name].steps)


@pytest.mark.parametrize("name", list(CARDS))
def test_each_step_has_a_sentence_a_drawing_and_what_it_must_not_look_like(name) -> None:
    for step in CARDS[name].steps:
        assert 10 < len(step.say) <= 130 and step.say.endswith("."), step.say
        assert step.drawing in CONTENT.drawings and step.wrong and step.check and step.careful, step.key


@pytest.mark.parametrize("name", list(CARDS))
def test_the_home_of_each_finger_agrees_with_the_ticks(name) -> None:
    homes = " ".join(f"{one.finger} {one.place}" for one in CARDS[name].home)
    assert len(CARDS[name].home) >= 4 and all(one.wrong for one in CARDS[name].home)
    assert any(tick.near == "left_hand" for tick in TICKS[name]) == ("left" in homes)


def test_a_small_mouthpiece_sounds_eight_seconds_and_a_large_one_less() -> None:
    guide = {name: (card.alone.good_s, card.alone.excellent_s) for name, card in CARDS.items() if card.alone and card.family == "brass"}
    assert {guide[name] for name in ("trumpet", "cornet", "horn")} == {(8, 12)}
    assert all(good < 8 and excellent < 12 for good, excellent in (guide[name] for name in ("trombone", "euphonium", "baritone", "tuba")))
    assert all(card.alone.good_s == 0 for card in CARDS.values() if card.family != "brass"), "for a reed or a head joint no length is known"


def test_the_ticks_of_the_mouth_follow_the_way_it_is_taught() -> None:
    horn, trumpet, clarinet = CARDS["horn"], CARDS["trumpet"], CARDS["clarinet"]
    assert looks(trumpet, ways(trumpet, {}, {})) == looks(horn, ways(horn, {}, {})) == {}, "the usual way is what the list says"
    changed = looks(trumpet, ways(trumpet, {"corners": "toward_rim", "lips": "apart"}, {}))
    ticks = {tick.key: tick for tick in as_taught("trumpet", {key: (one.fine, one.wrong) for key, one in changed.items()})}
    assert ticks["corners"].fine.startswith("gathered toward the rim") and ticks["lips"].fine.startswith("just apart")
    assert ticks["rim"] == next(tick for tick in TICKS["trumpet"] if tick.key == "rim") and "two thirds" in TICKS["horn"][0].fine
    assert "middle" in looks(horn, {"rim": "middle"})["rim"].fine and list(looks(clarinet, {"corners": "back"})) == ["corners"]


HANDS = {
    ("trumpet", "right_little", "top"): ("right_little", "on top"), ("cornet", "right_little", "top"): ("right_little", "on top"),
    ("trumpet", "right_thumb", "crossed"): ("right_thumb", "crossed"), ("trumpet", "third_ring", "middle_finger"): ("left_ring", "middle finger"),
    ("horn", "bell_hand", "at_rim"): ("bell_hand", "at the rim"), ("trombone", "left_forefinger", "along_receiver"): ("left_fingers", "along the receiver"),
    ("tuba", "teeth", "wide"): ("lips", "as wide apart"),
}  # fmt: skip


@pytest.mark.parametrize(("name", "choice", "option"), list(HANDS))
def test_the_ticks_of_the_hands_follow_the_way_they_are_taught(name: str, choice: str, option: str) -> None:
    key, words = HANDS[name, choice, option]
    before = {tick.key: tick for tick in TICKS[name]}
    changed = looks(CARDS[name], ways(CARDS[name], {choice: option}, {}))
    after = {tick.key: tick for tick in as_taught(name, {one: (way.fine, way.wrong) for one, way in changed.items()})}
    assert [one for one in before if before[one] != after[one]] == [key] and words in after[key].fine
    assert words not in before[key].fine


def test_no_way_that_may_be_chosen_is_ticked_as_wrong() -> None:
    """A choice that is called like a tick says for each of its ways but the usual one how it looks, and no look is of a tick that is not there."""
    for name, card in CARDS.items():
        ticks = {tick.key for tick in TICKS[name]}
        for choice in card.choices:
            assert choice.key not in ticks or all(choice.key in one.looks for one in choice.options[1:]), (name, choice.key)
            assert all(set(one.looks) <= ticks for one in choice.options), (name, choice.key)


def test_there_are_forty_two_drawings_and_each_has_a_text_that_says_the_same() -> None:
    assert {f"D{n}" for n in range(1, 43)} <= set(CONTENT.drawings)
    assert all(len(one.text) > 40 and one.title for one in CONTENT.drawings.values())
    assert len({one.text for one in CONTENT.drawings.values()}) == len(CONTENT.drawings)


def test_no_drawing_lies_unused() -> None:
    used = set()
    for card in CARDS.values():
        used |= {card.drawing, *card.pictures, *(step.drawing for step in card.steps), *(task.drawing for task in card.care)}
        used |= {option.drawing for choice in card.choices for option in choice.options} | {card.alone.drawing if card.alone else ""}
    assert set(CONTENT.drawings) - used == set()


@pytest.mark.parametrize("name", list(CARDS))
def test_the_labelled_drawing_marks_every_part_and_has_every_finger_that_is_needed(name) -> None:
    card, ids = CARDS[name], CONTENT.drawings[CARDS[name].drawing].ids
    assert {part.name for part in card.parts} <= ids and {"instrument", "labels"} <= ids
    needed = {finger for one in card.notes for finger in play(card, one.play).fingers}
    assert needed <= ids
    assert "slide" in ids or not card.positions_cm


def test_the_positions_of_the_slide() -> None:
    assert CARDS["trombone"].positions_cm == (0, 8, 17, 27, 37, 48, 60)


# file, text, what it becomes, what is said, whether the line is told
FAULTS = [
    ("clarinet", "drawing: D14\n    part: upper joint", "drawing: D99\n    part: upper joint", "no drawing D99"),
    ("clarinet", "play: T12}", "play: T19}", "cannot be played on clarinet"),
    ("clarinet", "clef: treble", "clef: bass", "not read in the bass clef"),
    ("trombone", "clef: bass", "clef: treble", "not read in the treble clef"),
    ("trumpet", "written: D4", "written: H4", "is no note"),
    ("trumpet", "play: 1-3", "play: 1-4", "cannot be played"),
    ("flute", "careful: Keys and rods", "carefull: Keys and rods", "no word of this file"),
    ("flute", "value: 6, low: 6", "value: 3, low: 6", "outside its own range"),
    ("flute", "use: [ready, case, foot,", "use: [ready, case, fot,", "is no step"),
    ("oboe", "when: new_wood", "when: new_would", "does not ask for"),
    ("oboe", "gate: {good: 3", "gate: {good: 9", "so many good"),
    ("horn", "phase: together", "phase: toghether", "Input should be"),
    ("flute", "taught: first_sounds.whole", "taught: first_sounds.hole", "none of the answers"),
    ("horn", "looks: {rim:", "looks: {rims:", "rims is nothing that is ticked on horn"),
    ("brass", "looks: {lips:", "looks: {lip:", "lip is nothing that is ticked on brass"),
    ("trombone", "good_s: 6, excellent_s: 9", "good_s: 9, excellent_s: 6", "what is excellent lasts"),
    ("tuba", "name: tuba", "name: [tuba", "expected"),
]  # fmt: skip


@pytest.fixture
def copy(tmp_path: Path) -> Path:
    shutil.copytree(ROOT / "content", tmp_path / "content")
    return tmp_path / "content"


@pytest.mark.parametrize(("name", "text", "becomes", "says"), FAULTS, ids=[fault[3] + " " + fault[0] for fault in FAULTS])
def test_a_file_that_cannot_be_right_is_refused_with_its_line(copy: Path, name: str, text: str, becomes: str, says: str) -> None:
    path = copy / "instruments" / f"{name}.yaml"
    written = path.read_text()
    assert text in written
    path.write_text(written.replace(text, becomes, 1))
    line = written[: written.index(text)].count("\n") + 1
    with pytest.raises(ContentFaults) as refused:
        content(copy)
    told = [one for one in refused.value.faults if says in one]
    assert told and told[0].startswith(f"{name}.yaml:"), refused.value.faults
    assert abs(int(told[0].split(":")[1]) - line) <= (15 if says == "expected" else 2), told


@pytest.mark.parametrize(
    ("text", "becomes", "says"),
    [
        ("<title>", "<titel>", "SVG"),
        ('class="soft"', 'class="red"', "no class red"),
        ("<path ", '<path fill="red" ', "fill is not drawn"),
        ("<desc>", "<desc></desc><g>", "SVG"),
    ],
)
def test_a_drawing_that_the_page_cannot_draw_is_refused(copy: Path, text: str, becomes: str, says: str) -> None:
    path = copy / "drawings" / "D4.svg"
    path.write_text(path.read_text().replace(text, becomes, 1))
    with pytest.raises(ContentFaults, match="D4.svg:") as refused:
        content(copy)
    assert says in str(refused.value)


def test_a_drawing_that_is_gone_is_told_where_it_is_asked_for(copy: Path) -> None:
    (copy / "drawings" / "D5.svg").unlink()
    with pytest.raises(ContentFaults) as refused:
        content(copy)
    assert {one.split(":")[0] for one in refused.value.faults} == {"trumpet.yaml", "euphonium.yaml", "tuba.yaml"}


def test_no_script_gets_into_a_drawing() -> None:
    for foreign in ("<script>alert(1)</script>", '<image href="x"/>', '<path onclick="x" d="M0,0"/>', '<a href="x"/>'):
        with pytest.raises(ValueError, match="is not drawn"):
            drawing(f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><title>t</title><desc>d</desc>{foreign}</svg>')
