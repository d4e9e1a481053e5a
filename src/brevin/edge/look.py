"""Looking at a clip: decode once before the observers, then follow outline and texture in the films of the players' trunks."""

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from brevin.core.errors import ClipUnusable
from brevin.core.kinds import AskedView, View
from brevin.core.kinematics.rigid import rise
from brevin.core.pose import landmarks as lm
from brevin.core.pose.view import position_of, view_of
from brevin.core.track import ClipFacts, Facts, Floats, Picture, Player, Points, PoseSample, Sighting
from brevin.edge import film as trunk_film
from brevin.edge import loop, points, steady, strips
from brevin.edge.observers.people import FIRST_POSES_S, People
from brevin.edge.observers.printed_card import PrintedCard
from brevin.edge.observers.trunk_films import TrunkFilms, change_of, light_of
from brevin.edge.pose_model import PoseModel
from brevin.edge.video import Stamps, VideoFrame, probe, sound, video_frames

LONGEST_S = 120.0  # of a recording is read; the film of it fits in 400 MB
OTHERS_LONGEST_S = 45.0  # in longer clips only the player is followed: every film costs as much memory again
MOST_PLAYERS = 3
FASTEST_HZ = 30.0  # more video frames a second say nothing more of a breath
SHORTEST_S = 3.0  # one count-in and one breath do not fit in less
LARGE_PX = 2200  # longer side from which a clip is told that it need not be so large
REFERENCE_FROM_S, REFERENCE_LENGTH_S, REFERENCE_FRAMES = 0.5, 2.0, 9  # averaged into the reference
REFERENCE_LATEST_S = 8.0  # a reference from later on would see half a breath more
RESTLESS_GREY, RESTLESS_SHARE = 0.3, 0.3  # a count-in that changes from frame to frame by this much, and share, more than the calmest time

Progress = Callable[[str, float], None]
Film = NDArray[np.uint8]


def look(path: Path, model: Path, *, progress: Progress = lambda stage, share: None, view: AskedView = "auto") -> Sighting:
    """See one clip. progress: called with the stage and the share done, 0 to 1; view: from which side it was filmed, where the person said so.

    Raises ClipUnusable where the file holds no picture at all; where it holds one that cannot be read, the Sighting says why.
    """
    progress("opening", 0.0)
    clip = probe(path)
    heard = sound(path, until_s=LONGEST_S)
    watched = _watch(path, clip, model, progress)
    if clip.duration_s <= 0 and watched.t_s:
        clip = replace(clip, duration_s=watched.t_s[-1] + 1.0 / max(clip.frame_rate_hz, 1.0))
    seen = Sighting(
        clip=clip, t_s=np.array(watched.t_s), poses=tuple(watched.samples), player=None, view=None, position=None,
        front=None, back=None, points=None, picture=_no_picture(), arms_pct=np.zeros((0, 2, 2)),
        sound=heard, refused=watched.refused, notes=_notes(clip, watched.stamps), cards=tuple(watched.card.cards),
    )  # fmt: skip
    if not watched.players:
        return seen
    first, *others = [_follow(seen, watched, place, progress, view) for place in range(len(watched.players))]
    return replace(first, others=tuple(others))


@dataclass
class _Watched:
    """What the observers saw. players: empty where the clip was refused."""

    t_s: list[float]
    samples: list[PoseSample]
    players: list[Player]
    films: TrunkFilms
    card: PrintedCard
    stamps: Stamps
    refused: Facts


def _watch(path: Path, clip: ClipFacts, model: Path, progress: Progress) -> _Watched:
    """Decode the clip once before all observers."""
    network = PoseModel(model)
    stamps = Stamps()
    try:
        with ThreadPoolExecutor(1) as pool:
            people = People(network, pool, most_players=MOST_PLAYERS if clip.duration_s <= OTHERS_LONGEST_S else 1)
            card, films = PrintedCard(), TrunkFilms(people)
            refused, players = people.refused, people.players
            try:
                frames = video_frames(path, until_s=LONGEST_S, fastest_hz=FASTEST_HZ, stamps=stamps)
                loop.run(frames, [people, card, films, _Telling(progress, min(clip.duration_s, LONGEST_S) or LONGEST_S)])
                _long_enough(films.t_s)
                people.finish()
                films.finish()
                refused, players = people.refused, people.players
            except ClipUnusable as why:
                refused, players = ((why.code, dict(why.facts)),), []  # type: ignore[arg-type]
    finally:
        network.close()
    return _Watched(films.t_s, people.samples, players, films, card, stamps, refused)


class _Telling:
    """Tells how far the watching is."""

    def __init__(self, progress: Progress, length_s: float) -> None:
        self._progress, self._length_s = progress, length_s

    def see(self, frame: VideoFrame) -> None:
        """Say the share that is done."""
        self._progress("watching", 0.05 + 0.55 * min(frame.t_s / self._length_s, 1.0))


def _long_enough(t_s: list[float]) -> None:
    if not t_s or t_s[-1] < SHORTEST_S:
        raise ClipUnusable("too_short", duration_s=round(t_s[-1] if t_s else 0.0, 1), shortest_s=SHORTEST_S)


def _no_picture() -> Picture:
    nothing = np.zeros(0)
    return Picture(light=nothing, detail=nothing, change=nothing, clear=nothing, room_pct=np.zeros((0, 2)))


def _notes(clip: ClipFacts, stamps: Stamps) -> Facts:
    notes: list[tuple[str, dict[str, float]]] = []
    if clip.duration_s > LONGEST_S + 1.0:
        notes.append(("long_clip", {"duration_s": round(clip.duration_s), "read_s": LONGEST_S}))
    if max(clip.width_px, clip.height_px) > LARGE_PX:
        notes.append(("large_picture", {"width_px": clip.width_px, "height_px": clip.height_px}))
    if stamps.left_out:
        notes.append(("time_stamps", {"pictures": stamps.left_out}))
    return tuple(notes)


def _follow(seen: Sighting, watched: _Watched, place: int, progress: Progress, asked_view: AskedView) -> Sighting:
    """One player's outline and texture."""
    player, mask = watched.players[place], watched.films.mask(place)
    bodies = [s.bodies[i] for s, i in zip(watched.samples, player.chosen, strict=True) if i >= 0]
    film = np.stack(watched.films.films[place])
    watched.films.films[place].clear()
    light, detail = light_of(film)
    change = change_of(film)
    calm = _reference_at(np.array(watched.t_s), change)
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
    return replace(
        seen, player=player, view=_view(asked_view, view_of(bodies), player), position=position_of(bodies), front=front[0], back=back[0], points=followed,
        picture=Picture(light=light, detail=detail, change=change, clear=front[1], room_pct=_room(followed)), arms_pct=_arms(watched.samples, player),
    )  # fmt: skip


def _view(asked: AskedView, found: View, player: Player) -> View:
    """From which side, as the person said it, else as it was found."""
    if asked == "auto" or found.startswith(asked):
        return found
    if asked == "side":
        return "side-right" if player.forward[0] > 0 else "side-left"
    return asked


def _room(followed: Points) -> Floats:
    """Where the room has gone against the reference: [n, 2], median of its points; zeros where none is seen."""
    room = followed.move_pct[:, ~followed.on_body]
    return np.median(room, axis=1) if room.shape[1] else np.zeros((len(room), 2))


def _reference_at(t_s: Floats, change: Floats) -> NDArray[np.int_]:
    """The frames averaged into the reference, spread so that no single coded picture's faults are taken for the player: the count-in's, or
    those of the calmest time of the first seconds where the count-in is restless. change: [n], what moves from frame to frame, grey levels."""
    starts_s = np.arange(REFERENCE_FROM_S, min(REFERENCE_LATEST_S, t_s[-1] - REFERENCE_LENGTH_S) + 1e-9, 0.25)
    unrest = [float(change[(t_s >= start) & (t_s < start + REFERENCE_LENGTH_S)].mean()) for start in starts_s]
    restless = len(unrest) > 0 and unrest[0] - min(unrest) > max(RESTLESS_GREY, RESTLESS_SHARE * min(unrest))
    from_s = float(starts_s[int(np.argmin(unrest))]) if restless else REFERENCE_FROM_S
    wanted = np.linspace(from_s, from_s + REFERENCE_LENGTH_S, REFERENCE_FRAMES)
    return np.unique(np.clip(np.searchsorted(t_s, wanted), 0, len(t_s) - 1))


def _arms(samples: list[PoseSample], player: Player) -> Floats:
    """Upper arms, forearms and hands in body coordinates, median over the first poses: [6, 2, 2]."""
    early = [s.bodies[i] for s, i in zip(samples, player.chosen, strict=True) if i >= 0 and s.t_s <= FIRST_POSES_S + 0.1]
    places = np.median([b.points_px for b in early], axis=0)
    inside = trunk_film.to_body_pct(places, player)
    return np.array([[inside[a], inside[b]] for a, b in lm.ARM_PIECES])
