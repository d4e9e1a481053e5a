"""Looking at a clip: decode once, pick the player, turn every frame into the body's axes, follow outline and texture."""

from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import dataclass, field, replace
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from brevin.core.errors import ClipUnusable
from brevin.core.kinematics.trunk import rise
from brevin.core.pose import landmarks as lm
from brevin.core.pose import player as pick
from brevin.core.pose.view import position_of, view_of
from brevin.core.track import ClipFacts, Floats, Picture, Player, PoseSample, Sighting
from brevin.edge import film as trunk_film
from brevin.edge import points, scale_card, steady, strips
from brevin.edge.pose_model import PoseModel, Seen
from brevin.edge.video import Stamps, VideoFrame, probe, sound, video_frames

LONGEST_S = 120.0  # of a recording is read; the film of it fits in 400 MB
FASTEST_HZ = 30.0  # more video frames a second say nothing more of a breath
SHORTEST_S = 3.0  # one count-in and one breath do not fit in less
FIRST_POSES_S, FIRST_EVERY_S = 1.6, 0.2  # poses of the first seconds pick the player
LATER_EVERY_S = 1.5  # posture changes slowly
DARK_GREY = 40.0  # of 255, upper quartile of the picture: nobody found in less light than this is a matter of light
MASKS = 4  # masks averaged into the outline
REFERENCE_FROM_S, REFERENCE_LENGTH_S, REFERENCE_FRAMES = 0.5, 2.0, 9  # averaged into the reference
REFERENCE_LATEST_S = 8.0  # a reference from later on would see half a breath more
RESTLESS_GREY, RESTLESS_SHARE = 0.3, 0.3  # a count-in that changes from frame to frame by this much, and share, more than the calmest time

Progress = Callable[[str, float], None]
Film = NDArray[np.uint8]


@dataclass
class _Gathered:
    """What grows while the clip runs."""

    t_s: list[float] = field(default_factory=list)
    pictures: list[Film] = field(default_factory=list)
    waiting: list[tuple[float, Future[Seen]]] = field(default_factory=list)
    samples: list[PoseSample] = field(default_factory=list)
    masks: list[NDArray[np.float32]] = field(default_factory=list)
    size: tuple[int, int] = (0, 0)
    light: list[float] = field(default_factory=list)
    scales_mm: list[float] = field(default_factory=list)
    stamps: Stamps = field(default_factory=Stamps)


def look(path: Path, model: Path, *, progress: Progress = lambda stage, share: None, view: str | None = None) -> Sighting:
    """See one clip. progress: called with the stage and the share done, 0 to 1; view: side, front or three-quarter where the person said so.

    Raises ClipUnusable where the file holds no picture at all; where it holds one that cannot be read, the Sighting says why.
    """
    progress("opening", 0.0)
    clip = probe(path)
    heard = sound(path, until_s=LONGEST_S)
    network = PoseModel(model)
    gathered = _Gathered()
    try:
        with ThreadPoolExecutor(1) as pool:
            refused, player = _run(path, clip, gathered, network, pool, progress)
    finally:
        network.close()
    if clip.duration_s <= 0 and gathered.t_s:
        clip = replace(clip, duration_s=gathered.t_s[-1] + 1.0 / max(clip.frame_rate_hz, 1.0))
    seen = Sighting(
        clip=clip, t_s=np.array(gathered.t_s), poses=tuple(gathered.samples), player=None, view=None, position=None,
        front=None, back=None, points=None, picture=_picture(gathered.pictures), arms_pct=np.zeros((0, 2, 2)),
        sound=heard, refused=refused, notes=_notes(clip, gathered.stamps),
        mm_per_px=float(np.median(gathered.scales_mm)) if gathered.scales_mm else None,
    )  # fmt: skip
    if player is None:
        return seen
    return _follow(seen, player, gathered, progress, view)


def _notes(clip: ClipFacts, stamps: Stamps) -> tuple[tuple[str, dict[str, float]], ...]:
    notes: list[tuple[str, dict[str, float]]] = []
    if clip.duration_s > LONGEST_S + 1.0:
        notes.append(("long_clip", {"duration_s": round(clip.duration_s), "read_s": LONGEST_S}))
    if max(clip.width_px, clip.height_px) > 2200:
        notes.append(("large_picture", {"width_px": clip.width_px, "height_px": clip.height_px}))
    if stamps.left_out:
        notes.append(("time_stamps", {"pictures": stamps.left_out}))
    return tuple(notes)


def _run(
    path: Path, clip: ClipFacts, gathered: _Gathered, network: PoseModel, pool: ThreadPoolExecutor, progress: Progress
) -> tuple[tuple[tuple[str, dict[str, float]], ...], Player | None]:
    """Decode the clip once. Returns why it was refused, or the player."""
    early: list[VideoFrame] = []
    player: Player | None = None
    turn: trunk_film.Turn | None = None
    length_s = min(clip.duration_s, LONGEST_S) or LONGEST_S
    next_pose_s = 0.0
    try:
        for frame in video_frames(path, until_s=LONGEST_S, fastest_hz=FASTEST_HZ, stamps=gathered.stamps):
            if frame.t_s >= next_pose_s:
                _ask(frame, gathered, network, pool, first=turn is None)
                next_pose_s = frame.t_s + (FIRST_EVERY_S if turn is None else LATER_EVERY_S)
            if turn is None:
                early.append(frame)
                gathered.t_s.append(frame.t_s)
                if frame.t_s < FIRST_POSES_S:
                    continue
                player = _pick(gathered, frame)
                turn = trunk_film.turn_for(player)
                gathered.pictures += [turn.apply(f.luma) for f in early]
                early.clear()
            else:
                gathered.t_s.append(frame.t_s)
                gathered.pictures.append(turn.apply(frame.luma))
            progress("watching", 0.05 + 0.55 * min(frame.t_s / length_s, 1.0))
        _collect(gathered)
        if not gathered.t_s or gathered.t_s[-1] < SHORTEST_S:
            raise ClipUnusable("too_short", duration_s=round(gathered.t_s[-1] if gathered.t_s else 0.0, 1), shortest_s=SHORTEST_S)
        assert player is not None
        whole = pick.choose(gathered.samples, width_px=gathered.size[0], height_px=gathered.size[1])
    except ClipUnusable as reason:
        code = "too_dark" if reason.code == "no_person" and gathered.light and np.median(gathered.light) < DARK_GREY else reason.code
        return ((code, dict(reason.facts)),), None  # type: ignore[arg-type]
    return (), replace(player, chosen=whole.chosen, others=whole.others)


def _ask(frame: VideoFrame, gathered: _Gathered, network: PoseModel, pool: ThreadPoolExecutor, *, first: bool) -> None:
    gathered.size = (frame.luma.shape[1], frame.luma.shape[0])
    gathered.light.append(float(np.percentile(frame.luma[::8, ::8], 75)))
    if first and (scale := scale_card.mm_per_px(frame.luma)) is not None:
        gathered.scales_mm.append(scale)
    picture = frame.rgb()
    gathered.waiting.append((frame.t_s, pool.submit(network.see, picture, with_masks=first)))
    while len(gathered.waiting) > 8 and not first:  # the network must not fall behind with pictures piling up
        _collect(gathered, most=1)


def _collect(gathered: _Gathered, most: int | None = None) -> None:
    for _ in range(len(gathered.waiting) if most is None else most):
        t_s, future = gathered.waiting.pop(0)
        seen = future.result()
        gathered.samples.append(PoseSample(t_s=t_s, bodies=seen.bodies))
        if seen.masks:
            gathered.masks.append(seen.masks[int(np.argmax([lm.trunk_px(b) for b in seen.bodies]))])


def _pick(gathered: _Gathered, frame: VideoFrame) -> Player:
    _collect(gathered)
    return pick.choose(gathered.samples, width_px=frame.luma.shape[1], height_px=frame.luma.shape[0])


def _picture(pictures: list[Film]) -> Picture:
    if not pictures:
        return Picture(light=np.zeros(0), detail=np.zeros(0), change=np.zeros(0))
    axis, reach = int(trunk_film.column(0.0)), int(25 * trunk_film.PX_PER_PCT)
    trunk = np.stack([p[int(trunk_film.row(100)) : int(trunk_film.row(0)) : 3, axis - reach : axis + reach : 3] for p in pictures])
    change = [0.0] + [float(np.abs(b[::4, ::4].astype(np.int16) - a[::4, ::4]).mean()) for a, b in zip(pictures, pictures[1:], strict=False)]
    return Picture(light=np.median(trunk, axis=(1, 2)).astype(float), detail=trunk.std(axis=(1, 2)).astype(float), change=np.array(change))


def _follow(seen: Sighting, player: Player, gathered: _Gathered, progress: Progress, asked_view: str | None) -> Sighting:
    bodies = [s.bodies[i] for s, i in zip(seen.poses, player.chosen, strict=True) if i >= 0]
    turn = trunk_film.turn_for(player)
    film = np.stack(gathered.pictures)
    gathered.pictures.clear()
    mask = np.mean([turn.apply(m) for m in gathered.masks[-MASKS:]], axis=0)
    calm = _reference_at(np.array(gathered.t_s), seen.picture.change)
    reference = film[calm].astype(np.float64).mean(axis=0)
    progress("following the shirt", 0.62)
    followed = points.follow(film, mask, reference=reference.astype(np.uint8))
    camera = steady.camera_moves(followed)
    if camera is not None and camera.stepped:
        seen = replace(seen, notes=(*seen.notes, ("camera_moved", camera.facts())))
        steady.steady(film, camera)
        reference = film[calm].astype(np.float64).mean(axis=0)  # it may lie after the step, or across it
        followed = points.follow(film, mask, reference=reference.astype(np.uint8))
    progress("following the outline", 0.82)
    risen_pct = rise(followed)
    with ThreadPoolExecutor(2) as pool:
        front, back = pool.map(lambda outward: strips.follow(film, mask, reference=reference, outward=outward, risen_pct=risen_pct), (1, -1))
    progress("reading the breath", 0.92)
    view = view_of(bodies)
    if asked_view and not view.startswith(asked_view):
        view = asked_view if asked_view != "side" else ("side-right" if player.forward[0] > 0 else "side-left")
    return replace(
        seen, player=player, view=view, position=position_of(bodies), front=front, back=back, points=followed,
        arms_pct=_arms(seen, player),
    )  # fmt: skip


def _reference_at(t_s: Floats, change: Floats) -> NDArray[np.int_]:
    """The frames averaged into the reference, spread so that no single coded picture's faults are taken for the player: the count-in's, or
    those of the calmest time of the first seconds where the count-in is restless. change: [n], what moves from frame to frame, grey levels."""
    starts_s = np.arange(REFERENCE_FROM_S, min(REFERENCE_LATEST_S, t_s[-1] - REFERENCE_LENGTH_S) + 1e-9, 0.25)
    unrest = [float(change[(t_s >= start) & (t_s < start + REFERENCE_LENGTH_S)].mean()) for start in starts_s]
    restless = len(unrest) > 0 and unrest[0] - min(unrest) > max(RESTLESS_GREY, RESTLESS_SHARE * min(unrest))
    from_s = float(starts_s[int(np.argmin(unrest))]) if restless else REFERENCE_FROM_S
    wanted = np.linspace(from_s, from_s + REFERENCE_LENGTH_S, REFERENCE_FRAMES)
    return np.unique(np.clip(np.searchsorted(t_s, wanted), 0, len(t_s) - 1))


def _arms(seen: Sighting, player: Player) -> Floats:
    """Upper arms, forearms and hands in body coordinates, median over the first poses: [6, 2, 2]."""
    early = [s.bodies[i] for s, i in zip(seen.poses, player.chosen, strict=True) if i >= 0 and s.t_s <= FIRST_POSES_S + 0.1]
    places = np.median([b.points_px for b in early], axis=0)
    inside = trunk_film.to_body_pct(places, player)
    return np.array([[inside[a], inside[b]] for a, b in lm.ARM_PIECES])
