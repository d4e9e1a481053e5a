"""Who is read: the largest still figure, followed through the clip, with the frame of the body in the picture."""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from brevin.core.errors import ClipUnusable
from brevin.core.pose import landmarks as lm
from brevin.core.pose.view import turned_deg
from brevin.core.track import Body, Floats, Player, PoseSample

TOSS_UP = 0.85  # a second person at least this large beside the largest: not clear who plays
CROWDED = 0.3  # of the time, that several are seen: for less somebody passes
SHARED = 0.25  # part of the smaller person's box that lies inside the other's: bodies overlap
SMALLEST_TRUNK_PX = 60.0  # of the working picture: below it one percent of trunk is about half a pixel
TRUNK_SEEN = 0.5  # lowest mean visibility of shoulders and hips that counts as a trunk in the picture
SAME_PERSON = 0.5  # a body further than this many trunk lengths from the last place is someone else


def choose(samples: Sequence[PoseSample], *, width_px: float, height_px: float) -> Player:
    """Pick the player. width_px, height_px: size of the picture the key points are in.

    Raises ClipUnusable: no_person, player_unclear, people_overlap, trunk_cut_off, too_far.
    """
    first = next((s for s in samples if s.bodies), None)
    seen_share = sum(bool(s.bodies) for s in samples) / max(len(samples), 1)
    if first is None or seen_share < 0.5:
        raise ClipUnusable("no_person", seen_share=round(seen_share, 2))
    _check_choice(samples)
    return _one(samples, _largest(first), width_px=width_px, height_px=height_px)


def everyone(samples: Sequence[PoseSample], *, width_px: float, height_px: float) -> list[Player]:
    """All whose trunk can be followed, the largest first, whoever of them plays."""
    first = next((s for s in samples if s.bodies), None)
    found: list[Player] = []
    for start in sorted(range(len(first.bodies)), key=lambda i: -lm.trunk_px(first.bodies[i])) if first else []:
        try:
            found.append(_one(samples, start, width_px=width_px, height_px=height_px))
        except ClipUnusable:  # this one stands too far away, or half outside the picture
            continue
    return found


def _one(samples: Sequence[PoseSample], start: int, *, width_px: float, height_px: float) -> Player:
    """The person at place ``start`` of the first sample that shows anybody."""
    chosen = _follow(samples, start=start)
    bodies = [s.bodies[i] for s, i in zip(samples, chosen, strict=True) if i >= 0]
    _check_trunk(bodies, width_px=width_px, height_px=height_px)
    return _player(samples, chosen, bodies)


def same_player(player: Player, samples: Sequence[PoseSample]) -> Player:
    """A player found in the first samples, followed through all of them."""
    start = next(index for index in player.chosen if index >= 0)
    return replace(player, chosen=_follow(samples, start=start), others=max(len(s.bodies) for s in samples) - 1)


def _largest(sample: PoseSample) -> int:
    return int(np.argmax([lm.trunk_px(body) for body in sample.bodies]))


def _check_choice(samples: Sequence[PoseSample]) -> None:
    crowded = [s for s in samples if len(s.bodies) > 1]
    if _share_of_time(samples) < CROWDED:
        return
    overlap = [_shared(s) for s in crowded]
    if np.median(overlap) > SHARED:
        raise ClipUnusable("people_overlap", shared=round(float(np.median(overlap)), 2))
    sizes = [sorted((lm.trunk_px(b) for b in s.bodies), reverse=True) for s in crowded]
    if np.median([pair[1] / pair[0] for pair in sizes]) > TOSS_UP:
        raise ClipUnusable("player_unclear", people=max(len(s.bodies) for s in crowded))


def _share_of_time(samples: Sequence[PoseSample]) -> float:
    """How much of the time more than one is seen: whoever walks past is looked at far more often than one who sits still."""
    several = np.array([len(s.bodies) > 1 for s in samples])
    if len(samples) < 2:
        return float(several.mean()) if len(samples) else 0.0
    stands_for = np.gradient([s.t_s for s in samples])
    return float(stands_for[several].sum() / max(stands_for.sum(), 1e-9))


def _shared(sample: PoseSample) -> float:
    """Largest part of a neighbour's box that lies inside the largest person's box, 0 to 1."""
    main = _largest(sample)
    ax, ay, aw, ah = lm.box_px(sample.bodies[main])
    worst = 0.0
    for index, body in enumerate(sample.bodies):
        if index == main:
            continue
        bx, by, bw, bh = lm.box_px(body)
        across = max(0.0, min(ax + aw, bx + bw) - max(ax, bx))
        down = max(0.0, min(ay + ah, by + bh) - max(ay, by))
        worst = max(worst, across * down / max(bw * bh, 1.0))
    return worst


def _follow(samples: Sequence[PoseSample], *, start: int) -> tuple[int, ...]:
    chosen: list[int] = []
    last: Body | None = None
    for sample in samples:
        if not sample.bodies:
            chosen.append(-1)
            continue
        if last is None:
            index = start
        else:
            away = [np.hypot(*(lm.hips(b) - lm.hips(last))) / max(lm.trunk_px(last), 1.0) for b in sample.bodies]
            index = int(np.argmin(away)) if min(away) < SAME_PERSON else -1
        chosen.append(index)
        last = sample.bodies[index] if index >= 0 else last
    return tuple(chosen)


def _check_trunk(bodies: Sequence[Body], *, width_px: float, height_px: float) -> None:
    corners = np.median([b.points_px[list(lm.TRUNK)] for b in bodies], axis=0)
    outside = (corners < 0).any() or (corners[:, 0] > width_px).any() or (corners[:, 1] > height_px).any()
    seen = float(np.median([b.visibility[list(lm.TRUNK)].mean() for b in bodies]))
    if outside or seen < TRUNK_SEEN:
        raise ClipUnusable("trunk_cut_off", seen=round(seen, 2))
    length = float(np.median([lm.trunk_px(b) for b in bodies]))
    if length < SMALLEST_TRUNK_PX:
        raise ClipUnusable("too_far", trunk_px=round(length))


def _player(samples: Sequence[PoseSample], chosen: tuple[int, ...], bodies: Sequence[Body]) -> Player:
    hip = np.median([lm.hips(b) for b in bodies], axis=0)
    top = np.median([lm.shoulders(b) for b in bodies], axis=0)
    up = (top - hip) / np.hypot(*(top - hip))
    first = next(i for i, index in enumerate(chosen) if index >= 0)
    return Player(
        chosen=chosen,
        from_s=samples[first].t_s,
        box_px=lm.box_px(samples[first].bodies[chosen[first]]),
        others=max(len(s.bodies) for s in samples) - 1,
        trunk_px=reference_trunk_px(bodies),
        hip_px=(float(hip[0]), float(hip[1])),
        up=(float(up[0]), float(up[1])),
        forward=_forward(bodies, up),
    )


def reference_trunk_px(bodies: Sequence[Body]) -> float:
    """The length while sitting tallest: upper quartile over the samples given, so that a slump does not shrink it. px."""
    return float(np.quantile([lm.trunk_px(b) for b in bodies], 0.75))


def _forward(bodies: Sequence[Body], up: Floats) -> tuple[float, float]:
    """Across the trunk toward the face; where the body faces the camera, toward the picture's right."""
    across = np.array([-up[1], up[0]])
    turn = float(np.median([turned_deg(b) for b in bodies]))
    if abs(turn) < 15.0:  # nearly frontal: no anterior direction in the picture
        return float(across[0]), float(across[1])
    face = np.median([b.points_px[lm.NOSE] - lm.middle(b.points_px, lm.EAR_L, lm.EAR_R) for b in bodies], axis=0)
    chest_side = 1.0 if turn > 0 else -1.0  # the right side toward the camera: the player faces the picture's right
    sign = np.sign(face @ across) if abs(face @ across) > 2.0 else chest_side
    return float(sign * across[0]), float(sign * across[1])
