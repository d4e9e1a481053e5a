"""When a player is at rest: before the first breath, between an exhale's end and the next inhale, after the last."""

from collections.abc import Sequence

from brevin.core.breath.breaths import BreathTurns

AROUND_S = 0.15  # about an end from which the next inhale begins at once: so long the lungs are as empty as they get


def rests(turns: Sequence[BreathTurns], until_s: float) -> list[tuple[float, float]]:
    """From when to when, s. turns: of all breaths in their order; until_s: the clip's end."""
    starts = [one.inhale_start.t_s for one in turns if one.inhale_start is not None]
    ends = [one.exhale_end.t_s for one in turns if one.exhale_end is not None]
    if not starts or not ends:
        return []
    between = [(end, min([s for s in starts if s > end - AROUND_S], default=until_s)) for end in ends]
    return [(0.0, starts[0]), *((end - AROUND_S, begins + AROUND_S) for end, begins in between)]
