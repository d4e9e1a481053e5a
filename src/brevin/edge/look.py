"""Looking at a clip: one decode loop before the observers, and what they saw put together."""

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field, replace
from functools import partial
from pathlib import Path

import numpy as np

from brevin.core.errors import ClipUnusable
from brevin.core.kinds import AskedView, View
from brevin.core.pose.view import position_of, view_of
from brevin.core.track import ClipFacts, Facts, Floats, LinesSeen, Picture, Player, Sighting
from brevin.edge import loop
from brevin.edge.closer import Closer
from brevin.edge.growing import Growing
from brevin.edge.observers.feet import Feet
from brevin.edge.observers.people import People, Pictured
from brevin.edge.observers.printed_card import PrintedCard
from brevin.edge.observers.room import Room
from brevin.edge.observers.straight_lines import StraightLines
from brevin.edge.observers.trunks import Trunk, Trunks
from brevin.edge.pose_model import PoseModel
from brevin.edge.room_points import Standing
from brevin.edge.steadied import Followed, steadied
from brevin.edge.steady import camera_moves, room_pct
from brevin.edge.video import Stamps, VideoFrame, probe, sound, video_frames

LONGEST_S = 120.0  # of a recording is read: more than a check ever lasts
OTHERS_LONGEST_S = 45.0  # in longer clips only the player is followed: every trunk takes as much time again
MOST_PLAYERS = 3
FASTEST_HZ = 30.0  # more video frames a second say nothing more of a breath
SHORTEST_S = 3.0  # one count-in and one breath do not fit in less
BREAKS_OFF_S = 1.5  # before the end that a clip says it has
LARGE_PX = 2200  # longer side from which a clip is told that it need not be so large

Progress = Callable[[str, float], None]


def look(
    source: Path | Growing, model: Path, *, progress: Progress = lambda stage, share: None, view: AskedView = "auto", pictured: Pictured | None = None
) -> Sighting:  # fmt: skip
    """See one clip, whole or while it is filmed: of the same bytes the same is seen. progress: called with the stage and the share done, 0 to 1; view: from
    which side it was filmed, where the person said so; pictured: takes every picture whose key points are looked at.

    Raises ClipUnusable where the file holds no picture at all; where it holds one that cannot be read, the Sighting says why.
    """
    progress("opening", 0.0)
    clip = probe(source)
    watched = _watch(source, clip, model, progress, pictured)
    whole = source.whole() if isinstance(source, Growing) else source
    clip = probe(whole) if isinstance(source, Growing) else clip
    heard = sound(whole, until_s=LONGEST_S)
    if clip.duration_s <= 0 and len(watched.t_s) > 1:  # a browser's recording tells neither, and its first pictures come unevenly
        step_s = float(np.median(np.diff(watched.t_s)))
        clip = replace(clip, duration_s=watched.t_s[-1] + step_s, frame_rate_hz=1.0 / step_s)
    seen = Sighting(
        clip=clip, t_s=np.array(watched.t_s), poses=tuple(watched.people.samples), player=None, view=None, position=None,
        front=None, back=None, points=None, picture=_no_picture(), arms_pct=np.zeros((0, 2, 2)),
        sound=heard, refused=watched.refused, notes=_notes(clip, watched), cards=tuple(watched.card.cards), lines=watched.lines,
        uprights_px=watched.uprights_px,
    )  # fmt: skip
    if not watched.trunks:
        return seen
    standing = watched.room.standing()
    cameras = [
        None if standing.still else watched.room.moves(player) or camera_moves(trunk.texture.points())
        for player, trunk in zip(watched.people.players, watched.trunks, strict=True)
    ]
    again = partial(video_frames, whole, until_s=LONGEST_S, fastest_hz=FASTEST_HZ)
    followed = steadied(again, watched.people, watched.trunks, cameras, seen.t_s, progress)
    progress("reading the breath", 0.92)
    first, *others = [
        replace(_of_player(seen, player, own, view, standing), feet_pct=watched.feet.up_pct(i, len(watched.t_s)))
        for i, (player, own) in enumerate(zip(watched.people.players, followed, strict=True))
    ]
    return replace(first, others=tuple(others))


@dataclass
class _Watched:
    """What the observers saw. trunks: one for each player, empty where the clip was refused."""

    t_s: list[float]
    people: People
    trunks: list[Trunk]
    card: PrintedCard
    stamps: Stamps
    feet: Feet
    room: Room
    refused: Facts
    lines: tuple[LinesSeen, ...] = ()
    uprights_px: Floats = field(default_factory=lambda: np.zeros((0, 4)))


def _watch(source: Path | Growing, clip: ClipFacts, model: Path, progress: Progress, pictured: Pictured | None) -> _Watched:
    """Decode the clip once before all observers."""
    network, closer = PoseModel(model), Closer(model)
    stamps = Stamps()
    try:
        with ThreadPoolExecutor(1) as pool, ThreadPoolExecutor(1) as beside:
            most = MOST_PLAYERS if clip.duration_s <= OTHERS_LONGEST_S else 1
            people = People(network, pool, beside, most_players=most, closer=closer, pictured=pictured)
            card, trunks, edges, feet = PrintedCard(), Trunks(people), StraightLines(people), Feet(people)
            room = Room(people)
            refused, followed = people.refused, trunks.trunks
            straight, upright = (), np.zeros((0, 4))
            try:
                frames = video_frames(source, until_s=LONGEST_S, fastest_hz=FASTEST_HZ, stamps=stamps)
                loop.run(frames, [people, card, trunks, edges, feet, room, _Telling(progress, clip)])
                _long_enough(trunks.t_s)
                people.finish()
                progress("following the shirt", 0.85)
                lines, uprights = pool.submit(edges.found), pool.submit(edges.uprights)
                trunks.finish()
                refused, followed, straight, upright = people.refused, trunks.trunks, lines.result(), uprights.result()
            except ClipUnusable as why:
                refused, followed = ((why.code, dict(why.facts)),), []
    finally:
        network.close()
        closer.close()
    return _Watched(trunks.t_s, people, followed, card, stamps, feet, room, refused, straight, upright)  # pyrefly: ignore[bad-argument-type]


class _Telling:
    """Tells how far the watching is."""

    def __init__(self, progress: Progress, clip: ClipFacts) -> None:
        self._progress = progress
        self._length_s = min(clip.duration_s, LONGEST_S) or LONGEST_S

    def see(self, frame: VideoFrame) -> None:
        """Say the share that is done."""
        self._progress("watching", 0.05 + 0.8 * min(frame.t_s / self._length_s, 1.0))


def _long_enough(t_s: list[float]) -> None:
    if not t_s or t_s[-1] < SHORTEST_S:
        raise ClipUnusable("too_short", duration_s=round(t_s[-1] if t_s else 0.0, 1), shortest_s=SHORTEST_S)


def _no_picture() -> Picture:
    nothing = np.zeros(0)
    return Picture(light=nothing, detail=nothing, change=nothing, clear=nothing, room_pct=np.zeros((0, 2)))


def _notes(clip: ClipFacts, watched: _Watched) -> Facts:
    notes: list[tuple[str, dict[str, float]]] = []
    if clip.duration_s > LONGEST_S + 1.0:
        notes.append(("long_clip", {"duration_s": round(clip.duration_s), "read_s": LONGEST_S}))
    if max(clip.width_px, clip.height_px) > LARGE_PX:
        notes.append(("large_picture", {"width_px": clip.width_px, "height_px": clip.height_px}))
    if watched.stamps.left_out:
        notes.append(("time_stamps", {"pictures": watched.stamps.left_out}))
    read_s = watched.t_s[-1] if watched.t_s else 0.0
    if 0.0 < read_s < min(clip.duration_s, LONGEST_S) - BREAKS_OFF_S and not watched.refused:
        notes.append(("breaks_off", {"read_s": round(read_s), "duration_s": round(clip.duration_s)}))
    return tuple(notes)


def _of_player(seen: Sighting, player: Player, own: Followed, asked_view: AskedView, standing: Standing) -> Sighting:
    lit, steady, followed, (moves, trunk) = own
    bodies = [s.bodies[i] for s, i in zip(seen.poses, player.chosen, strict=True) if i >= 0]
    camera = np.zeros((0, 4))
    if moves is not None:
        camera = moves.each
        seen = replace(seen, notes=(*seen.notes, ("camera_moved", moves.facts())))
    if standing.restless:
        seen = replace(seen, notes=(*seen.notes, ("restless_behind", {})))
    room = room_pct(steady.texture.points(), elsewhere=standing.still or standing.restless)
    light, detail, change = (np.array(values) for values in (lit.light, lit.detail, lit.change))
    return replace(
        seen, player=player, view=_view(asked_view, view_of(bodies), player), position=position_of(bodies),
        front=followed.front.strips(), back=followed.back.strips(), points=followed.texture.points(),
        picture=Picture(light=light, detail=detail, change=change, clear=followed.front.contrast(), room_pct=room, camera=camera),
        arms_pct=followed.arms_pct, sunk=np.zeros((0, 3)) if trunk is None else trunk,
    )  # fmt: skip


def _view(asked: AskedView, found: View, player: Player) -> View:
    """From which side, as the person said it, else as it was found."""
    if asked == "auto" or found.startswith(asked):
        return found
    if asked == "side":
        return "side-right" if player.forward[0] > 0 else "side-left"
    return asked
