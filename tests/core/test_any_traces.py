"""Whatever the edge may hand over, a reading ends with a report: any traces, gaps, lengths, cards and rules."""

import json
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from brevin.core.evidence import Evidence, Followed
from brevin.core.kinds import REGIONS
from brevin.core.kinematics.traces import Traces
from brevin.core.music.clicks import Onsets
from brevin.core.plain import to_json
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.core.read import Task, judge
from brevin.core.track import ClipFacts, PoseSample
from brevin.core.verdict.headline import headline, headline_words
from brevin.core.verdict.wording import with_sentences
from tests.core.made import body, picture, player

RATE_HZ = 25.0
CARDS = ("4-0-4@72x3", "0.5-0-8@80x6", "4-0-*@60x1", "2-2-2-2@90x3", "8-4-12@40x2", "1-0-1@180x20")

shapes = st.sampled_from(["still", "walk", "breath", "falls", "steps", "spikes", "ramp", "huge", "quick"])


def trace(kind: str, n: int, seed: int) -> np.ndarray:
    """One region's trace, percent of trunk."""
    random = np.random.default_rng(seed)
    t = np.arange(n) / RATE_HZ
    return {
        "still": np.zeros(n), "walk": 0.2 * np.cumsum(random.normal(size=n)), "breath": 3.0 * np.clip(np.sin(0.9 * t), 0, 1) + 0.02 * random.normal(size=n),
        "falls": -3.0 * np.clip(np.sin(0.9 * t), 0, 1), "steps": 2.0 * (np.floor(t / 3) % 2), "spikes": np.where(random.uniform(size=n) < 0.02, 8.0, 0.0),
        "ramp": 0.3 * t, "huge": 1e4 * np.sin(t), "quick": np.sin(2 * np.pi * 4 * t),
    }[kind]  # fmt: skip


@st.composite
def anything(draw) -> tuple[Evidence, Task]:
    n = draw(st.integers(2, 700))
    kinds = draw(st.tuples(shapes, shapes, shapes))
    seen = draw(st.tuples(st.booleans(), st.booleans(), st.booleans()))
    view = draw(st.sampled_from(["side-left", "side-right", "front", "three-quarter", "back"]))
    position = draw(st.sampled_from(["seated", "standing", "lying"]))
    seed, noise = draw(st.integers(0, 999)), draw(st.sampled_from([0.0, 0.05, 1.0]))
    t_s = np.arange(n) / RATE_HZ
    hole = draw(st.integers(0, n))
    kept = np.concatenate([t_s[:hole], t_s[hole:] + draw(st.sampled_from([0.0, 0.5, 30.0]))])
    values = dict(zip(REGIONS, (trace(kind, n, seed + i) for i, kind in enumerate(kinds)), strict=True))
    moved = Traces(
        t_s=t_s, **values, width=trace(draw(shapes), n, seed), confidence=np.ones(n), noise=dict.fromkeys((*REGIONS, "width"), noise),
        model=dict.fromkeys(REGIONS, 0.2), seen=dict(zip(REGIONS, seen, strict=True)), sway_pct=draw(st.sampled_from([0.0, 0.3, 9.0])),
        holes=((1.0, 2.0),) if draw(st.booleans()) else (),
    )  # fmt: skip
    poses = tuple(PoseSample(float(t), (body(view="side-left"),)) for t in t_s[:: draw(st.integers(1, 50))])
    good = replace(picture(n), change=np.full(n, draw(st.sampled_from([0.0, 0.3]))), light=np.full(n, draw(st.sampled_from([5.0, 120.0]))))
    who = Followed(replace(player(len(poses)), others=0), view, position, moved, good, np.zeros((0, 2, 2)))
    clicks = Onsets(np.abs(trace(draw(shapes), draw(st.integers(0, 6000)), seed)), draw(st.sampled_from([-1.0, 0.0, 0.4]))) if draw(st.booleans()) else None
    found = Evidence(ClipFacts("x.mp4", n / RATE_HZ, RATE_HZ, 960, 540, 0, clicks is not None), kept, poses, (who,), clicks, (), (), ())
    card = draw(st.sampled_from([None, *CARDS]))
    check = Check(card=parse(card) if card else None, kind=draw(st.sampled_from(["counted_breathing", "posture", "tone"])))
    return found, Task(check, draw(st.sampled_from([None, 0.0, 5.0])))


@settings(print_blob=False)
@given(anything())
def test_a_reading_always_ends_with_a_report_that_can_be_stored_and_said(given_: tuple[Evidence, Task]) -> None:
    found, task = given_
    report = judge(found, task).report
    document = json.loads(json.dumps(to_json(report), allow_nan=False))
    shown = with_sentences(document)
    assert all(v["title"] and v["why"] for v in shown["verdicts"]) and headline_words(headline(report))
    for breath in report.breaths:
        assert breath.inhale_start_s <= breath.inhale_end_s <= breath.exhale_start_s + 1e-6 and breath.exhale_start_s <= breath.exhale_end_s + 1e-6


def test_a_chest_that_only_sinks_was_once_the_end_of_the_program() -> None:
    n = 500
    flat = np.zeros(n)
    moved = Traces(
        np.arange(n) / RATE_HZ, flat, trace("falls", n, 1), flat, flat, np.ones(n), dict.fromkeys((*REGIONS, "width"), 0.01),
        dict.fromkeys(REGIONS, 0.2), {"abdomen": True, "chest": True, "shoulder": False}, 0.1,
    )  # fmt: skip
    who = Followed(player(1), "side-left", "standing", moved, picture(n), np.zeros((0, 2, 2)))
    found = Evidence(ClipFacts("x.mp4", 20.0, RATE_HZ, 960, 540, 0, False), moved.t_s, (PoseSample(0.0, (body(),)),), (who,), None, (), (), ())
    assert judge(found, Task()).report.schema
