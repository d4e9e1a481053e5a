"""Who else is in the picture, and what of it may be kept clear: whoever was followed, and of the others no head. All else is blurred where anyone else is.

Blurring only the heads that are found would leave one that a network loses for a moment; so what is kept clear is told, and not what is to go.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Face, Floats, Player, PoseSample

NOBODY_ELSE, UNCHOSEN, LEFT = -1, -2, -3  # no places: those begin at 0
"""For whom a clip is kept, besides a player's place: nobody else is in it; it is not known who of several plays, so none of them is blurred yet; what was seen
of it is gone, so it is left as it is."""
HEAD = (lm.NOSE, lm.EYE_L, lm.EYE_R, lm.EAR_L, lm.EAR_R, lm.MOUTH_L, lm.MOUTH_R)
HEAD_TRUNKS = 0.34  # of a trunk about the middle of the face: hair and chin are within
OWN_HEAD_TRUNKS = 0.26  # about the player's own, which another's does not cover
CLEAR_TRUNKS = 0.4  # about the key points of those who are followed: clothes, hands, and what the belly's edge is seen against
FAR_HANDS = 2.0  # as far from the mouth again as a wrist is: an instrument reaches so far
WITHIN_S = 1.5  # of a moment: key points are looked at so seldom while all is still
ALONE_TRUNKS = 1.0  # one body that is alone in its picture, and this near to where the player was, is the player
PATCHES = 3.0  # across the widest head: too few to know anybody by
FACE_WIDTHS = 1.1  # about the middle of a face that was found alone, in its widths
BESIDE_WIDTHS = 0.5  # outside all key points of a body: a face that is not its own
KEY_POINTS, WAYS = 33, 36  # of a body; directions in which a face may lie outside them


@dataclass(frozen=True)
class Circle:
    """About a head, px of the working picture. middle_px: [2]."""

    middle_px: Floats
    radius_px: float


@dataclass(frozen=True)
class Moment:
    """Who is seen at a moment. bodies: points about which the picture stays clear, [k, 2] each; own: the heads of these; shown, hidden: heads of those who may
    be seen, and of everybody else."""

    t_s: float
    bodies: tuple[Floats, ...]
    own: tuple[Circle, ...]
    shown: tuple[Circle, ...]
    hidden: tuple[Circle, ...]


@dataclass(frozen=True)
class KeptClear:
    """What of a clip's pictures is kept as it was filmed. faces: somebody's who was found by the face alone; faces_s: for how long before and after; margin_px:
    about a body; coarse_px: a patch of this size tells no face apart."""

    moments: tuple[Moment, ...]
    faces: tuple[Face, ...]
    faces_s: float
    margin_px: float
    coarse_px: float

    def at(self, t_s: float) -> Moment:
        """Everyone who is seen about a moment: where somebody moves, all places between two looks."""
        around = _around(self.moments, t_s)
        faces = tuple(Circle(face.middle_px, FACE_WIDTHS * face.width_px) for face in self.faces if abs(face.t_s - t_s) <= self.faces_s)
        return Moment(
            t_s, tuple(points for one in around for points in one.bodies), tuple(head for one in around for head in one.own),
            tuple(head for one in around for head in one.shown), tuple(head for one in around for head in one.hidden) + faces,
        )  # fmt: skip


def kept_clear(poses: Sequence[PoseSample], followed: Sequence[Player], shown: Sequence[Player], faces: Sequence[Face]) -> KeptClear | None:
    """What stays clear, None where nobody else was seen at any moment. followed: whose bodies stay, nobody's where it is empty; shown: those of them whose
    heads do, too; faces: found anywhere in the picture, by another network than the bodies."""
    if not followed and not _several(poses, faces):
        return None
    moments = _moments(poses, followed, shown)
    strangers = tuple(face for face in faces if not _is_own(face, moments))
    hidden = [circle.radius_px for moment in moments for circle in moment.hidden] + [FACE_WIDTHS * face.width_px for face in strangers]
    if not hidden:
        return None
    looks = len({face.t_s for face in faces})
    faces_s = max((poses[-1].t_s if poses else 0.0) / max(looks, 1), WITHIN_S)
    trunk_px = max((player.trunk_px for player in followed), default=0.0)
    widest_px = 2.0 * max(HEAD_TRUNKS * trunk_px, *hidden)
    return KeptClear(moments, strangers, faces_s, CLEAR_TRUNKS * trunk_px, widest_px / PATCHES)


def _several(poses: Sequence[PoseSample], faces: Sequence[Face]) -> bool:
    """Whether more than one is seen at any moment."""
    at_once = [sum(one.t_s == face.t_s for one in faces) for face in faces]
    return any(len(sample.bodies) > 1 for sample in poses) or max(at_once, default=0) > 1


def _moments(poses: Sequence[PoseSample], followed: Sequence[Player], shown: Sequence[Player]) -> tuple[Moment, ...]:
    """Every look at which anybody was seen."""
    found: list[Moment] = []
    last: list[Body] = []
    for k, sample in enumerate(poses):
        own, seen = _places(followed, k), _places(shown, k)
        last = [sample.bodies[i] for i in own] or last
        if len(sample.bodies) == 1 and not own and _near(sample.bodies[0], last):  # who leaned over is the player still
            own = seen = [0]
        bodies = [sample.bodies[i] for i in own]
        hidden = tuple(_head(body, HEAD_TRUNKS) for i, body in enumerate(sample.bodies) if i not in seen)
        if sample.bodies:
            shown_here = tuple(_head(sample.bodies[i], OWN_HEAD_TRUNKS) for i in seen)
            found.append(Moment(sample.t_s, tuple(map(_reach, bodies)), tuple(_head(body, HEAD_TRUNKS) for body in bodies), shown_here, hidden))
    return tuple(found)


def _places(players: Sequence[Player], sample: int) -> list[int]:
    """Which bodies of a sample are these players'."""
    return [player.chosen[sample] for player in players if player.chosen[sample] >= 0]


def _near(body: Body, known: Sequence[Body]) -> bool:
    """Whether a body that was not taken for one of the known ones stands where one of them was."""
    return any(np.hypot(*(lm.hips(body) - lm.hips(one))) < ALONE_TRUNKS * lm.trunk_px(one) for one in known)


def _reach(body: Body) -> Floats:
    """Key points, and how far an instrument may reach that both hands hold to the mouth: [k, 2]."""
    mouth, wrists = lm.mouth(body), body.points_px[[lm.WRIST_L, lm.WRIST_R]]
    return np.vstack([body.points_px, mouth + FAR_HANDS * (wrists - mouth)])


def _head(body: Body, trunks: float) -> Circle:
    points = body.points_px[list(HEAD)]
    wide_px = float(np.ptp(points, axis=0).max())  # one who stands close has a large head though the trunk is cut off
    return Circle(points.mean(axis=0), max(trunks * lm.trunk_px(body), wide_px))


def _around(moments: Sequence[Moment], t_s: float) -> list[Moment]:
    """Those about a moment, or else the nearest."""
    nearest_s = min((abs(one.t_s - t_s) for one in moments), default=0.0)
    return [one for one in moments if abs(one.t_s - t_s) <= max(WITHIN_S, nearest_s)]


def _is_own(face: Face, moments: Sequence[Moment]) -> bool:
    """Whether a face is a head of those who are followed, or lies among their key points, where what is found is a pattern of the cloth."""
    around = _around(moments, face.t_s)
    if any(np.hypot(*(face.middle_px - head.middle_px)) < head.radius_px for one in around for head in one.own):
        return True
    ways = np.linspace(0.0, 2.0 * np.pi, WAYS, endpoint=False)
    out = np.vstack([np.cos(ways), np.sin(ways)])  # what lies outside a hull lies beyond all its points in one direction at least
    beyond = BESIDE_WIDTHS * face.width_px
    return any(not (face.middle_px @ out > (points[:KEY_POINTS] @ out).max(axis=0) + beyond).any() for one in around for points in one.bodies)
