"""How planted faults of posture and hold are counted."""

from types import SimpleNamespace

import pytest

from brevin.bench import hold, hold_breath
from brevin.bench.accuracy_hold import Seen
from brevin.bench.tally import Found, Tally, together
from brevin.core.report import Report, Verdict
from brevin.standin.hold_cases import COUNT
from brevin.standin.holds import drawn

NUMBER = {(drawn(i).case.name, int(drawn(i).unseen)): i for i in range(COUNT)}


def verdict(criterion: str, state: str = "watch", *, outside: bool = True, side: str | None = "high", reason: str | None = None) -> Verdict:
    return Verdict(criterion, state, 1.0, "deg", None, 1.0, 0.0, 1.0, outside, [], side=side, reason=reason)


def outcome(case: str, *verdicts: Verdict, seen: tuple[Seen, ...] = (), body: int = 0) -> hold.Outcome:
    report: Report = SimpleNamespace(verdicts=list(verdicts))
    return hold.outcome(NUMBER[case, body], report, Tally(case, held=list(seen)))


@pytest.mark.parametrize(
    ("verdicts", "found", "withheld"),
    [
        ((verdict("axis_level"),), True, False),
        ((verdict("axis_level", side="low"),), False, False),  # on the other side it is another fault
        ((verdict("axis_level", outside=False),), False, False),  # only its interval reaches over
        ((verdict("axis_level", "unreadable", outside=False, side=None, reason="not_found"),), False, True),
        ((), False, False),
    ],
)
def test_a_fault_is_found_where_its_own_row_is_marked_on_its_own_side(verdicts: tuple[Verdict, ...], found: bool, withheld: bool) -> None:
    one = outcome("trumpet-bell-low", *verdicts)
    assert (one.found, one.withheld, one.alarms) == (found, withheld, ())


def test_a_mark_where_nothing_was_planted_is_an_alarm_but_not_what_a_fault_brings_with_it() -> None:
    good = outcome("trumpet-good", verdict("axis_level"), verdict("trunk_inclination", outside=False), verdict("abdomen_leads"))
    assert good.found is None and good.alarms == ("axis_level",), "a value inside its band is none, nor is a row of the breath"
    slumps = outcome("trumpet-slumps", verdict("keeps_tall"), verdict("trunk_inclination"), verdict("axis_level"))
    assert slumps.found and slumps.alarms == ("axis_level",)


def test_one_elbow_is_enough() -> None:
    assert outcome("trumpet-elbows-in", verdict("elbow_left", "steady", outside=False, side=None), verdict("elbow_right", side="low")).found


def test_shares_and_page_tell_tuned_and_unseen_apart() -> None:
    seen = (Seen("instrument_axis_deg", "a", 1.5, 2.0), Seen("instrument_axis_deg", "a", None, None))
    found = [
        outcome("trumpet-bell-low", verdict("axis_level"), seen=seen),
        outcome("trumpet-bell-high", verdict("axis_level"), body=1),
        outcome("trumpet-good", verdict("axis_level")),
    ]
    assert hold.figures_of(found) == {"found": 0.5, "withheld": 0.0, "alarms": 1 / 3}
    page = hold.page(found, [])
    tuned, unseen = page.split("## Unseen")
    assert "trumpet-bell-low | yes" in tuned and "trumpet-bell-high | **no**" in unseen and "| trumpet-good |  | axis_level |" in tuned
    assert "| instrument axis, deg | 3.0 | 1.50 | 100 % | 1 of 2 |" in tuned
    assert "| axis_level | 1 | 1 | 0 | 0 |" in tuned and "| axis_level | 1 | 0 | 0 | 1 |" in unseen


def test_who_wears_stickers_is_told_apart_of_both_halves() -> None:
    found = [outcome("trumpet-bell-low", verdict("axis_level")), outcome("clarinet-stickers-hunched", verdict("trunk_inclination"), body=1)]
    before, worn = hold.page(found, []).split("## With stickers")
    assert "trumpet-bell-low" in before and "Unseen" not in before and "clarinet-stickers-hunched | yes" in worn


def test_without_clips_it_says_how_to_make_them(monkeypatch: pytest.MonkeyPatch, tmp_path, capsys: pytest.CaptureFixture[str]) -> None:
    monkeypatch.setattr(hold, "CLIPS", tmp_path)
    assert not hold.measure().held and "standin.holds" in capsys.readouterr().err


def breath(pattern: str | None, start_s: float, half_s: float, beside: str | None = None) -> Found:
    """A planted low breath and what was made of it."""
    cycle, trace, told = SimpleNamespace(), SimpleNamespace(), SimpleNamespace(pattern_or=beside)
    return Found("a, breath 1", "low", pattern, {"inhale_start_s": start_s}, {"inhale_start_s": half_s}, cycle, told, trace, {})  # pyrefly: ignore[bad-argument-type]


def test_the_breath_of_these_clips_is_told_by_instrument_tuned_and_unseen_apart() -> None:
    trumpet = Tally(
        "trumpet", clips=3, refused=["b"], planted=4, found=[breath("low", 0.02, 0.1), breath("unclear", -0.3, 0.1), breath("low_then_wide", 0.06, 0.1, "low")]
    )
    bare = Tally("none", clips=1, planted=1, extra=1, found=[breath("low", 0.04, 0.1, "low_then_wide")])
    found = hold_breath.figures_of(together("all", [trumpet, bare]))
    assert found == {"breath_f1": 8 / 10, "named_wrong": 0.25, "said_beside": 0.25, "unnamed": 0.25}
    assert hold_breath.figures_of(Tally("one", planted=1, found=[breath("chest_high", 0.0, 0.1, "low_then_lifted")]))["said_beside"] == 0.0
    lines = hold_breath.section({"tuned": {"none": bare, "trumpet": trumpet}, "unseen": {"flute": Tally("flute")}})
    assert "| tuned | trumpet | 2 | 3 of 4 | 0 | 1 | 1 | 1 | 1 |" in lines and "| tuned | all | 3 | 4 of 5 | 1 | 2 | 1 | 1 | 1 |" in lines
    assert "| tuned | inhale onset, s | 0.050 | 0.060 | 75 % | 4 |" in lines
    assert not [line for line in lines if "flute" in line or "unseen | inhale" in line], "of what was not filmed nothing is told"
    lost = hold_breath.lost([("hold-01 (bare)", bare), ("hold-02 (horn)", Tally("horn", planted=1, found=[breath("low", 0.0, 0.1)])), ("hold-03", trumpet)])
    assert lost[3:] == ["- hold-01 (bare): 1 of 1 found, 1 that is none", "- hold-03: 3 of 4 found"] and not hold_breath.lost([])
