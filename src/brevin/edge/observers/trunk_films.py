"""The film of each player's trunk, and the light in it, picture by picture."""

import numpy as np
from numpy.typing import NDArray

from brevin.edge import film as trunk_film
from brevin.edge.observers.people import People
from brevin.edge.video import VideoFrame

Film = NDArray[np.uint8]
EVERY_PX, CHANGE_EVERY_PX = 3, 4  # of the trunk are enough for its light; of the film for its change
ASIDE_PCT = 25.0  # of trunk on either side of the axis


class TrunkFilms:
    """Turns every frame into the body's axes of each player. Frames from before the players are known wait."""

    def __init__(self, people: People) -> None:
        self.t_s: list[float] = []
        self.films: list[list[Film]] = []
        self._people = people
        self._maps: list[trunk_film.BodyMap] = []
        self._early: list[VideoFrame] = []

    def see(self, frame: VideoFrame) -> None:
        """Keep the frame's view of every player."""
        self.t_s.append(frame.t_s)
        self._early.append(frame)
        if self._people.picked:
            self._turn_early()

    def finish(self) -> None:
        """Frames of a clip that ended before anybody was picked."""
        self._turn_early()

    def _turn_early(self) -> None:
        if not self._maps:
            self._maps = [trunk_film.body_map(player) for player in self._people.players]
            self.films = [[] for _ in self._maps]
        for frame in self._early:
            for one, pictures in zip(self._maps, self.films, strict=True):
                pictures.append(one.apply(frame.luma))
        self._early.clear()

    def mask(self, place: int) -> NDArray[np.float32]:
        """A player's outline in the film's axes."""
        found: NDArray[np.float32] = self._maps[place].apply(self._people.mask(self._people.players[place]))
        return found


def light_of(film: Film) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Median grey of the trunk and its standard deviation in each picture: [n] each. film: [n, HEIGHT, WIDTH]."""
    axis, aside = int(trunk_film.column(0.0)), int(ASIDE_PCT * trunk_film.PX_PER_PCT)
    trunk = film[:, int(trunk_film.row(100)) : int(trunk_film.row(0)) : EVERY_PX, axis - aside : axis + aside : EVERY_PX]
    return np.median(trunk, axis=(1, 2)).astype(float), trunk.std(axis=(1, 2)).astype(float)


def change_of(film: Film) -> NDArray[np.float64]:
    """Mean grey change to the picture before: [n], 0 at the first."""
    small = film[:, ::CHANGE_EVERY_PX, ::CHANGE_EVERY_PX].astype(np.int16)
    return np.concatenate([[0.0], np.abs(np.diff(small, axis=0)).mean(axis=(1, 2))])
