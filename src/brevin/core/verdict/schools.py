"""Where teachers disagree: the five questions of a programme's method and two finer ones, the schools that answer them, and what each answer changes of the
rules."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field
from typing import Literal, get_args

from brevin.core.breath.shape import RELEASES
from brevin.core.errors import InvalidInput
from brevin.core.kinds import IMPORTANCE, Importance
from brevin.core.verdict.rules import LIMITS, CriterionKey, Layer, order_from

Question = Literal["breathing_in", "breathing_out", "first_sounds", "tongue", "practice", "between", "fullness"]
QUESTIONS: tuple[Question, ...] = get_args(Question)
FINER: tuple[Question, ...] = ("between", "fullness")
"""Asked of nobody: as usual until somebody answers them."""
Strictness = Literal["milder", "usual", "stricter"]
STRICTNESS: tuple[Strictness, ...] = get_args(Strictness)


@dataclass(frozen=True)
class School:
    """One way to teach. limits, off: what it changes of the starting values; nothing where no verdict depends on it."""

    limits: Mapping[str, float] = field(default_factory=dict)
    off: frozenset[CriterionKey] = frozenset()


SCHOOLS: dict[Question, dict[str, School]] = {
    "breathing_in": {
        "belly_then_ribs": School(),
        "belly_only": School(limits={"abdomen_leads.steady": LIMITS["pattern.share_low"].value}),  # what is low then wide is marked watch
    },
    "breathing_out": {
        "slow_and_even": School(),
        "let_fall": School(limits={"even_exhale.release": RELEASES["exhale_from_fall"]}),  # let go at once and running out is the shape that is asked for
        "small_pushes": School(off=frozenset({"even_exhale"})),  # stops are wanted: how evenly it goes says nothing
    },
    "first_sounds": {"one_part": School(), "whole": School()},
    "tongue": {"air_first": School(), "at_once": School()},
    "practice": {"every_day": School(), "most_days": School(), "now_and_then": School()},
    "between": {
        "no_pause": School(),
        "short_set": School(limits={"pause.steady_beats": 0.5}),  # set, then let go with the tongue
        "counted_pause": School(limits={"pause.steady_beats": 1.0}),  # pausing is practised: a beat more than the card has is none too much
    },
    "fullness": {
        "over_all_counts": School(),
        "counts_are_time": School(off=frozenset({"not_full_early", "even_intake", "inhale_counts", "pause"})),  # who is full early waits for the count
    },
}
"""Each question's schools in the order they are shown. Source: own, after the ways that beginners' teachers describe."""

FLIPPING: tuple[Question, ...] = tuple(question for question, schools in SCHOOLS.items() if any(one.limits or one.off for one in schools.values()))
"""The questions of which a verdict depends: a card may be judged by another school there than the programme follows."""

USUAL: dict[Question, str] = {
    "breathing_in": "belly_then_ribs", "breathing_out": "slow_and_even", "first_sounds": "one_part", "tongue": "air_first", "practice": "most_days",
    "between": "no_pause", "fullness": "over_all_counts",
}  # fmt: skip
"""What holds where a question is open."""

TOLERANCES = (
    "shoulders_still.steady", "shoulders_still.work", "shoulders_still.work_share", "shoulders_still.work_most", "counts.steady_beats",
    "counts.steady_share", "counts.least_s", "exhale_counts.steady_beats", "exhale_counts.steady_share", "exhale_counts.work_beats",
    "exhale_counts.work_share", "with_count.steady", "with_count.work", "even_intake.steady", "even_intake.work", "even_exhale.steady", "even_exhale.work",
    "pause.steady_beats", "pause.steady_s", "inclination.steady_low", "inclination.steady_high", "inclination.work_low", "inclination.work_high",
    "tall.steady", "tall.work", "rounding.steady", "rounding.work", "head_forward.steady", "head_forward.work", "shoulder_tilt.steady",
    "shoulder_tilt.work", "head_level.steady", "head_level.work", "head_with_flute.steady", "head_with_flute.work",
    "body_still.steady", "body_still.work", "head_travel.steady", "head_travel.work", "raise_spread.steady", "raise_spread.work", "arms_stay_up.steady",
    "arms_stay_up.work", "wrist.steady", "wrist.work",
)  # fmt: skip
"""Limits that a deviation is to stay under."""
FLOORS = ("full_breath.steady", "full_breath.work", "full_early.steady", "full_early.work")
"""Limits that a value is to reach."""
TOLERANCE_TIMES: dict[Strictness, float] = {"milder": 1.5, "usual": 1.0, "stricter": 0.75}
FLOOR_TIMES: dict[Strictness, float] = {"milder": 0.85, "usual": 1.0, "stricter": 1.15}


@dataclass(frozen=True)
class Method:
    """How a programme teaches. answers: question to school, the open ones left out; strictness: of every limit that it touches at once;
    order: which fault is spoken of first."""

    answers: Mapping[Question, str] = field(default_factory=dict)
    strictness: Strictness = "usual"
    order: tuple[Importance, ...] = IMPORTANCE


def method_from(document: Mapping[str, object]) -> Method:
    """A method from its document ``{"answers": {question: school}, "strictness": word, "order": […]}``. Raises InvalidInput(bad_method, bad_profile)."""
    answers = document.get("answers", {})
    if not isinstance(answers, Mapping):
        raise InvalidInput("bad_method", name="answers", wanted="an object of questions and schools")
    for question, school in answers.items():
        if question not in SCHOOLS:
            raise InvalidInput("bad_method", name=str(question), wanted="one of " + ", ".join(QUESTIONS))
        if school not in SCHOOLS[question]:
            raise InvalidInput("bad_method", name=str(question), wanted="one of " + ", ".join(SCHOOLS[question]))
    strictness = document.get("strictness", "usual")
    if strictness not in STRICTNESS:
        raise InvalidInput("bad_method", name="strictness", wanted="one of " + ", ".join(STRICTNESS))
    return Method(dict(answers), strictness, order_from(document.get("order", [])) or IMPORTANCE)


def to_document(method: Method) -> dict[str, object]:
    """The method's document; ``method_from(to_document(method)) == method``."""
    return {"answers": dict(method.answers), "strictness": method.strictness, "order": list(method.order)}


def layer_of(method: Method, without: Collection[Question] = ()) -> Layer:
    """What the method changes of the rules; the usual method changes nothing. without: questions that the card answers by itself."""
    limits, off = _of({question: school for question, school in method.answers.items() if question not in without})
    return Layer(name="method", limits=strict_limits(method.strictness) | limits, off=off, order=method.order)


def card_layer(taught: Mapping[Question, str]) -> Layer:
    """What a card changes that is judged by schools of its own."""
    limits, off = _of(taught)
    return Layer(name="card", limits=limits, off=off)


def _of(answers: Mapping[Question, str]) -> tuple[dict[str, float], frozenset[CriterionKey]]:
    schools = [SCHOOLS[question][school] for question, school in answers.items()]
    return {name: value for school in schools for name, value in school.limits.items()}, frozenset[CriterionKey]().union(*(one.off for one in schools))


def strict_limits(strictness: Strictness) -> dict[str, float]:
    """Every limit that being milder or stricter changes, with its value."""
    if strictness == "usual":
        return {}
    tolerances = {name: round(LIMITS[name].value * TOLERANCE_TIMES[strictness], 4) for name in TOLERANCES}
    return tolerances | {name: round(LIMITS[name].value * FLOOR_TIMES[strictness], 4) for name in FLOORS}
