"""What is drawn on the clip of who was read: where was looked, outlines, and the trunk's axis where that does not keep its place, in pixels of the clip."""

from collections.abc import Iterator, Sequence

import numpy as np

from brevin.core import filters
from brevin.core.evidence import Evidence, Followed
from brevin.core.hold.upright import Upright
from brevin.core.hold.wrists import bent_px
from brevin.core.kinds import SIDE_VIEWS
from brevin.core.kinematics.heads import TILT, tilt_deg
from brevin.core.kinematics.posture import Backs, Seen, bodies_of
from brevin.core.kinematics.shapes import shoulders_seen
from brevin.core.kinematics.sinking import sunk
from brevin.core.kinematics.stickers import NONE, Worn, rings_px
from brevin.core.kinematics.strikes import LATE
from brevin.core.layout import bent_sides, region_shown
from brevin.core.measure import Measure, of_key
from brevin.core.player_seen import OutlineSeen, Place, PlayerSeen
from brevin.core.track import Floats, Player

AXES_S, AXIS_PCT = 0.2, np.linspace(0.0, 100.0, 5)  # between the axes that are drawn of a trunk that does not keep its place; their places, from the hips up


def player_seen(found: Evidence, who: Followed | None, stood: Upright | None, measures: Sequence[Measure], exempt: frozenset[str]) -> PlayerSeen | None:
    """Who was read and where was looked, in pixels of the clip; shoulders, hands and a foot's strikes only where they are measured. stood: None where only the
    breath was asked for."""
    if who is None:
        return None
    player, scale, tilt = who.player, 1.0 / found.shrink, found.tilt(who)
    backs, worn, strikes_s = ((), NONE, ()) if stood is None else (stood.backs, stood.worn, stood.strikes_s)
    return PlayerSeen(
        from_s=player.from_s, box_px=[scale * v for v in player.box_px], others=player.others, hip_px=[scale * v for v in player.hip_px],
        up=list(player.up), forward=list(player.forward),
        looked={name: _places(at, player, scale) for name, at in who.traces.looked.items() if region_shown(name, exempt)},
        outlines=_outlines(found, who, exempt, backs, bent_sides(measures), worn), stickers=sorted(worn.places),
        strikes_s=[round(float(t_s), 3) for t_s in strikes_s if any(m.amount is not None for m in of_key(measures, LATE))],
        tilt_deg=round(tilt.deg, 1) if tilt is not None and tilt.told else None, axes=_axes(found, who),
    )  # fmt: skip


def _outlines(found: Evidence, who: Followed, exempt: frozenset[str], backs: Backs, bent: Sequence[str], worn: Worn) -> list[OutlineSeen]:
    """Of the back from the side, of both shoulders and the face from the front, of hands from where they show, where that is measured, and rings about
    stickers; one that tells nothing is not drawn."""
    lines: dict[float, list[Floats]] = {}
    seen = [] if who.position == "lying" else bodies_of(found.poses, who.player)
    hands = [(t_s, line) for t_s, body in seen for side, line in bent_px(body).items() if side in bent]
    for t_s, line in (*_lines(who, seen, exempt, backs), *hands, *rings_px(worn)):
        lines.setdefault(t_s, []).append(line)
    return [OutlineSeen(round(t_s, 3), [np.round(one / found.shrink, 1).tolist() for one in own]) for t_s, own in sorted(lines.items())]


def _lines(who: Followed, seen: Seen, exempt: frozenset[str], backs: Backs) -> Iterator[tuple[float, Floats]]:
    if who.view in SIDE_VIEWS and "back_rounding_pct" not in exempt:
        yield from ((t_s, back.at_px) for t_s, back in backs if back is not None)
    if who.view == "front" and "shoulder_tilt_deg" not in exempt:
        yield from ((t_s, line) for t_s, own in shoulders_seen(seen) for line in own.at_px)
    for t_s, body in seen:
        if who.view == "front" and body.features is not None and tilt_deg(body) is not None and TILT not in exempt:
            yield t_s, body.features.midline_px


def _axes(found: Evidence, who: Followed) -> list[OutlineSeen]:
    """Where the trunk's axis is in the clip as it was filmed, hips first; none where it stays where it was."""
    if not len(who.sunk) and not who.picture.camera.any():
        return []
    places = np.column_stack([np.zeros(len(AXIS_PCT)), AXIS_PCT])
    each = sunk(who.sunk[:, None], places) if len(who.sunk) else np.repeat(places[None], len(found.t_s), axis=0)
    moved = np.stack([who.picture.camera_pct(*place) for place in places], axis=1)
    moments_s = np.arange(found.t_s[0], found.t_s[-1], AXES_S)
    at_pct = filters.on_grid(found.t_s, each + moved, moments_s)
    at_px = np.round(_in_clip(at_pct, who.player, 1.0 / found.shrink), 1)
    return [OutlineSeen(round(float(t_s), 3), [axis.tolist()]) for t_s, axis in zip(moments_s, at_px, strict=True)]


def _in_clip(at_pct: Floats, player: Player, scale: float) -> Floats:
    """Places of the body, forward and up, in pixels of the clip."""
    axes = np.array([player.forward, player.up]) * player.trunk_px / 100
    return np.asarray((np.array(player.hip_px) + at_pct @ axes) * scale)


def _places(looked: Floats, player: Player, scale: float) -> list[Place]:
    at_px = _in_clip(looked[:, :2], player, scale)
    return [Place(round(float(x), 1), round(float(y), 1), bool(edge), bool(kept)) for (x, y), (edge, kept) in zip(at_px, looked[:, 2:], strict=True)]
