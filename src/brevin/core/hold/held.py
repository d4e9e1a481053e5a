"""How the instrument and the arms are held, over the time that is judged: the numbers of the hold, each with how sure it is."""

from collections.abc import Sequence

from brevin.core.hold import raising
from brevin.core.hold.axis import KEYS, Playing, axis
from brevin.core.hold.elbows import ELBOWS, elbows
from brevin.core.kinds import Instrument
from brevin.core.kinematics.posture import Stance, while_judged
from brevin.core.measure import Measure, NotMeasured
from brevin.core.track import LinesSeen

HOLD_KEYS = (*KEYS, *ELBOWS, *raising.KEYS)


def held(seen: raising.Seen, lines: Sequence[LinesSeen], stance: Stance, instrument: Instrument, hands: raising.Hands, ahead: float) -> list[Measure]:
    """Axis, elbows and raises of one player; nothing where no instrument is asked for, and nothing that is told of somebody who lies. ahead: + where the
    player faces the picture's right."""
    if instrument == "none":
        return []
    if stance.position == "lying":
        return [Measure(key, NotMeasured("lying")) for key in ELBOWS]
    looked = Playing(view=stance.view, bodies=while_judged(seen, stance), lines=lines, forward_x=ahead)
    return [*axis(looked, instrument), *elbows(looked), *raising.raising(hands, seen, stance.view, ahead)]
