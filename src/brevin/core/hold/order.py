"""Whether the hands are on the instrument in their order: the left one nearer to the mouth, the right one farther down or out. From the front only: from the
side one of them is guessed."""

import numpy as np

from brevin.core.hold.looks import Playing
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured
from brevin.core.pose import landmarks as lm

SEEN = 0.75  # visibility of a wrist from which it is believed
LEAST_LOOKS, LEAST_SHARE = 2, 0.5  # that show both wrists, and of all
ORDER_PCT = 6.0  # of trunk: standard error of the difference of two wrists' distances; own
KEY = "hands_order_pct"


def order(playing: Playing) -> Measure:
    """How much further from the mouth the right wrist is than the left one, percent of trunk; under 0 the hands are swapped."""
    if playing.view != "front":
        return Measure(KEY, NotMeasured("view_unserved"))
    further = [
        100.0 * float(np.hypot(*(body.points_px[lm.WRIST_R] - lm.mouth(body))) - np.hypot(*(body.points_px[lm.WRIST_L] - lm.mouth(body)))) / lm.trunk_px(body)
        for _, body in playing.bodies
        if body.visibility[[lm.WRIST_L, lm.WRIST_R]].min() >= SEEN
    ]
    if len(further) < max(LEAST_LOOKS, LEAST_SHARE * len(playing.bodies)):
        return Measure(KEY, NotMeasured("hand_unseen"), samples=len(further))
    return Measure(
        KEY, Amount(float(np.median(further)), NORMAL_90 * float(np.hypot(ORDER_PCT, np.std(further) / np.sqrt(len(further))))), samples=len(further)
    )
