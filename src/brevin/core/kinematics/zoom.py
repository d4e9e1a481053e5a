"""A lens that looks for its focus while it films: the picture grows and shrinks by a percent or two, everything in it goes outward, and the farther out the
further. Shift and rotation of the trunk know nothing of that.

Sharp steps of a camera are undone where they are seen (``edge/steady.py``); this takes what is slower from what was followed.
"""

from dataclasses import replace

import numpy as np

from brevin.core.track import Floats, Sighting, Strips

BESIDE = 2  # strips on either side that tell how an edge leads
MOST_SLANT = 0.7  # where it leads further the strips lie on two things


def unzoomed(sighting: Sighting) -> Sighting:
    """What was followed, as a lens that did not zoom would have seen it, about the hips; as it is where the room tells of no zoom."""
    front, back, points, zoom = sighting.front, sighting.back, sighting.points, sighting.picture.zoom
    assert front is not None and back is not None and points is not None
    if not zoom.any():
        return sighting
    still = replace(points, move_pct=points.move_pct - zoom[:, None, None] * points.at_pct)
    room = still.move_pct[:, ~points.on_body]
    room_pct = np.median(room, axis=1) if room.shape[1] else sighting.picture.room_pct
    return replace(
        sighting, points=still, front=_without(front, zoom, 1.0), back=_without(back, zoom, -1.0), picture=replace(sighting.picture, room_pct=room_pct)
    )  # fmt: skip


def _without(strips: Strips, zoom: Floats, outward: float) -> Strips:
    """At its own height a strip sees the edge go out with the picture, and that of the place below it come up."""
    if len(strips.edge_pct) < 2:
        return replace(strips, travel_pct=strips.travel_pct - outward * zoom[:, None] * strips.edge_pct)
    out = strips.edge_pct - strips.up_pct * _slant(strips.up_pct, strips.edge_pct)
    return replace(strips, travel_pct=strips.travel_pct - outward * zoom[:, None] * out)


def _slant(up: Floats, edge: Floats) -> Floats:
    """How far forward the edge leads for each percent up, by the strips about each: [k]."""
    beside = [slice(max(k - BESIDE, 0), k + BESIDE + 1) for k in range(len(up))]
    slopes = [np.polyfit(up[near], edge[near], 1)[0] for near in beside]
    return np.clip(np.array(slopes), -MOST_SLANT, MOST_SLANT)
