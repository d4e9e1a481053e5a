"""How alike a clip and its mirror image are counted to read."""

from types import SimpleNamespace

import numpy as np
import pytest

from brevin.bench.mirrored import Pair, alike
from brevin.core.report import Breath, Report


def report(*breaths: Breath, readable: bool = True) -> Report:
    return SimpleNamespace(breaths=list(breaths), readable_for=SimpleNamespace(breath=readable))


def breath(start_s: float, pattern: str = "low", pattern_or: str | None = None, *, share: float | None = 0.7) -> Breath:
    return Breath(inhale_start_s=start_s, exhale_start_s=start_s + 2.0, pattern=pattern, pattern_or=pattern_or, abdominal_share=share, uncertainty={})


def figures(*pairs: tuple[Report, Report]) -> dict[str, float]:
    return alike([Pair(f"clip-{i}", *pair) for i, pair in enumerate(pairs)]).figures


def test_what_reads_the_same_holds_every_bar() -> None:
    same = report(breath(3.0), breath(9.0))
    found = alike([Pair("clip", same, report(breath(3.06), breath(9.02, share=None)))])
    assert found.held and found.figures["breaths"] == 2.0 and found.figures["onset_p90_s"] == pytest.approx(0.06, abs=0.01)
    assert found.figures["share_median"] == 0.0, "a share that one of them does not tell is held against nothing"


def test_a_breath_that_only_one_of_them_shows_counts_against_both(capsys: pytest.CaptureFixture) -> None:
    lost = figures((report(breath(3.0), breath(9.0)), report(breath(3.0))))
    extra = figures((report(breath(3.0)), report(breath(3.0), breath(9.0))))
    moved = figures((report(breath(3.0)), report(breath(4.3))))
    assert lost["found_in_both"] == extra["found_in_both"] == 0.5 and moved["found_in_both"] == 0.0
    assert "clip-0 reads otherwise in a mirror" in capsys.readouterr().err


@pytest.mark.parametrize(
    ("names", "others", "contradicts"),
    [
        (("low",), ("chest_high",), True),
        (("low",), ("unclear",), False),
        (("low", "low_then_wide"), ("low_then_wide",), False),
        (("low_then_lifted", "chest_high"), ("low_then_wide", "low"), True),
    ],
)
def test_two_names_contradict_where_neither_leaves_room_for_the_other(names: tuple[str, ...], others: tuple[str, ...], contradicts: bool) -> None:
    assert figures((report(breath(3.0, *names)), report(breath(3.0, *others))))["named_otherwise"] == float(contradicts)


def test_a_clip_that_is_refused_in_one_of_them_is_counted_by_itself() -> None:
    found = figures((report(breath(3.0)), report(readable=False)), (report(readable=False), report(readable=False)))
    assert found["readable_in_one_alone"] == 1.0 and found["breaths"] == 0.0 and np.isinf(found["onset_p90_s"])
