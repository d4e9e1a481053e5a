"""How the instrument and the arms are held, over the time that is judged: the numbers of the hold, each with how sure it is."""

from collections.abc import Sequence

from brevin.core.hold.axis import KEYS, Playing, axis
from brevin.core.hold.elbows import ELBOWS, elbows
from brevin.core.kinds import Instrument
from brevin.core.kinematics.posture import Stance
from brevin.core.measure import Measure, NotMeasured
from brevin.core.track import LinesSeen, Player, PoseSample

HOLD_KEYS = (*KEYS, *ELBOWS)
LEAST_MOMENTS = 2  # key points while playing: of fewer the whole clip is taken


def held(samples: Sequence[PoseSample], lines: Sequence[LinesSeen], player: Player, stance: Stance, instrument: Instrument) -> list[Measure]:
    """Axis and elbows of one player; nothing where no instrument is asked for, and nothing that is told of somebody who lies."""
    if instrument == "none":
        return []
    if stance.position == "lying":
        return [Measure(key, NotMeasured("lying")) for key in ELBOWS]
    seen = [(s.t_s, s.bodies[i]) for s, i in zip(samples, player.chosen, strict=True) if i >= 0]
    from_s, to_s = stance.playing_s or (0.0, float("inf"))
    playing = [(t_s, body) for t_s, body in seen if from_s <= t_s <= to_s]
    bodies = playing if len(playing) >= LEAST_MOMENTS else seen
    looked = Playing(view=stance.view, bodies=bodies, lines=lines, forward_x=player.forward[0])
    return [*axis(looked, instrument), *elbows(looked)]
