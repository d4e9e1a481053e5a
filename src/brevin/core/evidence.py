"""What is kept of a clip for judging it: traces with their noise, model error and holes, key points, picture quality, sound onsets, where the card was.

``evidence`` makes it once from a sighting; ``judge`` (core/read.py) makes a report of it as often as rules, exemptions, player, turns or beat one change,
without opening the clip again. It is small enough to outlive the clip.
"""

from dataclasses import dataclass, field

import numpy as np

from brevin.core import packing
from brevin.core.breath.breaths import breaths
from brevin.core.breath.rests import rests
from brevin.core.gate import Stretch
from brevin.core.kinds import Position, View
from brevin.core.kinematics.tilt import Tilt, tilt
from brevin.core.kinematics.traces import Traces, traces
from brevin.core.music.clicks import Onsets, heard
from brevin.core.track import WORK_SIDE_PX, CardSeen, ClipFacts, Face, Facts, Floats, LinesSeen, Picture, Player, PoseSample, Sighting

KIND, VERSION = "evidence", 13  # of what is kept: a release that keeps something else counts on
OLDER = tuple(
    range(1, VERSION)
)  # still judged: 1 had no straight edges, 2 not where on the trunk it looked, 3 no outlines, 4 faces, 5 hands, 6 age, 7 feet, 8 stickers, 9 edges of the room,
# 10 not how a trunk sank, 11 not whose faces were in the picture, 12 not the tempo of a click track


@dataclass(frozen=True)
class Followed:
    """One person of the clip who was followed. arms_pct: [m, 2, 2] arms in body coordinates at the reference; feet_pct: [n, 2, 2] how high heel and toes
    of left and right foot are, percent of trunk, nan where not seen; sunk: [n, 3] as ``Sighting`` has it."""

    player: Player
    view: View
    position: Position
    traces: Traces
    picture: Picture
    arms_pct: Floats
    feet_pct: Floats = field(default_factory=lambda: np.zeros((0, 2, 2)))
    sunk: Floats = field(default_factory=lambda: np.zeros((0, 3)))


@dataclass(frozen=True)
class Evidence:
    """t_s: [n] times of the video frames read; players: whom the edge picked first, then the others who could be followed; empty where nobody could.

    uprights_px: [k, 4] the room's edges that stand nearly upright.
    faces: anybody's, found in some of the pictures; None where nobody looked for them.
    refused, notes: what the edge itself noticed; with players, ``refused`` means that it was not clear which of them plays.
    """

    clip: ClipFacts
    t_s: Floats
    poses: tuple[PoseSample, ...]
    players: tuple[Followed, ...]
    onsets: Onsets | None
    cards: tuple[CardSeen, ...]
    refused: Facts
    notes: Facts
    lines: tuple[LinesSeen, ...] = ()
    uprights_px: Floats = field(default_factory=lambda: np.zeros((0, 4)))
    faces: tuple[Face, ...] | None = None

    def stretch(self, who: Followed) -> Stretch:
        """The whole clip as a stretch for the quality gate."""
        return Stretch(self.t_s, who.picture, self.poses, self.tilt(who))

    def tilt(self, who: Followed) -> Tilt | None:
        """How far the phone stood tilted, as the room's edges tell it where the player is."""
        return tilt(self.uprights_px, self.picture_px, who.player.hip_px[0])

    @property
    def shrink(self) -> float:
        """Working picture over the clip's own."""
        return min(1.0, WORK_SIDE_PX / max(self.clip.width_px, self.clip.height_px, 1))

    @property
    def picture_px(self) -> tuple[float, float]:
        """Width and height of the working picture."""
        return self.clip.width_px * self.shrink, self.clip.height_px * self.shrink

    @property
    def mm_per_px(self) -> float | None:
        """Of the working picture, where the printed card was seen."""
        known = [card.mm_per_px for card in self.cards if card.mm_per_px is not None]
        return float(np.median(known)) if known else None


def evidence(sighting: Sighting) -> Evidence:
    """Everything worth keeping of a sighting, to the precision it is kept with: what is judged first is what is judged ever after."""
    people = [s for s in (sighting, *sighting.others) if s.player is not None and len(s.t_s) > 1]
    found = Evidence(
        clip=sighting.clip, t_s=sighting.t_s, poses=sighting.poses, players=tuple(_followed(person) for person in people), onsets=heard(sighting.sound),
        cards=sighting.cards, refused=sighting.refused, notes=sighting.notes, lines=sighting.lines, uprights_px=sighting.uprights_px,
        faces=sighting.faces,
    )  # fmt: skip
    return unpacked(packed(found))


def packed(found: Evidence) -> bytes:
    """The file's content."""
    return packing.pack(found, kind=KIND, version=VERSION)


def unpacked(content: bytes) -> Evidence:
    """The evidence in a file's content. Raises InvalidInput: damaged, or other_version where it was kept by another release (read the clip again)."""
    return packing.unpack(content, Evidence, kind=KIND, version=VERSION, older=OLDER)


def _followed(sighting: Sighting) -> Followed:
    assert sighting.player is not None and sighting.view is not None and sighting.position is not None
    moved = traces(sighting)
    if len(sighting.sunk):
        moved = traces(sighting, rests(breaths(moved), float(sighting.t_s[-1])))
    return Followed(
        player=sighting.player, view=sighting.view, position=sighting.position, traces=moved, picture=sighting.picture,
        arms_pct=sighting.arms_pct, feet_pct=sighting.feet_pct, sunk=sighting.sunk,
    )  # fmt: skip
