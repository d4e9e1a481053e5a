"""Judging by other rules without the evidence says what judging the evidence by them says; a line by example agrees with most of what a teacher sorted."""

import functools
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brevin.core.errors import InvalidInput
from brevin.core.measure import Amount
from brevin.core.read import Reading, Task, judge
from brevin.core.verdict.again import Ground, flips
from brevin.core.verdict.bands import Asked
from brevin.core.verdict.criteria import CRITERIA
from brevin.core.verdict.example import EXAMPLES, LINES, Example, proposed, spread, usual
from brevin.core.verdict.rules import LIMITS, Layer, Rules, resolve
from brevin.core.verdict.schools import QUESTIONS, SCHOOLS, STRICTNESS, Method, layer_of
from tests.sightings import CHECKS, seen_of

NAMES = tuple(CHECKS)
WAYS = [Method({question: school}) for question in QUESTIONS for school in SCHOOLS[question]] + [Method(strictness=one) for one in STRICTNESS]


def reading(name: str, rules: Rules) -> Reading:
    return judge(seen_of(name), Task(CHECKS[name]), rules)


@functools.cache
def as_usual(name: str) -> Reading:
    return reading(name, Rules())


def states(ground: Ground, rules: Rules) -> dict[str, str]:
    return {verdict.criterion: verdict.state for verdict in ground.verdicts(rules)}


def flipped(ground: Ground, after: Rules) -> dict[str, tuple]:
    return {flip.criterion: (flip.before, flip.after) for flip in flips(ground, Rules(), after)}


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("how", WAYS, ids=lambda how: next(iter(how.answers.values()), how.strictness))
def test_what_a_school_flips_without_the_evidence_is_what_it_flips_with_it(name: str, how: Method) -> None:
    rules = resolve([layer_of(how)])
    ground = as_usual(name).ground
    before, after = states(ground, Rules()), states(reading(name, rules).ground, rules)
    changed = {key: (before.get(key), after.get(key)) for key in {**before, **after} if before.get(key) != after.get(key)}
    changed = {key: states for key, states in changed.items() if set(states) != {"unreadable", None}}
    assert flipped(ground, rules) == changed


FLIPS = {
    ("standing-full-early", "belly_only"): {"abdomen_leads": ("steady", "watch")},
    ("seated-low-then-wide", "belly_only"): {"abdomen_leads": ("steady", "watch")},
    ("seated-chest-high", "belly_only"): {},
    ("standing-full-early", "small_pushes"): {"even_exhale": ("steady", None)},
    ("front-flute-sags", "small_pushes"): {},
    ("seated-low-then-wide", "short_set"): {},
    ("seated-chest-high", "short_set"): {"pause": ("unreadable", "steady"), "exhale_with_count": ("unreadable", "watch")},
    ("seated-chest-high", "counted_pause"): {"pause": ("unreadable", "steady"), "exhale_with_count": ("unreadable", "watch")},
    ("standing-full-early", "counted_pause"): {},
    ("seated-low-then-wide", "counts_are_time"): {
        "not_full_early": ("steady", None), "inhale_counts": ("steady", None), "pause": ("steady", None), "even_intake": ("watch", None),
    },
    ("standing-full-early", "counts_are_time"): {
        "not_full_early": ("work", None), "even_intake": ("steady", None), "exhale_with_count": ("unreadable", "watch"),
    },
    ("front-flute-sags", "counts_are_time"): {},
}  # fmt: skip
"""Which verdicts a school flips on the demo clips: exactly these."""


@pytest.mark.parametrize(("name", "school"), FLIPS)
def test_a_school_flips_exactly_the_verdicts_it_should(name: str, school: str) -> None:
    [question] = [one for one in QUESTIONS if school in SCHOOLS[one]]
    assert flipped(as_usual(name).ground, resolve([layer_of(Method({question: school}))])) == FLIPS[name, school]


@pytest.mark.parametrize("question", ["first_sounds", "tongue", "practice"])
def test_a_question_that_no_clip_is_judged_by_flips_nothing(question: str) -> None:
    for name in NAMES:
        ground = as_usual(name).ground
        assert [flips(ground, Rules(), resolve([layer_of(Method({question: school}))])) for school in SCHOOLS[question]] == [[]] * len(SCHOOLS[question])


@settings(max_examples=60)
@given(name=st.sampled_from(NAMES[:3]), limits=st.dictionaries(st.sampled_from(sorted(LIMITS)), st.floats(0.0, 4.0), max_size=4))
def test_whatever_limits_are_tried_the_rows_that_did_not_ask_for_them_are_as_they_were(name: str, limits: dict[str, float]) -> None:
    """Patterns and what they are made of are read anew only with the evidence: their limits are left alone here."""
    limits = {key: value for key, value in limits.items() if not key.startswith("pattern.") and key != "even_exhale.release"}
    ground, rules = as_usual(name).ground, resolve([Layer(name="programme", limits=limits)])
    before, after = states(ground, Rules()), states(ground, rules)
    assert flipped(ground, rules) == {key: (before[key], after[key]) for key in before if before[key] != after[key]}


def test_every_row_names_the_limits_its_band_is_made_of() -> None:
    """A limit that is not named would be missed by a preview."""
    asked: set[str] = set()

    class Noting(Rules):
        def limit(self, name: str) -> float:
            asked.add(name)
            return super().limit(name)

    for ground in [as_usual(name).ground for name in NAMES[:3]]:
        for row in CRITERIA:
            for instrument in row.where.instruments or ("clarinet",):
                asked.clear()
                against = Asked(replace(ground.check, instrument=instrument), 0.7, Noting(), Amount(5.0, 0.2))
                for breath in (None, *ground.judged.breaths):
                    row.band(ground.judged.amounts(breath), against)
                named = {one for one in asked if any(one == start or one.startswith(f"{start}.") for start in row.limits)}
                assert asked == named and (asked or not row.limits), (row.key, asked - named)


def test_an_exemption_takes_its_row_away_and_no_other() -> None:
    ground = reading("standing-full-early", Rules()).ground
    assert set(flipped(ground, Rules(exempt=frozenset({"shoulders_still"})))) == {"shoulders_still"}


def test_every_line_is_a_limit_of_its_own_criterion() -> None:
    keys = {row.key for row in CRITERIA}
    assert all(key in keys and line.limit in LIMITS and usual(key) == LIMITS[line.limit].value for key, line in LINES.items())


def examples(*sorted_as: tuple[float, bool]) -> list[Example]:
    return [Example(f"take {i}", value, fine) for i, (value, fine) in enumerate(sorted_as)]


BELLY, SHOULDERS = LINES["abdomen_leads"], LINES["shoulders_still"]


def test_the_line_lies_in_the_widest_gap_that_agrees_with_most() -> None:
    found = proposed(BELLY, examples((0.37, False), (0.44, False), (0.52, False), (0.58, True), (0.63, True), (0.66, False), (0.79, True)), 0.5)
    assert (found.value, found.agrees, found.agrees_now, found.misjudged) == (0.55, 6, 5, ("take 5",))


def test_where_less_is_fine_the_line_is_a_roof() -> None:
    found = proposed(SHOULDERS, examples((0.4, True), (1.0, True), (2.6, False), (3.1, False)), 1.5)
    assert (found.value, found.agrees, found.misjudged) == (1.8, 4, ())


@pytest.mark.parametrize("sorted_as", [[], [(0.4, True)], [(0.4, True), (0.6, True)], [(0.4, False), (0.6, False)]])
def test_nothing_is_proposed_where_nobody_said_where_fine_ends(sorted_as: list[tuple[float, bool]]) -> None:
    with pytest.raises(InvalidInput) as why:
        proposed(BELLY, examples(*sorted_as), 0.5)
    assert why.value.code == "few_examples"


@given(st.lists(st.tuples(st.floats(0.0, 1.0), st.booleans()), min_size=2, max_size=EXAMPLES), st.sampled_from([BELLY, SHOULDERS]))
def test_no_other_line_agrees_with_more(sorted_as: list[tuple[float, bool]], line) -> None:
    if len({fine for _, fine in sorted_as}) < 2:
        return
    found = proposed(line, examples(*sorted_as), 0.5)
    values = sorted(value for value, _ in sorted_as)
    tried = [values[0] - 1, *values, values[-1] + 1, *(0.5 * (a + b) for a, b in zip(values, values[1:], strict=False))]
    agree = [sum((value >= at if line.fine == "above" else value <= at) == fine for value, fine in sorted_as) for at in tried]
    assert found.agrees >= max(agree) and found.agrees == len(sorted_as) - len(found.misjudged) >= found.agrees_now


@given(st.lists(st.floats(0.0, 1.0), max_size=40), st.floats(0.0, 1.0))
def test_the_takes_nearest_to_the_line_are_asked_about_first_and_each_once(values: list[float], now: float) -> None:
    first, others = spread(values, now), spread(values, now, EXAMPLES)
    assert len(first) == min(len(values), EXAMPLES) and not {*first} & {*others}
    assert [values[i] for i in first] == sorted(values[i] for i in first)
    if others:
        assert max(abs(values[i] - now) for i in first) <= min(abs(values[i] - now) for i in others)


def test_a_ground_without_the_kept_shapes_is_judged_as_it_was_read() -> None:
    """A reading of an older release has them not."""
    ground = reading("standing-full-early", Rules()).ground
    older = replace(ground, judged=replace(ground.judged, measures=[m for m in ground.judged.measures if not m.key.startswith("exhale_from")]))
    assert states(older, Rules()) == states(ground, Rules())
    assert "even_exhale" not in flipped(older, resolve([layer_of(Method({"breathing_out": "let_fall"}))]))
