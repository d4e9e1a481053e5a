"""What the edge hands to the core: one frozen record of everything seen and heard in a clip.

Body coordinates: ``forward`` across the trunk axis (+ = anterior; in a front view + = to the picture's right) and ``up`` along
it (+ = toward the head), both in percent of the player's reference trunk length, origin at the middle of the hips.
"""

from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from brevin.core.kinds import Position, View

Floats = NDArray[np.float64]
WORK_SIDE_PX = 1280  # longer side of the picture that is worked on: a trunk of 200 px and more in a whole-body picture


@dataclass(frozen=True)
class ClipFacts:
    """What the container says. Times in seconds, sizes in pixels as displayed (rotation applied)."""

    file: str
    duration_s: float
    frame_rate_hz: float
    width_px: int
    height_px: int
    rotation_deg: int
    has_sound: bool


@dataclass(frozen=True)
class Shape:
    """The outline of one body about its own trunk, percent of the trunk's length of that moment; nan where it is not in the picture.

    beside_pct: [2, 21] from the axis out to the picture's left and right, at ``core.pose.shape.HEIGHTS``; over_pct: [2, 8] above the middle of the
    shoulders, ``core.pose.shape.ASIDE_PCT`` to the picture's left and right of it; pits_pct: [2, 2] the armpits at the picture's left and right, out from
    the axis and up from the hips, None where the arms do not stand out (``core.pose.armpits``).
    """

    beside_pct: Floats
    over_pct: Floats
    pits_pct: Floats | None = None


@dataclass(frozen=True)
class Features:
    """What was found of a face that looks into the camera. midline_px: forehead and chin; eyes_px: outer corners, the player's right first: [2, 2] each, nan
    where it looks elsewhere; sure: that it is a face, 0 to 1."""

    midline_px: Floats
    eyes_px: Floats
    sure: float


@dataclass(frozen=True)
class Hand:
    """What was found of one hand. points_px: [21, 2] its joints, wrist first, then thumb to little finger from the palm out; world: [21, 3] the same in rough
    metres, as its own shape has them; nan where none was found; sure: that it is this hand, left or right, 0 to 1."""

    points_px: Floats
    world: Floats
    sure: float


@dataclass(frozen=True)
class Stickers:
    """Spots of colour beside ``landmarks.STICKERS``, round and of a sticker's size. at_px: [6, 2] their middles; hue_deg: [6] in CIE Lab, 0 to 360; nan where
    there is none."""

    at_px: Floats
    hue_deg: Floats


@dataclass(frozen=True)
class Body:
    """One person's key points in one video frame.

    points_px: [33, 2] picture coordinates, y down; visibility: [33], 0 to 1; world: [33, 3] rough metres, for turning angles only; shape, features,
    hands (left, right; None where neither is raised) and stickers: now and then.
    """

    points_px: Floats
    visibility: Floats
    world: Floats
    shape: Shape | None = None
    features: Features | None = None
    hands: tuple[Hand, Hand] | None = None
    stickers: Stickers | None = None


@dataclass(frozen=True)
class PoseSample:
    """Everyone seen at one moment. light: upper quartile of the whole picture's grey, 0 to 255."""

    t_s: float
    bodies: tuple[Body, ...]
    light: float = 255.0


@dataclass(frozen=True)
class Player:
    """Who is read: index of the body at each pose sample (-1 = not seen there), and how the body lies in the picture.

    trunk_px: reference trunk length; hip_px: middle of the hips; up, forward: unit vectors in picture coordinates (y down).
    """

    chosen: tuple[int, ...]
    from_s: float
    box_px: tuple[float, float, float, float]
    others: int
    trunk_px: float
    hip_px: tuple[float, float]
    up: tuple[float, float]
    forward: tuple[float, float]


@dataclass(frozen=True)
class Strips:
    """Outline of the trunk followed at fixed heights.

    up_pct: [k] height of each strip; edge_pct: [k] where the outline stands in the reference, forward; travel_pct: [n, k],
    + = outward from the reference; misfit: [n, k], 0 = the same picture, 1 = nothing alike; clear: [k], contrast of the edge, grey levels.
    """

    up_pct: Floats
    edge_pct: Floats
    travel_pct: Floats
    misfit: Floats
    clear: Floats

    @cached_property
    def usual_misfit(self) -> Floats:
        """Of each strip over time: [k]; asked for by several, worked out once."""
        return np.asarray(np.median(self.misfit, axis=0))


@dataclass(frozen=True)
class Points:
    """Texture points followed against one reference frame.

    at_pct: [p, 2] forward and up; move_pct: [n, p, 2]; error: [n, p] mean grey difference of the patch; on_body: [p] bool; unsure_pct: [p, 2] standard error of
    its moves, forward and up, as the patch's own edges leave it: stripes that lie level tell no forward move.
    """

    at_pct: Floats
    move_pct: Floats
    error: Floats
    on_body: NDArray[np.bool_]
    unsure_pct: Floats

    @cached_property
    def usual_error(self) -> Floats:
        """Of each point over time: [p]; asked for by several, worked out once."""
        return np.asarray(np.median(self.error, axis=0))


def moved_pct(camera: Floats, forward_pct: float, up_pct: float) -> Floats:
    """How far a place of the body goes, percent of trunk, forward and up: [n, 2]. camera: [n, 4], as in ``Picture``."""
    zoom, turn, *shift = camera.T
    cos, sin = (1.0 + zoom) * np.cos(turn) - 1.0, (1.0 + zoom) * np.sin(turn)
    return np.asarray(np.column_stack([cos * forward_pct - sin * up_pct, sin * forward_pct + cos * up_pct]) + np.column_stack(shift))


@dataclass(frozen=True)
class Picture:
    """Quality of the picture at each video frame read: [n] each.

    light: median grey of the trunk, 0 to 255; detail: standard deviation of the grey there; change: mean grey change to the frame before;
    clear: contrast of the trunk's outline, grey levels, median over its heights; room_pct: [n, 2] where the room has gone against the first
    pictures, percent of trunk, forward and up (zeros where no room is seen); camera: [n, 4] what of the camera's own moves was undone before that, about the
    hips: zoom less one, turn in radians, shift forward and up in percent of trunk (empty where nothing was).
    """

    light: Floats
    detail: Floats
    change: Floats
    clear: Floats
    room_pct: Floats
    camera: Floats = field(default_factory=lambda: np.zeros((0, 4)))

    def camera_pct(self, forward_pct: float, up_pct: float) -> Floats:
        """How far the camera itself has moved a place of the body in each picture as it was filmed, percent of trunk, forward and up: [n, 2]."""
        return moved_pct(self.camera, forward_pct, up_pct) + self.room_pct if len(self.camera) else self.room_pct


@dataclass(frozen=True)
class Sound:
    """Mono samples, -1 to 1. starts_s: time of the first sample on the clip's clock."""

    samples: NDArray[np.float32]
    rate_hz: int
    starts_s: float


@dataclass(frozen=True)
class CardSeen:
    """Where the printed card was at one moment. corners_px: [4, 2] in the working picture; mm_per_px: there, None where it stood too slanted."""

    t_s: float
    corners_px: Floats
    mm_per_px: float | None


@dataclass(frozen=True)
class LinesSeen:
    """Straight edges around the players' mouths at one moment. segments_px: [k, 4], two ends each, in the working picture."""

    t_s: float
    segments_px: Floats


@dataclass(frozen=True)
class Face:
    """A face that was found in a picture. middle_px: [2]; width_px: of it, from ear to ear; both of the working picture; sure: 0 to 1, of it being one."""

    t_s: float
    middle_px: Floats
    width_px: float
    sure: float = 1.0


Facts = tuple[tuple[str, dict[str, float]], ...]
"""Codes of ``core.verdict.reasons`` with the values for their sentences."""


@dataclass(frozen=True)
class Sighting:
    """Everything the core needs from one clip. t_s: [n] presentation times of the video frames read.

    ``player`` is None where nobody could be picked; then strips, points and picture are empty and ``refused`` says why. ``refused`` together with a
    player means that someone was followed and it is not clear that it is the right one.
    arms_pct: [m, 2, 2] segments of both arms in body coordinates at the reference. others: what was seen of the other people, each as a player of the
    same clip. feet_pct: [n, 2, 2] how high heel and toes of left and right foot are, percent of trunk above where they were first; nan where not seen.
    uprights_px: [k, 4] edges of the room that stand nearly upright, two ends each, in the working picture. sunk: [n, 3] how the trunk differs from what it was
    at first (``kinematics.sinking``), which is undone in strips and points; empty where it kept. faces: anybody's, found anywhere in some of the pictures;
    None where nobody looked for them.
    """

    clip: ClipFacts
    t_s: Floats
    poses: tuple[PoseSample, ...]
    player: Player | None
    view: View | None
    position: Position | None
    front: Strips | None
    back: Strips | None
    points: Points | None
    picture: Picture
    arms_pct: Floats
    sound: Sound | None
    refused: Facts = ()
    notes: Facts = ()
    cards: tuple[CardSeen, ...] = ()
    others: tuple["Sighting", ...] = ()
    lines: tuple[LinesSeen, ...] = ()
    feet_pct: Floats = field(default_factory=lambda: np.zeros((0, 2, 2)))
    uprights_px: Floats = field(default_factory=lambda: np.zeros((0, 4)))
    sunk: Floats = field(default_factory=lambda: np.zeros((0, 3)))
    faces: tuple[Face, ...] | None = None
