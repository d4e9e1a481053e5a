"""What a report says of the player: who it is, and where on the body was looked, in pixels of the clip. Frozen records of the schema brevin.analysis/1."""

from dataclasses import dataclass, field


@dataclass(frozen=True)
class Place:
    """A place on the trunk that was followed, in the clip's pixels at the reference. outline: on the body's edge, not its surface; believed: it counts."""

    x_px: float
    y_px: float
    outline: bool
    believed: bool


@dataclass(frozen=True)
class OutlineSeen:
    """What of the body's outline posture was read from at one moment: lines through x, y in the clip's pixels."""

    t_s: float
    lines_px: list[list[list[float]]]


@dataclass(frozen=True)
class PlayerSeen:
    """Who was read. Box in clip pixels. hip_px, up, forward: the body's axes in the picture (y down); looked: places on the trunk by region, not followed where
    none was believed; outlines: of back or shoulders; strikes_s: of a foot that keeps the beat; stickers: where worn (``stickers.PAIRS``); tilt_deg: how far
    what is upright leans to the right, where the phone stood tilted; axes: the trunk's at moments, hips first, where it sank or the camera moved. Older
    evidence lacks what came later."""

    from_s: float
    box_px: list[float]
    others: int
    hip_px: list[float]
    up: list[float]
    forward: list[float]
    looked: dict[str, list[Place]] = field(default_factory=dict)
    outlines: list[OutlineSeen] = field(default_factory=list)
    strikes_s: list[float] = field(default_factory=list)
    stickers: list[str] = field(default_factory=list)
    tilt_deg: float | None = None
    axes: list[OutlineSeen] = field(default_factory=list)
