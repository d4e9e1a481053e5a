"""Taking the camera's own moves out of the film, picture by picture; and where the room shows too little to tell them (``observers/room.py``), finding its
steps, a zoom or a bump in mid-clip, by the points of the film.

What those few points say of a hand's tremor is less sure than the tremor is large: there it is left to the back and the pelvis
(``core/kinematics/rigid.py``).
"""

from dataclasses import dataclass

import numpy as np

from brevin.core.kinematics.passing import unlike
from brevin.core.track import Floats, Points
from brevin.edge.film import BodyMap, column, row

ZOOM_LEAST, ROTATION_LEAST_RAD, SHIFT_LEAST_PCT = 0.01, 0.01, 1.5  # from one picture to the next, the shift in percent of trunk: no breath is so quick
JUMP_LEAST_PCT = 0.25  # of trunk, from one picture to the next, half of the points: a step of the least zoom moves them twice as far
ERROR_MOST_GREY = 15.0  # a point that looks this unlike its reference was lost on the way
POINTS_LEAST = 12
LASTING = 10  # pictures on either side of the running median
ALONG_SHARE = 0.35  # of the way: what a point may lie off the common step
FOLLOWED_SHARE = 0.9  # of the pictures in which a point must still look like itself
ROOM_STILL_PCT = 1.0  # of trunk, that points beside the trunk go: more, where the whole room says otherwise, and they are somebody's who sits there
ROOM_LEAST_FOUND = 0.5  # of the film's points of the room, in one picture, from which they say where it is
TRIMS, TRIM_TIMES, TRIM_LEAST_PCT = 3, 2.5, 0.3  # points that move on their own: the player, a door


@dataclass(frozen=True)
class CameraMoves:
    """What the camera did against the reference, [n] each: zoom (1 = none), rotation in radians, and shift of the film's middle in percent of trunk."""

    zoom: Floats
    rotation: Floats
    shift_pct: Floats

    @property
    def stepped(self) -> bool:
        """Whether there was a step at all."""
        return bool((self.zoom != 1.0).any() or self.rotation.any() or self.shift_pct.any())

    @property
    def each(self) -> Floats:
        """All of it for each picture: [n, 4], as ``core.track.Picture`` has it."""
        return np.column_stack([self.zoom - 1.0, self.rotation, self.shift_pct])

    def facts(self) -> dict[str, float]:
        """Largest zoom and shift, percent, and turn, degrees, for the person."""
        return {
            "zoom_pct": round(100.0 * float(np.abs(self.zoom - 1.0).max())), "rotation_deg": round(float(np.degrees(np.abs(self.rotation).max())), 1),
            "shift_pct": round(float(np.hypot(*self.shift_pct.T).max())),
        }  # fmt: skip


def camera_moves(points: Points) -> CameraMoves | None:
    """The similarity that carries most points from the reference to each picture; the room's where enough of it is seen. None without points."""
    followed = (points.error < ERROR_MOST_GREY).mean(axis=0) > FOLLOWED_SHARE
    room = followed & ~points.on_body
    use = room if room.sum() >= POINTS_LEAST else followed
    if use.sum() < POINTS_LEAST:
        return None
    levels = np.zeros((len(points.move_pct), 4))
    everything = points.move_pct[:, followed]
    if np.median(np.hypot(*np.diff(everything, axis=0).T), axis=0).max() < JUMP_LEAST_PCT:  # the usual case, in no time
        return _moves(levels)
    at = points.at_pct[use]
    found = [_similarity(at, move[use], error[use]) for move, error in zip(points.move_pct, points.error, strict=True)]
    moves = np.array(found)  # [n, 4]: zoom less one, rotation, shift forward and up
    for step in _steps(_lasting(moves)):
        change = _change(moves, step)
        if _all_follow(points.at_pct[followed], _change(everything, step), change):
            levels[step:] += change
    return _moves(levels)


def room_pct(followed: Points, *, elsewhere: bool = False) -> Floats:
    """Where the room has gone against the reference: [n, 2], median of those of its points that are found; between the pictures before and after where
    something passes before most of them; zeros where none is seen, or where they move and the camera is known to stand still, or much to move by itself
    (elsewhere; ``observers/room.py``)."""
    gone = _gone(followed)
    return np.zeros_like(gone) if elsewhere and np.ptp(gone, axis=0).max(initial=0.0) > ROOM_STILL_PCT else gone


def _gone(followed: Points) -> Floats:
    room = followed.move_pct[:, ~followed.on_body]
    if not room.shape[1]:
        return np.zeros((len(room), 2))
    found = ~unlike(followed)[:, ~followed.on_body]
    enough = found.mean(axis=1) >= ROOM_LEAST_FOUND
    if not enough.any():
        return np.asarray(np.median(room, axis=1))
    median = np.ma.median(np.ma.masked_array(room, np.repeat(~found[:, :, None], 2, axis=2)), axis=1).filled(0.0)
    n = np.arange(len(room))
    return np.column_stack([np.interp(n, n[enough], way[enough]) for way in median.T])


def _moves(levels: Floats) -> CameraMoves:
    return CameraMoves(zoom=1.0 + levels[:, 0], rotation=levels[:, 1], shift_pct=levels[:, 2:])


def _lasting(values: Floats) -> Floats:
    """Running median along the first axis: a step stays as sharp as it was, what lasts less than half the window is gone."""
    padded = np.concatenate([np.repeat(values[:1], LASTING, axis=0), values, np.repeat(values[-1:], LASTING, axis=0)])
    return np.median(np.lib.stride_tricks.sliding_window_view(padded, 2 * LASTING + 1, axis=0), axis=-1)


def _steps(calm: Floats) -> list[int]:
    """First picture after each step: where more changes from one picture to the next than a player can."""
    change = np.abs(np.diff(calm, axis=0))
    size = (change / np.array([ZOOM_LEAST, ROTATION_LEAST_RAD, SHIFT_LEAST_PCT, SHIFT_LEAST_PCT])).max(axis=1)
    found: list[int] = []
    for i in np.flatnonzero(size > 1.0):
        if not found or i + 1 - found[-1] > LASTING:
            found.append(int(i) + 1)
    return found


def _change(values: Floats, step: int) -> Floats:
    """What a step changed, from the pictures just before to those from it on; what moves slowly is the player."""
    change: Floats = np.median(values[step : step + LASTING], axis=0) - np.median(values[max(step - LASTING, 0) : step], axis=0)
    return change


def _all_follow(at: Floats, moved: Floats, change: Floats) -> bool:
    """Whether player and room alike went the way of the step: a camera takes everything along."""
    solved = np.array([(1.0 + change[0]) * np.cos(change[1]) - 1.0, (1.0 + change[0]) * np.sin(change[1]), *change[2:]])
    off = np.hypot(*(moved - _moved(at, solved)).T)
    return bool(np.median(off) < ALONG_SHARE * np.median(np.hypot(*moved.T)))


def _similarity(at: Floats, move: Floats, error: Floats) -> Floats:
    """Zoom less one, rotation and shift of one picture."""
    keep = error < ERROR_MOST_GREY
    solved = np.zeros(4)
    for _ in range(TRIMS):
        if keep.sum() < POINTS_LEAST // 2:
            return np.zeros(4)
        x, y = at[keep].T
        ones, nothing = np.ones_like(x), np.zeros_like(x)
        design = np.concatenate([np.column_stack([x, -y, ones, nothing]), np.column_stack([y, x, nothing, ones])])
        solved = np.linalg.lstsq(design, move[keep].T.reshape(-1), rcond=None)[0]
        off = np.hypot(*(move - _moved(at, solved)).T)
        keep = (error < ERROR_MOST_GREY) & (off < max(TRIM_TIMES * float(np.median(off[keep])), TRIM_LEAST_PCT))
    grown, turned = solved[0] + 1.0, solved[1]
    return np.array([np.hypot(grown, turned) - 1.0, np.arctan2(turned, grown), *solved[2:]])


def _moved(at: Floats, solved: Floats) -> Floats:
    x, y = at.T
    return np.column_stack([solved[0] * x - solved[1] * y + solved[2], solved[1] * x + solved[0] * y + solved[3]])


def undone(turn: BodyMap, moves: CameraMoves, picture: int) -> BodyMap:
    """The map that shows one picture as a camera that stood still would have seen it, in one step, so that nothing is blurred twice."""
    origin = np.array([column(0.0), row(0.0)])
    unit = np.array([column(1.0) - column(0.0), row(1.0) - row(0.0)])  # px of one percent, forward and up
    cos, sin = (moves.zoom[picture] * f(moves.rotation[picture]) for f in (np.cos, np.sin))
    rotation_px = np.array([[cos, sin], [-sin, cos]])  # the same rotation in pixels, whose rows run down
    shift_px = origin + moves.shift_pct[picture] * unit - rotation_px @ origin
    linear, offset = turn.matrix[:, :2], turn.matrix[:, 2]
    return BodyMap(matrix=np.column_stack([linear @ rotation_px, linear @ shift_px + offset]))
