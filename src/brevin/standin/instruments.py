"""The instruments that the mannequin plays: what is drawn of each, where its axis is, and where both hands take hold of it."""

import numpy as np

from brevin.standin import hand, raising
from brevin.standin.body import Mesh
from brevin.standin.camera import tube
from brevin.standin.scripts import Script

BRASS, WOOD = 9, 10
LONG_M = {"trumpet": 0.46, "trombone": 0.95}
FLUTE_START_M = (0.02, 0.06, -0.015)  # from the mouth to the end that the player does not see
NECK_M, SAX_M, LOWER_HAND_M = 0.07, 0.50, 0.34  # how far a saxophone's neck leads ahead of its body, how long that is, and how far down the lower hand is
SAX_BELL_M = 0.16  # what of it comes up again
LEADPIPE_M, COIL_M = 0.20, 0.115  # of a horn: its straight beginning, and the radius of its coil
BELL_AT_M = (0.0, -0.235, -0.36)  # a horn's bell, beside the right hip
UPRIGHT = np.array([1.0, 0.0, 0.0])  # the hand in a horn's bell is told from the mouth ahead, to the left and up

Drawn = tuple[list[Mesh], np.ndarray | None]
"""Meshes, and both ends of the axis, mouth end first: [2, 3]; None where an instrument has none."""


def reached(script: Script, stage: raising.Stage) -> dict[str, np.ndarray]:
    """What both arms reach for, from the mouth, metres; nothing without an instrument."""
    if script.instrument is None:
        return {}
    at = _in_order(script, np.radians(stage.axis_deg(script)))
    at = {side: at[other] * _mirror(script) for side, other in (("l", "r"), ("r", "l"))} if script.swapped else at
    return {side: stage.mouthpiece_m() + place for side, place in at.items()}


def drawn(script: Script, mouth: np.ndarray, drop: float) -> Drawn:
    """The instrument whose mouth end is at a place and whose far end points so far down, radians."""
    if script.instrument is None:
        return [], None
    along = np.array([np.cos(drop), 0.0, -np.sin(drop)])
    if script.instrument == "flute":
        return _flute(script, mouth, drop)
    if script.instrument == "alto_sax":
        return _saxophone(mouth, along)
    if script.instrument == "horn":
        return _horn(mouth, along)
    return _straight(script.instrument, mouth, along)


def _mirror(script: Script) -> np.ndarray:
    """What turns places beside a flute that is held to the right into those of one that is held to the left."""
    return np.array([1.0, -1.0 if script.swapped and script.instrument == "flute" else 1.0, 1.0])


def _in_order(script: Script, drop: float) -> dict[str, np.ndarray]:
    instrument, fingers = script.instrument or "", bool(script.grips)
    along = np.array([np.cos(drop), 0.0, -np.sin(drop)])
    start = np.zeros(3)
    if instrument == "flute":
        along, start = np.array([0.0, -np.cos(drop), -np.sin(drop)]), np.array(FLUTE_START_M)
    ways = {"l": along, "r": UPRIGHT if instrument == "horn" else along}
    return {side: start + hand.reached(instrument, side, way, fingers=fingers) for side, way in ways.items()}


def _flute(script: Script, mouth: np.ndarray, drop: float) -> Drawn:
    along, start = np.array([0.0, -np.cos(drop), -np.sin(drop)]), np.array(FLUTE_START_M)
    points = np.array([mouth + (start + along * s) * _mirror(script) for s in np.linspace(0, 0.66, 8)])
    return [tube(points, [0.011] * 8, BRASS)], np.array([points[0], points[-1]])


def _straight(instrument: str, mouth: np.ndarray, along: np.ndarray) -> Drawn:
    points = np.array([mouth + along * s for s in np.linspace(0, LONG_M.get(instrument, 0.60), 12)])
    ends = np.array([points[0], points[-1]])
    if instrument == "trumpet":
        radii = [0.008] * 7 + [0.010, 0.014, 0.022, 0.038, 0.06]
        valves = [tube(points[5:6].repeat(2, 0) + np.array([[0.03 * k, 0, -0.06], [0.03 * k, 0, 0.05]]), [0.012] * 2, BRASS) for k in range(3)]
        return [tube(points, radii, BRASS), *valves], ends
    if instrument == "trombone":
        bell = np.array([mouth + along * s + [0.0, 0.09, 0.05] for s in np.linspace(-0.25, 0.35, 12)])
        back = np.array([points[-1], points[-1] + [0.0, 0.02, 0.0], points[0] + along * 0.1 + [0.0, 0.02, 0.0]])
        return [tube(points, [0.009] * 12, BRASS), tube(back, [0.009] * 3, BRASS), tube(bell, [0.008] * 8 + [0.015, 0.03, 0.05, 0.09], BRASS)], ends
    return [tube(points, [0.008] + [0.014] * 9 + [0.02, 0.03], WOOD)], ends


def _saxophone(mouth: np.ndarray, along: np.ndarray) -> Drawn:
    """A neck ahead of the mouth, a body down from it, and a bell that comes up again before it; its axis is the way from the mouth to the lower hand."""
    ahead = np.array([along[2], 0.0, -along[0]]) * -1.0  # across the body, away from the player
    top = mouth + NECK_M * ahead + 0.02 * along
    body = np.array([top + along * s for s in np.linspace(0.0, SAX_M, 10)])
    bow = [body[-1] + 0.06 * (np.sin(turn) * along + (1.0 - np.cos(turn)) * ahead) for turn in np.linspace(0.3, np.pi, 6)]
    rise = [bow[-1] - along * s for s in np.linspace(0.03, SAX_BELL_M, 4)]
    neck = np.array([mouth, mouth + 0.6 * NECK_M * ahead - 0.012 * along, top])
    radii = [0.011 + 0.002 * k for k in range(10)] + [0.031] * 6 + [0.033, 0.037, 0.045, 0.06]
    return [tube(neck, [0.007, 0.008, 0.011], BRASS), tube(np.array([*body, *bow, *rise]), radii, BRASS)], np.array([mouth, top + LOWER_HAND_M * along])


def _horn(mouth: np.ndarray, along: np.ndarray) -> Drawn:
    """A leadpipe, which is its axis, into a coil below it, and a bell beside the right hip."""
    end = mouth + LEADPIPE_M * along
    below = np.array([along[2], 0.0, -along[0]])
    turns = np.linspace(0.0, 2.0 * np.pi, 20)[:, None]
    coil = end + COIL_M * (below - np.cos(turns) * below + np.sin(turns) * along) - np.array([0.0, 0.03, 0.0]) * np.sin(turns / 4.0)
    flare = np.array([coil[-1], *(coil[-1] + share * (mouth + BELL_AT_M - coil[-1]) for share in np.linspace(0.2, 1.0, 7))])
    wide = [0.012, 0.014, 0.018, 0.024, 0.034, 0.05, 0.08, 0.125]
    lead = np.array([mouth + share * (end - mouth) for share in np.linspace(0.0, 1.0, 5)])
    return [tube(lead, [0.006, 0.007, 0.008, 0.009, 0.01], BRASS), tube(coil, [0.012] * 20, BRASS), tube(flare, wide, BRASS)], np.array([mouth, end])
