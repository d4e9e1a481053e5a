"""How the instrument and the arms are held, over the time that is judged: the numbers of the hold, each with how sure it is."""

from collections.abc import Sequence
from dataclasses import dataclass

from brevin.core.hold import order as hands_order
from brevin.core.hold import raising
from brevin.core.hold.axis import KEYS, axis_of, pictures
from brevin.core.hold.elbows import ELBOWS, elbows
from brevin.core.hold.instruments import HELD
from brevin.core.hold.looks import Playing, Tapped
from brevin.core.hold.wrists import KEYS as WRIST_KEYS
from brevin.core.hold.wrists import wrists
from brevin.core.kinds import Instrument
from brevin.core.kinematics import heads
from brevin.core.kinematics.posture import Stance, lean_off_deg, while_judged
from brevin.core.measure import Measure, NotMeasured
from brevin.core.track import LinesSeen, Player

HOLD_KEYS = (*KEYS, *ELBOWS, *WRIST_KEYS, hands_order.KEY, *raising.KEYS, heads.TO_FLUTE)


@dataclass(frozen=True)
class Instrumental:
    """What of a clip tells of the instrument. hands: how high those on it were; tapped: a line that somebody set; ahead: + where the player faces the
    picture's right."""

    instrument: Instrument
    lines: Sequence[LinesSeen]
    hands: raising.Hands
    ahead: float
    tapped: Tapped | None = None


def held(seen: raising.Seen, player: Player, stance: Stance, told: Instrumental) -> list[Measure]:
    """Axis, elbows, wrists and raises of one player; nothing where no instrument is asked for, and nothing that is told of somebody who lies."""
    if told.instrument == "none":
        return []
    if stance.position == "lying":
        return [Measure(key, NotMeasured("lying")) for key in (*ELBOWS, *WRIST_KEYS, hands_order.KEY)]
    looked = Playing(
        view=stance.view,
        bodies=while_judged(seen, stance),
        lines=told.lines,
        forward_x=told.ahead,
        tapped=told.tapped,
        lean_off_deg=lean_off_deg(stance, player)[0],
    )
    found = pictures(looked, told.instrument)
    by_edges = found if told.instrument in HELD and HELD[told.instrument].straight else []  # by key points alone it lies where the mouth is
    return [
        *axis_of(found, looked, told.instrument),
        *elbows(looked, told.instrument),
        *wrists(looked),
        hands_order.order(looked),
        *raising.raising(told.hands, seen, stance.view, told.ahead, by_edges),
    ]
