"""Whether the feet are flat on the floor: from the side by the sole of the foot that the camera sees; from the front only that they are crossed."""

import numpy as np

from brevin.core.kinds import View
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats

HEEL_UP_DEG = 20.0  # of the sole against level, toe below heel, from which the heel is off the floor; flat soles are read within 10
TOE_UP_DEG = 35.0  # the other way: less is a toe that taps
LEAST_SOLE_TRUNKS = 0.15  # a foot that points at the camera shows no sole
SEEN = 0.6  # visibility of ankle, heel and toe from which they are believed
EDGE_TRUNKS = 0.06  # of the picture: nearer to it the foot goes on outside, and the network places what it does not see
CROSSED_TRUNKS = 0.03  # the left ankle so far to the right of the right one
LEAST_LOOKS, LEAST_SHARE = 4, 0.5  # that tell, and of all
LOOK = 0.01  # variance of one look's answer where all agree; own
SIDES = {"side-left": (lm.ANKLE_L, lm.HEEL_L, lm.TOE_L), "side-right": (lm.ANKLE_R, lm.HEEL_R, lm.TOE_R)}
KEY = "feet_flat"


def feet(seen: list[tuple[float, Body]], ahead: float, view: View, picture_px: Floats) -> Measure:
    """Share of the looks with feet in place, 0 to 1, as far as that shows from there. seen: over the time that is judged; ahead: + where the player faces the
    picture's right; picture_px: its width and height."""
    looks = [(uncrossed(body, picture_px) if view == "front" else flat(body, ahead, view, picture_px)) for _, body in seen]
    told = [one for one in looks if one is not None]
    if len(told) < max(LEAST_LOOKS, LEAST_SHARE * len(looks)):
        return Measure(KEY, NotMeasured("feet_unseen"), samples=len(told))
    share = float(np.mean(told))
    return Measure(KEY, Amount(share, NORMAL_90 * float(np.sqrt((share * (1.0 - share) + LOOK) / len(told)))), samples=len(told))


def flat(body: Body, ahead: float, view: View, picture_px: Floats) -> bool | None:
    """Whether the foot that the camera sees from the side is flat; None where its sole is not seen."""
    ankle, heel, toe = SIDES[view]
    sole = body.points_px[toe] - body.points_px[heel]
    if not _seen(body, (ankle, heel, toe), picture_px) or np.hypot(*sole) < LEAST_SOLE_TRUNKS * lm.trunk_px(body):
        return None
    down_deg = float(np.degrees(np.arctan2(sole[1], sole[0] * (np.sign(ahead) or 1.0))))
    return -TOE_UP_DEG < down_deg < HEEL_UP_DEG


def uncrossed(body: Body, picture_px: Floats) -> bool | None:
    """Whether the left ankle is to the left of the right one, as the hips are; None where they are not seen."""
    if not _seen(body, (lm.ANKLE_L, lm.ANKLE_R), picture_px):
        return None
    hips, ankles = (float(body.points_px[left, 0] - body.points_px[right, 0]) for left, right in ((lm.HIP_L, lm.HIP_R), (lm.ANKLE_L, lm.ANKLE_R)))
    return ankles * (np.sign(hips) or 1.0) > -CROSSED_TRUNKS * lm.trunk_px(body)


def _seen(body: Body, points: tuple[int, ...], picture_px: Floats) -> bool:
    """Whether key points are seen, and not where the picture ends."""
    edge_px, at_px = EDGE_TRUNKS * lm.trunk_px(body), body.points_px[list(points)]
    return bool(body.visibility[list(points)].min() >= SEEN and np.all((at_px >= edge_px) & (at_px <= picture_px - edge_px)))
