"""Whether the hands are on the instrument in their order: the left one nearer to the mouth, the right one farther down or out. From the front only: from the
side one of them is guessed."""

import numpy as np

from brevin.core.hold.looks import Playing
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body

SEEN = 0.75  # visibility of a wrist from which it is believed
LEAST_LOOKS, LEAST_SHARE = 2, 0.5  # that show both wrists, and of all
ORDER_PCT = 6.0  # of trunk: standard error of the difference of two wrists' distances; own
KEY = "hands_order_pct"


def order(playing: Playing) -> Measure:
    """How much further from the mouth the right wrist is than the left one, percent of trunk; under 0 the hands are swapped."""
    if playing.view != "front":
        return Measure(KEY, NotMeasured("view_unserved"))
    both = [body for _, body in playing.bodies if body.visibility[[lm.WRIST_L, lm.WRIST_R]].min() >= SEEN]
    further = [_from_mouth_pct(body, lm.WRIST_R) - _from_mouth_pct(body, lm.WRIST_L) for body in both]
    if len(further) < max(LEAST_LOOKS, LEAST_SHARE * len(playing.bodies)):
        return Measure(KEY, NotMeasured("hand_unseen"), samples=len(further))
    unsure = np.hypot(ORDER_PCT, np.std(further) / np.sqrt(len(further)))
    return Measure(KEY, Amount(float(np.median(further)), float(NORMAL_90 * unsure)), samples=len(further))


def _from_mouth_pct(body: Body, wrist: int) -> float:
    return 100.0 * float(np.hypot(*(body.points_px[wrist] - lm.mouth(body)))) / lm.trunk_px(body)
