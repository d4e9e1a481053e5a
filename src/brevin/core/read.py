"""The story: a sighting in, evidence kept, a report out. The same reading serves job, command line, breath lab and tests.

    Sighting --evidence--> Evidence --judge--> Reading

``evidence`` is made once; ``judge`` as often as rules, exemptions, player, turns or beat one change.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from itertools import zip_longest

from brevin import __version__
from brevin.core import gate
from brevin.core.breath import both_sides
from brevin.core.breath.breaths import BreathTurns, breaths
from brevin.core.breath.counted import counted_rise
from brevin.core.breath.edits import with_moved
from brevin.core.breath.fullness import OwnBreaths, own_full, sizes_of
from brevin.core.breath.measures import as_far_as_seen, exhale_shape, measures_of, pattern
from brevin.core.breath.one import OneBreath
from brevin.core.breath.patterns import NOT_SURE, as_the_others
from brevin.core.breath.timing import card_index
from brevin.core.breath.way_in import way_in
from brevin.core.breath_gate import breath_advice, by_shoulders, unreadable_breath, with_notes
from brevin.core.drawn import player_seen
from brevin.core.edited import Edits
from brevin.core.errors import InvalidInput
from brevin.core.evidence import Evidence, Followed, evidence
from brevin.core.hold.upright import Upright, moving, upright
from brevin.core.kinds import Position, View
from brevin.core.kinematics.posture import backs_of, bodies_of, sank
from brevin.core.layout import breath_of, hands_of, hold_of, is_held, posture_of, scale_of, trace_of
from brevin.core.measure import Measure, withheld
from brevin.core.music.clicks import NO_BEATS, Beats, from_clicks, tempo_heard
from brevin.core.music.grids import by_hand, fitted, recorded, whole_beats_off
from brevin.core.plan.check import Check, to_document
from brevin.core.report import SCHEMA, BeatGrid, Breath, Exempt, Posture, ReadableFor, Reason, Report, Software, SoundHeard
from brevin.core.track import Sighting
from brevin.core.verdict import rules as ruling
from brevin.core.verdict.again import Ground
from brevin.core.verdict.criteria import BREATHED, exempt_measures
from brevin.core.verdict.judge import Judged, cue
from brevin.core.verdict.rules import Rules


@dataclass(frozen=True)
class Task:
    """What a clip is read for: the check, and where the app's own count put the first inhale on the clip's clock (None where nobody but the clip
    knows), and how large the same student's breaths were in other takes that can be compared."""

    check: Check = Check()
    first_inhale_s: float | None = None
    known: OwnBreaths = OwnBreaths()


@dataclass(frozen=True)
class Reading:
    """report: the record of the reading; ground: every number of its whole breaths and of the clip, and what else its verdicts stand on besides the rules;
    None where nobody was read."""

    report: Report
    ground: Ground | None = None


def read(sighting: Sighting, task: Task, rules: Rules | None = None) -> Report:
    """Read one clip. Never guesses: what could not be measured is None, and ``reasons`` says why."""
    return judge(evidence(sighting), task, rules).report


def judge(found: Evidence, task: Task, rules: Rules | None = None, edits: Edits | None = None) -> Reading:
    """Judge what is kept of a clip. Raises InvalidInput(bad_edit) where an edit does not fit."""
    rules, edits, task = rules or Rules(), edits or Edits(), replace(task, check=task.check.judged)
    asked = _Asked(found, task, rules, edits)
    who, counted = _who(found, edits), _counted(asked)
    if who is None:
        return Reading(_report(asked, None, _Breathing(), _beats(asked, counted, [])))
    seen = bodies_of(found.poses, who.player)
    backs = backs_of(seen, who.player) if who.view != "front" else ()
    breathing = _breathing(asked, who, counted, lambda: sank(seen, backs, who.player))
    beats = _beats(asked, counted, breathing.turns if breathing.readable else [])
    whole, partial = _split(asked, who, breathing, beats)
    whole, breathing = _counted_in(asked, whole, breathing, beats)
    whole = [(breath, own) for breath, (_, own) in zip(both_sides.marked(task.check, [b for b, _ in whole]), whole, strict=True)]
    own = own_full(task.known, sizes_of(m for _, own in whole for m in own)) if breathing.readable else None
    stood = upright(found, who, _position(task, who), task.check, [b for b, _ in whole], beats, told=breathing.readable, backs=backs, line=edits.line)
    of_breaths = [m for _, own in whole for m in own]
    other = both_sides.other_side([b for b, _ in whole])
    measures = (
        *of_breaths,
        *both_sides.difference(task.check, of_breaths, other),
        *([counted_rise(who.traces, beats, task.check.card)] if who.view == "front" and not whole else ()),
        *withheld(moving(stood.measures, breathing.stops), exempt_measures(rules), "exempt"),
    )
    why_not = [r for r in breathing.stops if r.check in ("breath", "all")]
    ground = Ground(Judged(measures, who.view, _position(task, who), breathing.readable, why_not, other), task.check, beats.beat_s, own)
    return Reading(_report(asked, who, breathing, beats, ([b for b, _ in whole], [b for b, _ in partial]), ground, stood), ground)


@dataclass(frozen=True)
class _Asked:
    found: Evidence
    task: Task
    rules: Rules
    edits: Edits


@dataclass(frozen=True)
class _Breathing:
    """turns: of every breath; stops: what keeps the breath from being judged; advice: what else is worth a word."""

    turns: Sequence[BreathTurns] = ()
    stops: Sequence[Reason] = ()
    advice: Sequence[Reason] = ()

    @property
    def readable(self) -> bool:
        return not self.stops


def _who(found: Evidence, edits: Edits) -> Followed | None:
    """Whom to read: the one chosen by hand, else the edge's own choice where it was clear."""
    if edits.player is not None:
        if not 0 <= edits.player < len(found.players):
            raise InvalidInput("bad_edit", name="player", wanted=f"one of the {len(found.players)} people who were followed")
        return found.players[edits.player]
    return found.players[0] if found.players and not found.refused else None


def _position(task: Task, who: Followed) -> Position:
    """As the check says, else as it was found."""
    return who.position if task.check.position == "auto" else task.check.position


def seen_as(found: Evidence, task: Task, edits: Edits) -> tuple[View, Position] | None:
    """From which view and in which position the player is read: what takes have to share to be compared. None where nobody is read."""
    return (who.view, _position(task, who)) if (who := _who(found, edits)) else None


def _breathing(asked: _Asked, who: Followed, counted: Beats, sunk: Callable[[], bool]) -> _Breathing:
    """The breaths and the quality gate's word on them. sunk: whether the trunk is another one at the end."""
    by_count = way_in(who.traces.t_s, counted, asked.task.check.card)
    turns = with_moved(breaths(who.traces, by_count), asked.edits.turns)
    stops, advice = gate.picture_reasons(asked.found.stretch(who), view=who.view, moved=who.traces)
    if who.view != "front":
        stops = [*stops, *unreadable_breath(who, turns, stops, sunk)]
        advice = [*advice, *(one for one in breath_advice(who, turns, sunk) if one.code not in {stop.code for stop in stops})]
    return _Breathing(turns, *with_notes(stops, advice, gate.reasons_of(asked.found.notes)))


def _counted(asked: _Asked) -> Beats:
    """The beat grid without the breaths: heard, or counted by the app; a beat one moved by hand goes before all."""
    card = asked.task.check.card
    beats = from_clicks(asked.found.onsets, card)
    if asked.edits.first_inhale_s is not None:
        return by_hand(card, beats, asked.edits.first_inhale_s)
    return beats if beats.source is not None else recorded(card, asked.task.first_inhale_s)


def _beats(asked: _Asked, counted: Beats, turns: Sequence[BreathTurns]) -> Beats:
    """The beat grid as it was counted, else fitted to the breaths."""
    starts_s = [turn.inhale_start.t_s for turn in turns if turn.whole and turn.inhale_start]
    return counted if counted.source is not None else fitted(asked.task.check.card, starts_s)


Measured = list[tuple[Breath, list[Measure]]]
_Split = tuple[Sequence[Breath], Sequence[Breath]]  # whole and cut


def _split(asked: _Asked, who: Followed, breathing: _Breathing, beats: Beats) -> tuple[Measured, Measured]:
    """Whole and cut breaths with their numbers; only the times where the breath is not readable."""
    whole: Measured = []
    partial: Measured = []
    exempt = exempt_measures(asked.rules)
    card, turned = asked.task.check.card, who.view == "three-quarter"
    following = [turns.inhale_start for turns in breathing.turns[1:]]
    ones = [OneBreath(turns, start, who.traces, beats, card, asked.rules, turned) for turns, start in zip_longest(breathing.turns, following)]
    named = breathing.readable and not exempt & {"abdominal_share"}
    for one, name in zip(ones, as_the_others([pattern(one) if named else NOT_SURE for one in ones]), strict=True):
        kept = whole if one.turns.whole else partial
        told = withheld(measures_of(one, len(kept)), exempt, "exempt")
        own = as_far_as_seen(told, front=who.view == "front", readable=breathing.readable, by_shoulders=by_shoulders(who, breathing.turns))
        shaped = exhale_shape(one) if breathing.readable else None
        kept.append((breath_of(own, name, exhale_shape=shaped, card_index=card_index(one)), own))
    return whole, partial


OFFSETS = frozenset({"inhale_offset_beats", "exhale_offset_beats", "next_offset_beats"})


def _counted_in(asked: _Asked, whole: Measured, breathing: _Breathing, beats: Beats) -> tuple[Measured, _Breathing]:
    """Where every breath starts the same whole beats off, another count-in was counted: that is said, and no start is judged."""
    starts = [m.amount.value for _, own in whole for m in own if m.key == "inhale_offset_beats" and m.amount is not None]
    off = whole_beats_off(starts, card.cycle_beats) if (card := asked.task.check.card) and beats.source == "clicks" and breathing.readable else 0
    if not off:
        return whole, breathing
    said = gate.reason("other_count_in", {"beats": abs(off), "side": "later" if off > 0 else "earlier"})
    unjudged = [(breath, withheld(own, OFFSETS, "another_count_in")) for breath, own in whole]
    return unjudged, replace(breathing, advice=[*breathing.advice, said])


def _report(
    asked: _Asked, who: Followed | None, breathing: _Breathing, beats: Beats, split: "_Split" = ((), ()), ground: Ground | None = None,
    stood: Upright | None = None,
) -> Report:  # fmt: skip
    found, task, rules, (whole, partial) = asked.found, asked.task, asked.rules, split
    reasons = [*_reasons(asked, who, breathing, beats), *(stood.advice if stood else ())]
    measures, said = (ground.judged.measures, ground.verdicts(rules)) if ground else ((), [])
    stance, holding = (
        posture_of(measures) if who else Posture(),
        hold_of(measures, task.check.in_hands, found, who, hands_of(found, who, stood.hands, stood.stills, measures) if stood and who else None),
    )
    breath, upright = who is not None and breathing.readable, any(value is not None for value in vars(stance).values())
    return Report(
        schema=SCHEMA,
        software=Software(version=__version__, thresholds_id=rules.thresholds_id, profile_id=rules.profile_id),
        clip=found.clip,
        view=who.view if who else None,
        position=_position(task, who) if who else None,
        readable=breath or upright,
        readable_for=ReadableFor(breath=breath, posture=upright, hold=is_held(holding), sound=beats.source == "clicks"),
        reasons=reasons,
        player=player_seen(asked.found, who, stood, measures, exempt_measures(rules)),
        scale=scale_of(found, who),
        beats=BeatGrid(beats.tempo_bpm, beats.first_inhale_s, beats.source, beats.residual_s),
        trace=trace_of(who, exempt_measures(rules)),
        segments=list(stood.segments) if stood else [],
        breaths=list(whole),
        partial_breaths=list(partial),
        posture=stance,
        hold=holding,
        drill=None,
        sound=SoundHeard(tones=[], clicks_s=list(beats.clicks_s), breath_noise=[]) if found.clip.has_sound else None,
        verdicts=said,
        cue=cue(said, rules.order),
        check=to_document(task.check),
        rules=ruling.to_document(rules),
        edits=asked.edits,
        people=len(found.players),
        own_full=ground.own_full if ground else None,
        exempt=[Exempt(key) for key in ground.exempt(rules)] if ground else [],
    )


def _reasons(asked: _Asked, who: Followed | None, breathing: _Breathing, beats: Beats) -> list[Reason]:
    """Everything worth saying of a clip, what stops first. Where nobody could be picked: why, then what the edge noticed."""
    if who is None:
        return gate.reasons_of((*asked.found.refused, *asked.found.notes)) or [gate.reason("no_person")]
    silent = asked.task.check.card is not None and beats.source in (None, "fitted")
    grid = [gate.reason("no_beats" if beats is NO_BEATS else "beats_fitted")] if silent else []
    heard_bpm = tempo_heard(asked.found.onsets) if silent else None
    if heard_bpm is not None and asked.task.check.card is not None:
        grid = [gate.reason("other_tempo", {"heard_bpm": round(heard_bpm), "card_bpm": round(asked.task.check.card.tempo_bpm)})]
    said = [*breathing.stops, *breathing.advice, *grid]
    return said if asked.task.check.kind in BREATHED else [one for one in said if one.check != "breath"]
