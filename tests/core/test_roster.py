"""Class lists as they come, and what they would change."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.errors import InvalidInput
from brevin.core.plan.roster import Known, Row, changes_of, instrument_named, plain, rows_of
from brevin.core.plan.seating import Sits

CLASS = [Known(1, "Ada Quillane", "clarinet"), Known(2, "Bo Vantreen", "trumpet"), Known(3, "Cleo Marsh", "flute")]


def test_columns_are_found_by_their_headings_in_any_order() -> None:
    table = [["Form", "Plays", "Surname", "First name"], ["7B", "Clarinets", "Quillane", " Ada "], ["", "", "", ""], ["7C", "Alto Saxophone", "Vantreen", "Bo"]]
    assert rows_of(table) == [Row(2, "Ada Quillane", "clarinet", "Clarinets"), Row(4, "Bo Vantreen", "alto_sax", "Alto Saxophone")]


@pytest.mark.parametrize(
    ("table", "code"),
    [
        ([], "no_rows"), ([["Name", "Instrument"]], "no_rows"), ([["Nom", "Pupitre"], ["Ada", "flute"]], "no_headings"), ([["Name"], ["Ada"]], "no_headings"),
        ([["name", "instrument"], *[["x", "flute"]] * 1001], "too_many_rows"),
    ],
)  # fmt: skip
def test_a_table_that_is_no_class_list_is_refused_with_its_reason(table: list, code: str) -> None:
    with pytest.raises(InvalidInput, match=code):
        rows_of(table)


@pytest.mark.parametrize(
    ("row", "chair", "sits", "said"),
    [
        ("2", "5", Sits(2, 5), ""), (" 02 ", "5", Sits(2, 5), ""), ("", "", None, ""), ("2", "", None, "2"), ("", "5", None, "5"), ("0", "1", None, "0 1"),
        ("B", "3", None, "B 3"), ("2", "101", None, "2 101"), ("2 3", "", None, "2 3"), ("-1", "2", None, "-1 2"), ("\u0662", "1", None, "\u0662 1"),
    ],
)  # fmt: skip
def test_a_chair_is_read_or_what_stands_there_is_said(row: str, chair: str, sits: Sits | None, said: str) -> None:
    [found] = rows_of([["Row", "Chair", "Name", "Instrument"], [row, chair, "Ada", "flute"]])
    assert (found.sits, found.sits_said) == (sits, said)


def test_what_would_change_is_told_apart_and_nothing_else_is() -> None:
    rows = [
        Row(2, "ada QUILLANE", "clarinet"), Row(3, "Bo Vantreen", "cornet"), Row(4, "Dara Fenn", "horn"), Row(5, "Eli Noor", None, "theremin"),
        Row(6, "Dara Fenn", "horn"), Row(7, "", "tuba"),
    ]  # fmt: skip
    found = changes_of(rows, CLASS)
    assert ([r.number for r in found.new], [c.student.id for c in found.changed], [k.id for k in found.left]) == ([4], [2], [3])
    assert ([r.number for r in found.unreadable], [r.number for r in found.twice], found.same) == ([5, 7], [6], 1)


def test_the_class_own_list_changes_nothing() -> None:
    found = changes_of([Row(n, one.name, one.instrument) for n, one in enumerate(CLASS, 2)], CLASS)
    assert found.same == 3 and not (found.new or found.changed or found.left or found.unreadable or found.twice)


CELLS = st.text(
    "aZ\u00e9\u00df9 ,;\t\"'=-.\n\r\0\u00a0\u202e\u041a\u65e5\ufeff\U0001f600", max_size=30
)  # what cells of tables hold, and what should be in none


@given(CELLS, CELLS, CELLS | st.integers(-9, 999).map(str), CELLS)
def test_any_cells_end_in_rows_or_a_reason(name: str, instrument: str, at_row: str, chair: str) -> None:
    try:
        [row] = rows_of([["Name", "Instrument", "Row", "Chair"], [name, instrument, at_row, chair]])
    except InvalidInput as why:
        assert why.code == "no_rows"
    else:
        assert row.name == " ".join(row.name.split()) and len(row.name) <= 120


def test_names_of_instruments_as_teachers_write_them() -> None:
    said = {"Trombones": "trombone", "alto sax": "alto_sax", "ALTO_SAX": "alto_sax", "French Horn": "horn", "Cornet": "cornet", "kazoo": None, "": None}
    assert {text: instrument_named(text) for text in said} == said
    assert plain("Zoë  O'Neill") == plain("zoe o neill") and plain("Ким") != plain("Лев")
