"""When an inhale begins: the first region that leaves its rest, unless it only fidgeted."""

from brevin.core.breath.around import LEAST_NOISE_PCT, Around, joint_of, moving, upper_of
from brevin.core.breath.turns import Turn, leaving
from brevin.core.track import Floats

START_SHARE = 0.28  # of the larger region's excursion: below it the start is the larger one's
HIDDEN_PCT = 0.004  # of trunk: the coding of a clip keeps a picture still until it has moved this far; own, shows in ./brevin bench accuracy
SMALL, CLEAR_NOISE = 0.5, 10.0  # of the larger region's excursion, and times its wander: what goes no farther than both wanders, and begins nothing; own
CLEARER = 1.4  # times as far out of their wander as the chest: shoulders that rise with it tell when it leaves its rest; own
LEAD_SLACK_S = 0.25  # that a region may leave its rest earlier in one breath than in the others, before the middle of the rise


def starts_of(regions: dict[str, Floats], carriers: dict[str, Floats], around: Around) -> dict[str, Turn]:
    """When each region that moves enough left its rest. A chest that rises with shoulders that tell far more clearly begins as both do. carriers: regions,
    and the shoulder where it is seen."""
    going = moving(regions, around.swing, noise=around.wander, share_least=START_SHARE)
    far = {name: abs(around.rise(regions[name])) for name in going}
    found = {}
    for name, sign in going.items():
        if far[name] < min(SMALL * max(far.values()), CLEAR_NOISE * around.wander[name]):
            continue
        values, noise = sign * regions[name], around.wander[name]
        if name == "chest" and sign > 0 and _shoulders_clearer(carriers, around):
            values, noise = joint_of({name: carriers[name], "shoulder": carriers["shoulder"]}, around)
        rise, *_ = around.own(values)
        found[name] = leaving(around.t_s, values, from_i=around.from_i, middle_i=rise, noise=noise, steady=True, hidden=HIDDEN_PCT)
    return found


def _shoulders_clearer(carriers: dict[str, Floats], around: Around) -> bool:
    """Whether shoulders that rise stand further out of their wander than the chest does, by far."""
    if "shoulder" not in upper_of(carriers, around):
        return False
    chest, shoulder = (around.rise(carriers[name]) / max(around.wander[name], LEAST_NOISE_PCT) for name in ("chest", "shoulder"))
    return shoulder > CLEARER * chest


def as_in_the_others(starts: list[dict[str, Turn]], middles_s: list[float]) -> list[dict[str, Turn]]:
    """Starts of which none comes too early: where a region seems to leave its rest much longer before the middle of the rise than in the other breaths, it
    fidgeted. More than usual, and than the slack, is taken away; the interval is wider by half of it, and by no more than the slack. A region that moves in
    one breath alone starts none where another moves as well."""
    kept = [dict(one) for one in starts]
    for name in {name for one in starts for name in one}:
        ahead_s = {i: middles_s[i] - one[name].t_s for i, one in enumerate(starts) if name in one}
        if len(ahead_s) < 2:
            kept = [{other: turn for other, turn in one.items() if other != name} or one for one in kept] if len(starts) > 2 else kept
            continue
        usual_s = sorted(ahead_s.values())[(len(ahead_s) - 1) // 2]
        for i, own_s in ahead_s.items():
            early_s = own_s - usual_s - LEAD_SLACK_S
            if early_s > 0:
                turn = starts[i][name]
                kept[i][name] = Turn(turn.t_s + early_s, turn.half_width_s + 0.5 * min(early_s, LEAD_SLACK_S))
    return kept


def first_of(starts: dict[str, Turn]) -> Turn:
    """The first to leave its rest; of two, one that is unsure when does not go before one that is sure."""
    return min(starts.values(), key=lambda turn: turn.t_s + turn.half_width_s)
