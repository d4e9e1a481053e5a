"""What is kept of a clip: whole, small, versioned, and judged as often as wanted without the clip."""

import zlib
from dataclasses import replace

import numpy as np
import pytest

from brevin.core import packing
from brevin.core.edited import Edits, MovedTurn
from brevin.core.errors import InvalidInput
from brevin.core.evidence import KIND, VERSION, Evidence, evidence, packed, unpacked
from brevin.core.plain import to_json
from brevin.core.plan.check import Check
from brevin.core.read import Task, judge, read
from brevin.core.verdict.rules import Rules, layer_from, resolve
from brevin.core.verdict.wording import with_sentences
from tests.core.made import HIGH, LOW, shape, sighting


def kept(**kwargs) -> tuple[Evidence, Task]:
    made, _, card = sighting(**kwargs)
    return evidence(made), Task(Check(card=card))


def test_what_is_unpacked_is_what_was_packed_and_is_judged_alike() -> None:
    made, _, card = sighting()
    task, content = Task(Check(card=card)), packed(evidence(made))
    assert packed(unpacked(content)) == content
    assert to_json(judge(unpacked(content), task).report) == to_json(read(made, task))
    assert len(content) < 4000 * made.t_s[-1], "a few kilobytes a second, beside a clip of some hundred"
    assert content.startswith(f"brevin.evidence {VERSION}\n".encode())


def test_armpits_are_kept_where_they_were_looked_for() -> None:
    made, _, _ = sighting()
    pits = np.array([[31.5, 78.25], [np.nan, np.nan]])
    first = replace(made.poses[0], bodies=(replace(made.poses[0].bodies[0], shape=replace(shape(), pits_pct=pits)),))
    again = replace(made.poses[1], bodies=(replace(made.poses[1].bodies[0], shape=shape()),))
    looked, unlooked = (one.bodies[0].shape for one in unpacked(packed(evidence(replace(made, poses=[first, again, *made.poses[2:]])))).poses[:2])
    assert np.allclose(looked.pits_pct, pits, atol=0.05, equal_nan=True) and unlooked.pits_pct is None


@pytest.mark.parametrize(
    "damage",
    [
        lambda c: c[: len(c) // 2], lambda c: c[:-1], lambda c: b"", lambda c: b"not ours at all", lambda c: c.replace(b"evidence", b"sighting", 1),
        lambda c: c[:30] + bytes([c[30] ^ 255]) + c[31:], lambda c: c.split(b"\n")[0] + b"\n" + zlib.compress(b"\x00\x00\x00\x02{}"),
        lambda c: c.split(b"\n")[0] + b"\n" + zlib.compress(b"\xff\xff\xff\xff"),
    ],
)  # fmt: skip
def test_a_damaged_file_is_refused_and_never_half_read(damage) -> None:
    with pytest.raises(InvalidInput) as why:
        unpacked(damage(packed(kept()[0])))
    assert why.value.code == "damaged"


def test_a_file_that_would_fill_the_memory_is_refused(monkeypatch) -> None:
    monkeypatch.setattr(packing, "MOST_BYTES", 1000)
    with pytest.raises(InvalidInput):
        unpacked(packed(kept()[0]))


def test_another_version_says_so() -> None:
    found, _ = kept()
    older = packing.pack(found, kind=KIND, version=VERSION + 1)
    assert packing.version_of(older, kind=KIND) == VERSION + 1
    with pytest.raises(InvalidInput) as why:
        unpacked(older)
    assert (why.value.code, why.value.facts["version"]) == ("other_version", VERSION + 1)


def test_other_limits_judge_the_same_evidence_otherwise() -> None:
    found, task = kept()
    loose, strict = (judge(found, task, resolve([layer_from({"limits": {"shoulders_still.steady": limit}})])).report for limit in (5.0, 0.1))
    assert [v.state for r in (loose, strict) for v in r.verdicts if v.criterion == "shoulders_still"] == ["steady", "watch"]
    assert [b.shoulder_rise for b in loose.breaths] == [b.shoulder_rise for b in strict.breaths]
    assert loose.software.thresholds_id != strict.software.thresholds_id


def test_an_exempt_item_is_neither_measured_nor_counted() -> None:
    found, task = kept()
    rules = resolve([layer_from({"exempt": ["trunk_inclination", "shoulders_still"]}, name="student")])
    reading = judge(found, task, rules)
    assert not {"trunk_inclination", "shoulders_still"} & {v.criterion for v in reading.report.verdicts}
    assert reading.report.posture.trunk_inclination_deg is None and reading.report.trace.shoulder == [] and reading.report.trace.chest
    assert all(b.shoulder_rise is None and b.withheld["shoulder_rise"] == "exempt" for b in reading.report.breaths)
    assert not reading.report.player.outlines and judge(found, task).report.player.outlines, "a back that is not measured is not drawn either"
    assert not any(m.amount for m in reading.ground.judged.measures if m.key in ("trunk_inclination_deg", "shoulder_rise"))


def test_what_a_student_is_exempt_from_is_said_where_it_would_have_been_asked_for() -> None:
    found, task = kept()
    rules = resolve([layer_from({"exempt": ["trunk_inclination", "shoulders_still", "elbow_left"]}, name="student")])
    report = judge(found, task, rules).report
    shown = with_sentences(to_json(report))["exempt"]
    assert {one["criterion"]: one["title"] for one in shown} == {
        "shoulders_still": "Shoulders still", "trunk_inclination": "Stays tall", "keeps_tall": "Tall to the end", "back_rounding": "Back long",
    }, "no elbow is asked for; who need not be tall need not stay so"  # fmt: skip
    assert judge(found, task).report.exempt == []


def test_a_turn_moved_by_hand_moves_its_lengths_and_keeps_the_rest() -> None:
    found, task = kept()
    before = judge(found, task).report
    was_s = before.breaths[1].inhale_end_s
    edits = Edits(turns=[MovedTurn("inhale_end", was_s, was_s - 0.5)])
    after = judge(found, task, edits=edits).report
    assert after.breaths[1].inhale_end_s == pytest.approx(was_s - 0.5) and after.edits == edits
    assert after.breaths[1].inhale_beats < before.breaths[1].inhale_beats - 0.5 and after.breaths[1].uncertainty["inhale_end_s"] < 0.1
    assert after.breaths[0] == before.breaths[0] and after.breaths[2] == before.breaths[2]


@pytest.mark.parametrize("was_off_s, to_s", [(3.0, 0.0), (0.0, 90.0), (0.0, -50.0)], ids=["no turn there", "after all others", "before all others"])
def test_a_turn_that_would_break_the_order_is_refused(was_off_s: float, to_s: float) -> None:
    found, task = kept()
    was_s = judge(found, task).report.breaths[1].inhale_end_s
    with pytest.raises(InvalidInput) as why:
        judge(found, task, edits=Edits(turns=[MovedTurn("inhale_end", was_s + was_off_s, was_s + to_s)]))
    assert why.value.code == "bad_edit"


def test_beat_one_moved_by_hand_moves_every_start_against_the_count() -> None:
    found, task = kept()
    before = judge(found, task).report
    after = judge(found, task, edits=Edits(first_inhale_s=before.beats.first_inhale_s - before.beats.residual_s - 60 / before.beats.tempo_bpm)).report
    assert after.beats.source == "recorded" and after.beats.tempo_bpm == before.beats.tempo_bpm
    for moved, stood in zip(after.breaths, before.breaths, strict=True):
        assert moved.inhale_offset_beats == pytest.approx(stood.inhale_offset_beats + 1.0, abs=0.02)
        assert moved.inhale_start_s == stood.inhale_start_s


def test_another_player_of_the_clip_is_judged_from_what_was_kept() -> None:
    made, _, card = sighting(cycles=[LOW] * 3)
    other, _, _ = sighting(cycles=[HIGH] * 3)
    found, task = evidence(replace(made, others=(other,))), Task(Check(card=card))
    assert [judge(found, task, edits=Edits(player=p)).report.breaths[0].pattern for p in (None, 0, 1)] == ["low_then_wide", "low_then_wide", "chest_high"]
    assert judge(found, task).report.people == 2
    with pytest.raises(InvalidInput):
        judge(found, task, edits=Edits(player=2))


def test_a_toss_up_is_refused_until_somebody_says_who_plays() -> None:
    made, _, card = sighting()
    found, task = evidence(replace(made, refused=(("player_unclear", {"people": 2.0}),), others=(made,))), Task(Check(card=card))
    refused = judge(found, task).report
    assert not refused.readable and [r.code for r in refused.reasons] == ["player_unclear"] and refused.people == 2
    chosen = judge(found, task, edits=Edits(player=1)).report
    assert chosen.readable and len(chosen.breaths) == 3 and chosen.reasons == []


def test_a_position_that_the_check_names_reaches_verdicts_and_posture() -> None:
    found, task = kept()
    lying = judge(found, Task(replace(task.check, position="lying"))).report
    assert lying.position == "lying" and lying.posture.trunk_inclination_deg is None
    assert not {"abdomen_leads", "trunk_inclination"} & {v.criterion for v in lying.verdicts}


def test_nobody_in_the_clip_is_kept_as_well() -> None:
    made, _, card = sighting()
    nobody = replace(
        made, player=None, view=None, position=None, front=None, back=None, points=None, t_s=np.zeros(0), refused=(("no_person", {}),)
    )  # fmt: skip
    found = unpacked(packed(evidence(nobody)))
    assert found.players == () and judge(found, Task(Check(card=card)), Rules()).report.reasons[0].code == "no_person"
