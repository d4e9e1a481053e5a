"""Posture and hold of one player together: over which time they are judged, the segments of the clip, and every number of both."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from brevin.core import gate
from brevin.core.edited import TappedLine
from brevin.core.errors import InvalidInput
from brevin.core.evidence import Evidence, Followed
from brevin.core.hold import raising
from brevin.core.hold.held import Instrumental, held
from brevin.core.hold.levelled import facing, levelled
from brevin.core.hold.looks import Tapped
from brevin.core.hold.segments import segments, with_breaths
from brevin.core.kinds import SIDE_VIEWS, Position
from brevin.core.kinematics import heads, strikes
from brevin.core.kinematics.posture import Backs, Stance, bodies_of, posture
from brevin.core.kinematics.stickers import NONE, Worn, worn
from brevin.core.layout import segments_of
from brevin.core.measure import Measure, Withheld, withheld
from brevin.core.music.clicks import Beats
from brevin.core.plan.check import Check
from brevin.core.report import Breath, Reason, Segment

HEAD_PCT, FEET_PCT = (5.0, 120.0), (15.0, -80.0)  # about where they are, forward and up, percent of trunk: a camera that turns moves them each their own way
SHORTEST_LINE_SHARE = 0.03  # of the picture's longer side: a shorter line was one tap twice


@dataclass(frozen=True)
class Upright:
    """measures: of posture and hold; segments: what the clip shows when; hands: how high those on the instrument were; stills: what of it is shown; backs: the
    back at each moment that was looked at from the side; strikes_s: when a foot that taps strikes the floor; worn: the player's stickers; advice:
    what else is worth a word."""

    measures: Sequence[Measure]
    segments: Sequence[Segment]
    hands: raising.Hands
    stills: Sequence[raising.Still] = ()
    backs: Backs = ()
    strikes_s: Sequence[float] = ()
    worn: Worn = NONE
    advice: Sequence[Reason] = ()


def upright(
    found: Evidence, who: Followed, position: Position, check: Check, breaths: Sequence[Breath], beats: Beats, *, told: bool, backs: Backs,
    line: TappedLine | None = None,
) -> Upright:  # fmt: skip
    """Judged is the time with the instrument up where it was raised; else from the count-in's last beat to the last exhale that is seen or that the card has;
    where nothing was counted, from the first inhale; else the whole clip.

    told: whether the breaths are to be believed, and so are segments of the clip; backs: the player's back at each moment that was looked at; line: where
    somebody says that the instrument is. Raises InvalidInput(bad_edit) for a line that is none."""
    seen = bodies_of(found.poses, who.player)
    position = "lying" if who.position == "lying" else position  # whatever was asked: nothing stands against level in such a picture
    hands = raising.heights(seen, check.in_hands)
    shown = with_breaths(segments(hands), segments_of(breaths if told else ()))
    by_card_s = _by_the_card(check, beats, found)
    counted_s = _counted_s(breaths, beats, by_card_s)
    judged_s = [(one.to_s, one.until_s) for one in hands.raises] or counted_s
    backs = backs if who.view in SIDE_VIEWS and position != "lying" else ()
    stance = Stance(
        who.view, position, shown, judged_s, (found.t_s, who.picture.camera_pct(*HEAD_PCT)[:, 0]), bare=not check.held, backs=backs,
        picture_px=found.picture_px, worn=NONE if position == "lying" else worn(seen, who.view),
    )  # fmt: skip
    instrument = Instrumental(check.in_hands, found.lines, hands, who.player.forward[0], None if line is None else _tapped(found, line))
    stills = raising.stills(hands, seen, judged_s)
    measures = [*posture(seen, who.player, stance), *held(seen, who.player, stance, instrument)]
    if instrument.instrument == "flute" and position != "lying":
        measures.append(heads.to_flute(measures))
    over_room = who.feet_pct - who.picture.camera_pct(*FEET_PCT)[:, None, None, 1] if len(who.feet_pct) else who.feet_pct
    struck_s = strikes.strikes_s(found.t_s, over_room) if position != "lying" else None
    unseen: Withheld = "lying" if position == "lying" else "feet_unseen" if len(who.feet_pct) else "not_looked"
    measures += strikes.against_beats(struck_s, beats, next(iter(counted_s), by_card_s), unseen=unseen)
    measures = levelled(measures, found.tilt(who), facing(who.view, who.player))
    return Upright(measures, shown, hands, stills, backs, () if struck_s is None else tuple(struck_s), stance.worn, _on_its_side(who, check))


def _on_its_side(who: Followed, check: Check) -> list[Reason]:
    """A clip that a phone has kept lying on its side looks like somebody who lies down, as nobody was asked to."""
    return [gate.reason("lies_on_its_side")] if who.position == "lying" and check.position != "lying" else []


def _tapped(found: Evidence, line: TappedLine) -> Tapped:
    ends, most = np.array([line.near_px, line.far_px], float), np.array([found.clip.width_px, found.clip.height_px])
    inside = ends.shape == (2, 2) and bool(np.all((ends >= 0.0) & (ends <= most)))
    if not inside or np.hypot(*(ends[1] - ends[0])) < SHORTEST_LINE_SHARE * most.max():
        raise InvalidInput("bad_edit", name="line", wanted="two places in the picture that are apart")
    return Tapped(line.t_s, ends[0] * found.shrink, ends[1] * found.shrink)


def moving(measures: Sequence[Measure], stops: Sequence[Reason]) -> list[Measure]:
    """Of a picture that stands still nothing is told that changes slowly: it would be steady whatever was done."""
    if not any(reason.code == "frozen_picture" for reason in stops):
        return list(measures)
    return withheld(withheld(measures, ["sag_deg", "sag_deg_per_min", "sway_pct", "back_rounding_pct"], "seen_briefly"), ["axis_droop_deg"], "held_briefly")


def _counted_s(breaths: Sequence[Breath], beats: Beats, by_card_s: tuple[float, float] | None) -> list[tuple[float, float]]:
    """From the count-in's last beat to the last exhale that is seen, or that the card has: the last breaths may be lost to a trunk that sinks."""
    if not breaths:
        return []
    first_s, last_s = breaths[0].inhale_start_s, breaths[-1].exhale_end_s
    assert first_s is not None and last_s is not None
    counted_s = beats.first_inhale_s - beats.beat_s if beats.first_inhale_s is not None and beats.beat_s is not None else first_s
    return [(min(counted_s, first_s), last_s if by_card_s is None else max(last_s, by_card_s[1]))]


def _by_the_card(check: Check, beats: Beats, found: Evidence) -> tuple[float, float] | None:
    """The counted time where no breath is seen, as from the front: from the count-in's last beat to the card's end; None without a count or an end."""
    card = check.card
    if card is None or card.cycle_beats is None or beats.first_inhale_s is None or beats.beat_s is None:
        return None
    return beats.first_inhale_s - beats.beat_s, min(beats.first_inhale_s + card.cycles * card.cycle_beats * beats.beat_s, float(found.t_s[-1]))
