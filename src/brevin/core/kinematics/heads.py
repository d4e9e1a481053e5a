"""The head: in a front view how it is tilted, by the middle line of the face, and that line against a flute; how high its ears stand over the shoulders; and
whether it took the network's shoulders along."""

from collections.abc import Sequence

import numpy as np

from brevin.core.measure import Amount, Measure, NotMeasured, of_key
from brevin.core.pose import landmarks as lm
from brevin.core.pose.shape import HEIGHTS
from brevin.core.track import Body, Floats, Player

SURE = 0.9  # of a face, from which its points are believed
LINE_DEG = 1.6  # how far the face's middle line stands off the head's own; own, over faces of several makers
LOOK_DEG = 1.0  # standard error of one look beside the player's others; own
LEAST_ALIKE = 3  # looks that say the same, from which they are believed though most others were not sure of a face
EAR_HEIGHT_PCT = 6.5  # of trunk: how far the network's ear and shoulders stand off the anatomical ones; own, over the stand-in's clips of posture and hold
CHEST = (HEIGHTS > 0.55) & (HEIGHTS < 0.95)  # of the axis, where its distance from the front of the chest is compared
AT_LOWEST_PCT, NARROWER_PCT = 20.0, 15.0  # of trunk, that distance at 0.6 of the axis, and by how much less for each trunk farther up; own, two makers
FRONT_PCT: Floats = AT_LOWEST_PCT - NARROWER_PCT * (HEIGHTS - 0.6)
TOP, INSIDE_PCT = (HEIGHTS > 0.775) & (HEIGHTS < 0.975), 6.0  # at the top a shoulder lies so far behind that front at least; own
LEAST_HEIGHTS = 2  # of either, from which that is told
DRAWN_PCT = 3.0  # of trunk: standard error of how far the network's shoulders were taken along; own, by how chests differ
TILT, TO_FLUTE, HEIGHT = "head_tilt_deg", "head_to_flute_deg", "shoulder_height_pct"


def tilt_deg(body: Body) -> float | None:
    """From upright to the line from forehead to chin, + = tilted to the player's right; None where no face was found. The body was looked at for one."""
    if body.features is None or not body.features.sure >= SURE:
        return None
    forehead, chin = body.features.midline_px
    return float(90.0 - np.degrees(np.arctan2(chin[1] - forehead[1], chin[0] - forehead[0])))


def alike(tilts_deg: Floats) -> bool:
    """Whether looks that found a face, however few of all, say the same often enough to be believed: what is taken for one by chance stands now so, now so.
    tilts_deg: [k]. Source: own."""
    return len(tilts_deg) >= LEAST_ALIKE and float(np.std(tilts_deg)) < LOOK_DEG


def height_pct(body: Body, player: Player, *, front: bool) -> float:
    """How high the ear that the camera sees, or the middle of both, stands over the middle of the shoulders along the trunk, percent of trunk."""
    _, up = lm.trunk_axes(body)
    near = lm.EAR_R if player.forward[0] > 0 else lm.EAR_L
    ear = lm.middle(body.points_px, lm.EAR_L, lm.EAR_R) if front else body.points_px[near]
    return 100.0 * float((ear - lm.shoulders(body)) @ up) / max(lm.trunk_px(body), 1e-9)


def drawn_pct(body: Body, ahead: float) -> float | None:
    """How far a head that is held far forward took the network's shoulders along, percent of trunk. A shoulder that stands before the trunk it belongs to is
    none: then by how much nearer than usual the front of the chest is to the axis, drawn out to its upper end; 0 where they stand inside; None where nobody
    looked, or the chest is hidden. ahead: + where the player, seen from the side with empty hands, faces the picture's right."""
    if body.shape is None:
        return None
    back, front = body.shape.beside_pct[:: 1 if ahead > 0 else -1]
    before = np.where(np.isnan(front) & np.isnan(back), 0.0, front)  # the axis itself leaves the outline
    told, free = before[TOP & np.isfinite(before)], CHEST & np.isfinite(front)
    if len(told) < LEAST_HEIGHTS or free.sum() < LEAST_HEIGHTS:
        return None
    return float(np.median((FRONT_PCT - front)[free] / HEIGHTS[free])) if np.median(told) < INSIDE_PCT else 0.0


def to_flute(measures: Sequence[Measure]) -> Measure:
    """How much further to the right the head is tilted than the flute falls to that side."""
    head, axis = (next((m.value for m in of_key(measures, key) if m.segment is None), NotMeasured("view_unserved")) for key in (TILT, "instrument_axis_deg"))
    if isinstance(head, Amount) and isinstance(axis, Amount):
        return Measure(TO_FLUTE, Amount(head.value - axis.value, float(np.hypot(head.half_width, axis.half_width))))
    return Measure(TO_FLUTE, axis if isinstance(head, Amount) else head)
