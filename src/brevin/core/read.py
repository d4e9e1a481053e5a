"""The story: a sighting in, a report out. The same reading serves job, command line, breath lab and tests."""

from dataclasses import dataclass
from itertools import pairwise

from brevin import __version__
from brevin.core import gate
from brevin.core.breath.breaths import BreathTurns, breaths
from brevin.core.breath.measures import measured
from brevin.core.kinematics.posture import posture
from brevin.core.kinematics.trunk import Traces, traces
from brevin.core.music.clicks import Beats, from_clicks
from brevin.core.music.grids import fitted, recorded
from brevin.core.plan.card import CountCard
from brevin.core.report import (
    SCHEMA,
    BeatGrid,
    Breath,
    Clip,
    Hold,
    PlayerSeen,
    Posture,
    ReadableFor,
    Reason,
    Report,
    Scale,
    Segment,
    Software,
    SoundHeard,
    Trace,
)
from brevin.core.track import WORK_SIDE_PX, Sighting
from brevin.core.verdict.criteria import Asked
from brevin.core.verdict.judge import cue, verdicts
from brevin.core.verdict.profile import MethodProfile


@dataclass(frozen=True)
class Task:
    """What a clip is read for: the count card (None = no count), the instrument's name, the programme's limits, the position where the person said it,
    and where the app's own count put the first inhale on the clip's clock (None where nobody but the clip knows)."""

    card: CountCard | None = None
    instrument: str = "none"
    rules: MethodProfile = MethodProfile()
    position: str | None = None
    first_inhale_s: float | None = None


def read(sighting: Sighting, task: Task) -> Report:
    """Read one clip. Never guesses: what could not be measured is None, and ``reasons`` says why."""
    beats = from_clicks(sighting.sound, task.card)
    if beats.source is None:
        beats = recorded(task.card, task.first_inhale_s)
    if sighting.player is None:
        return _report(sighting, task, beats, reasons=gate.refused(sighting))
    moved = traces(sighting)
    turns = breaths(moved)
    judged = gate.judge(sighting, moved, turns)
    if beats.source is None and judged.breath:
        beats = fitted(task.card, [turn.inhale_start.t_s for turn in turns if turn.whole and turn.inhale_start])
    whole, partial = _measured(turns, moved, beats, task, amplitudes=judged.breath)
    return _report(
        sighting, task, beats, reasons=_with_beats(judged.reasons, beats, task), moved=moved, whole=whole, partial=partial,
        stance=posture(sighting, moved), breath=judged.breath,
    )  # fmt: skip


def _with_beats(reasons: list[Reason], beats: Beats, task: Task) -> list[Reason]:
    if task.card is None or beats.source in ("clicks", "recorded"):
        return reasons
    return [*reasons, gate.reason("no_beats" if beats.source is None else "beats_fitted")]


def _measured(turns: list[BreathTurns], moved: Traces, beats: Beats, task: Task, *, amplitudes: bool) -> tuple[list[Breath], list[Breath]]:
    """Whole and cut breaths with their numbers."""
    whole: list[Breath] = []
    partial: list[Breath] = []
    for turn, following in pairwise([*turns, None]):
        assert turn is not None
        breath = measured(turn, following, moved, beats, task.card, task.rules)
        (whole if turn.whole else partial).append(breath if amplitudes else _timing_only(breath))
    return whole, partial


TIMES = (
    "inhale_start_s", "inhale_end_s", "exhale_start_s", "exhale_end_s", "inhale_beats", "pause_beats", "exhale_beats", "empty_beats",
    "inhale_offset_beats", "exhale_offset_beats",
)  # fmt: skip


def _timing_only(breath: Breath) -> Breath:
    kept = {key: getattr(breath, key) for key in TIMES}
    return Breath(**kept, card_index=breath.card_index, uncertainty={k: breath.uncertainty.get(k) for k in TIMES})


def _report(
    sighting: Sighting, task: Task, beats: Beats, *, reasons: list[Reason], moved: Traces | None = None, whole: list[Breath] | None = None,
    partial: list[Breath] | None = None, stance: Posture | None = None, breath: bool = False,
) -> Report:  # fmt: skip
    stance = stance or Posture()
    position = task.position or sighting.position
    readable_for = ReadableFor(breath=breath, posture=any(v is not None for v in vars(stance).values()), hold=False, sound=beats.source == "clicks")
    why_not = [r for r in reasons if r.check in ("breath", "all")]
    found = [] if moved is None else verdicts(
        whole or [], stance, Asked(task.card, beats.beat_s, task.rules), view=sighting.view, position=position,
        breath_readable=breath, why_not=why_not,
    )  # fmt: skip
    return Report(
        schema=SCHEMA,
        software=Software(version=__version__, thresholds_id=task.rules.thresholds_id, profile_id=task.rules.profile_id),
        clip=Clip(**vars(sighting.clip)),
        view=sighting.view,
        position=position,
        readable=moved is not None and (breath or readable_for.posture),
        readable_for=readable_for,
        reasons=reasons,
        player=_player(sighting),
        scale=_scale(sighting),
        beats=BeatGrid(beats.tempo_bpm, beats.first_inhale_s, beats.source, beats.residual_s),
        trace=_trace(moved),
        segments=_segments(whole or []),
        breaths=whole or [],
        partial_breaths=partial or [],
        posture=stance,
        hold=Hold(instrument=task.instrument) if task.instrument != "none" else None,
        drill=None,
        sound=SoundHeard(tones=[], clicks_s=list(beats.clicks_s), breath_noise=[]) if sighting.sound is not None else None,
        verdicts=found,
        cue=cue(found),
    )


def _shrink(sighting: Sighting) -> float:
    return min(1.0, WORK_SIDE_PX / max(sighting.clip.width_px, sighting.clip.height_px))


def _player(sighting: Sighting) -> PlayerSeen | None:
    player = sighting.player
    if player is None:
        return None
    scale = 1.0 / _shrink(sighting)
    return PlayerSeen(
        from_s=player.from_s, box_px=[scale * v for v in player.box_px], others=player.others, hip_px=[scale * v for v in player.hip_px],
        up=list(player.up), forward=list(player.forward),
    )  # fmt: skip


def _scale(sighting: Sighting) -> Scale | None:
    if sighting.player is None:
        return None
    card_mm = None if sighting.mm_per_px is None else sighting.mm_per_px * _shrink(sighting)
    return Scale(trunk_px=sighting.player.trunk_px / _shrink(sighting), mm_per_px=card_mm, source="key points" if card_mm is None else "card")


def _trace(moved: Traces | None) -> Trace:
    if moved is None:
        return Trace([], [], [], [], [])
    values = {name: getattr(moved, name).tolist() if moved.seen[name] else [] for name in ("abdomen", "chest", "shoulder")}
    return Trace(t_s=moved.t_s.tolist(), confidence=moved.confidence.tolist(), **values)


def _segments(whole: list[Breath]) -> list[Segment]:
    """Inhales, pauses and exhales in order of time; a pause shorter than a tenth of a second is none."""
    found: list[Segment] = []
    for breath in whole:
        a, b, c, d = breath.inhale_start_s, breath.inhale_end_s, breath.exhale_start_s, breath.exhale_end_s
        assert a is not None and b is not None and c is not None and d is not None
        found.append(Segment("inhale", a, b))
        if c - b > 0.1:
            found.append(Segment("pause", b, c))
        found.append(Segment("exhale", c, d))
    return found
