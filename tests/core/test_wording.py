"""Sentences made from codes and facts, for a report that holds none."""

import pytest

from brevin.core.plain import to_json
from brevin.core.plan.check import Check
from brevin.core.read import Task, read
from brevin.core.report import Cue, Report
from brevin.core.verdict.headline import Fault, Headline, Stood, as_said, headline, headline_cue, headline_words
from brevin.core.verdict.reasons import REASONS
from brevin.core.verdict.wording import cue_sentence, fault_words, line_words, with_sentences
from brevin.core.verdict.words import CRITERIA
from tests.core.made import HIGH, LOW, sighting


def report_of(**kwargs) -> Report:
    made, _, card = sighting(**kwargs)
    return read(made, Task(Check(card=card)))


@pytest.mark.parametrize("kwargs", [{}, {"cycles": [HIGH] * 3}, {"view": "front"}, {"clicks": False, "card_text": "4-0-4@72x2"}, {"chest_hidden": True}])
def test_a_stored_report_holds_no_sentence_and_a_shown_one_every_sentence(kwargs: dict) -> None:
    stored = to_json(report_of(**kwargs))
    assert not any(v["title"] or v["why"] or v["words"] or v["cue"] for v in stored["verdicts"])
    assert not any(r["message"] for r in stored["reasons"]) and not (stored["cue"] or {}).get("text")
    shown = with_sentences(stored)
    for verdict in shown["verdicts"]:
        assert verdict["title"] and verdict["area"] and verdict["why"] and verdict["words"] and "{" not in verdict["why"]
        assert bool(verdict["cue"]) == (verdict["state"] in ("watch", "work"))
        assert all(mark["words"] for mark in verdict["marks"])
    assert all(r["message"] and "{" not in r["message"] for r in shown["reasons"])
    assert shown["cue"] is None or shown["cue"]["text"]
    assert with_sentences(shown) == shown, "what is said already stays"
    assert not any(v["title"] for v in stored["verdicts"]), "the stored one is left as it is"


def test_a_report_from_before_keeps_its_own_sentences() -> None:
    old = {
        "reasons": [{"code": "too_far", "check": "all", "message": "Step closer.", "from_s": None, "to_s": None}],
        "verdicts": [{"criterion": "pause", "title": "No pause", "state": "watch", "why": "It waited.", "words": "it waits", "marks": []}],
        "cue": {"criterion": "pause", "text": "Turn the air around."}, "view": "side-left", "readable_for": {"breath": True},
        "breaths": [{"pattern": "low"}, {"pattern": "shallow"}, {"pattern": "low"}],
    }  # fmt: skip
    shown = with_sentences(old)
    assert shown["reasons"] == old["reasons"] and shown["cue"] == old["cue"]
    assert shown["breathed"] == "low, 2 of 3" and [breath["words"] for breath in shown["breaths"]] == ["low", "small breath", "low"]
    assert shown["verdicts"][0]["why"] == "It waited." and (shown["verdicts"][0]["counted_breaths"], shown["verdicts"][0]["area"]) == (None, "breath")


def test_a_breath_that_may_be_of_two_kinds_says_both() -> None:
    stored = to_json(report_of(cycles=[LOW] * 3))
    assert with_sentences(stored)["breathed"] == "low, then wide"
    for breath in stored["breaths"]:
        breath["pattern_or"] = "low"
    shown = with_sentences(stored)
    assert shown["breathed"] == shown["breaths"][0]["words"] == "low, then wide (or low)"
    stored["breaths"][1]["pattern_or"] = None
    assert with_sentences(stored)["breathed"] == "low, then wide", "one that is sure speaks for the others"
    front = with_sentences(stored | {"view": "front"})
    assert {front["breathed"], *(breath["words"] for breath in front["breaths"])} == {""}, "no pattern is seen from there"


def test_a_report_in_one_line() -> None:
    good = headline(report_of(cycles=[LOW] * 3))
    assert good.state in ("steady", "watch") and headline_words(good) == "low, then wide"
    bad = headline(report_of(cycles=[HIGH] * 3))
    assert bad.state == "work" and headline_words(bad) == "the chest goes first" and headline_cue(bad)
    front = headline(report_of(view="front"))
    assert (front.state, front.pattern) == ("steady", None) and headline_words(front) == "as it should be", "no pattern is seen from there"
    unseen = headline(report_of(cycles=[]))
    assert unseen.state == "unreadable" and headline_words(unseen).startswith("No breathing")


@pytest.mark.parametrize(("hides", "held", "told"), [(True, True, True), (True, False, False), (False, True, False)])
def test_what_the_instrument_hides_is_told_so_that_it_can_be_asked_for_without_it(hides: bool, held: bool, told: bool) -> None:
    made, _, card = sighting(chest_hidden=hides)
    line = headline(read(made, Task(Check(card=card, instrument="clarinet", with_instrument=held))))
    assert line.hidden == told and line.state != "unreadable", "the rest is read all the same"


@pytest.mark.parametrize("criterion", sorted(CRITERIA))
@pytest.mark.parametrize("side", ["low", "high"])
def test_every_fault_has_words_for_both_sides(criterion: str, side: str) -> None:
    assert "{" not in fault_words(criterion, "work", outside=True, side=side) and cue_sentence(criterion, side)
    assert "{" not in line_words(criterion, side) and "  " not in line_words(criterion, side)


def test_a_two_sided_row_has_a_cue_for_each_side() -> None:
    for criterion in ("real_breath", "with_count", "exhale_with_count", "inhale_counts", "exhale_counts", "trunk_inclination"):
        assert cue_sentence(criterion, "low") != cue_sentence(criterion, "high"), criterion


def test_every_reason_says_what_to_do_and_needs_no_more_facts_than_it_is_given() -> None:
    """What the gate gives is tested where it gives it; here, that a sentence asks for facts by name only."""
    for code, sentence in REASONS.items():
        assert sentence.text.endswith(".") and len(sentence.text) < 160, code


FAULTY = Headline("work", [Fault("shoulders_still", "high")], "chest_high", cue=Cue("shoulders_still", "high"))
STOOD = [Stood("abdomen_leads", "watch", "low", True), Stood("shoulders_still", "work", "high", True), Stood("pause", "steady", "high", False)]


def test_a_list_says_what_the_teacher_says_where_that_is_something_else() -> None:
    fine = as_said(FAULTY, STOOD, {"shoulders_still": "steady"})
    assert (fine.state, fine.faults, fine.cue) == ("watch", [Fault("abdomen_leads", "low")], Cue("abdomen_leads", "low"))
    all_fine = as_said(FAULTY, STOOD, {"shoulders_still": "steady", "abdomen_leads": "steady"})
    assert (all_fine.state, all_fine.faults, all_fine.cue) == ("steady", [], Cue("all")) and headline_words(all_fine) == "high breath"
    worse = as_said(FAULTY, STOOD, {"pause": "work"})
    assert [fault.criterion for fault in worse.faults] == ["shoulders_still", "pause"] and worse.cue == FAULTY.cue, "the cue's own fault still stands"
    assert as_said(FAULTY, STOOD, {}) == FAULTY
    both = {"shoulders_still": "steady", "abdomen_leads": "work", "pause": "work"}
    assert as_said(FAULTY, STOOD, both, ("count", "seat", "breath", "hold")).cue == Cue("pause", "high") != as_said(FAULTY, STOOD, both).cue
    unread = Headline("unreadable", reason="too_dark")
    assert as_said(unread, [], {"pause": "steady"}) == unread, "what could not be read stays so"


@pytest.mark.parametrize(("deg", "said"), [(-19.3, "stands 0.0 deg off"), (23.4, "stands 23.4 deg off")])
def test_an_elbow_inside_its_shoulder_stands_no_way_off_the_body(deg: float, said: str) -> None:
    stored = to_json(report_of(view="front"))
    verdict = stored["verdicts"][0] | {"criterion": "elbow_left", "state": "work", "side": "low", "value": deg, "outside": True, "marks": [], "facts": {}}
    (shown,) = with_sentences(stored | {"verdicts": [verdict]})["verdicts"]
    assert said in shown["why"] and shown["words"] == "close in"


def test_a_row_of_posture_says_what_it_came_to_in_each_part_of_the_clip_where_it_shows_more_than_one() -> None:
    stored = to_json(report_of())
    lean = stored["posture"]["trunk_inclination_deg"]
    parts = {"instrument_down": -12.0, "inhale": 4.0}
    for by_segment, said in ((parts, parts), ({"inhale": 4.0}, {}), ({}, {})):
        posture = stored["posture"] | {"trunk_inclination_deg": lean | {"by_segment": by_segment}}
        rows = {verdict["criterion"]: verdict for verdict in with_sentences(stored | {"posture": posture})["verdicts"]}
        assert rows["trunk_inclination"]["state"] != "unreadable" and rows["trunk_inclination"]["by_segment"] == said
        assert rows["shoulders_still"]["by_segment"] == {}
    assert not any(verdict["by_segment"] for verdict in stored["verdicts"]), "made when it is shown"
