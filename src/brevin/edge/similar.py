"""What most of some points do from one picture to another: the similarity that carries them, whoever goes his own way left out."""

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from brevin.core.track import Floats

ROUNDS, FAR_OFF, LEAST_SCATTER_PX = 4, 4.685, 0.03  # of reweighting (Beaton and Tukey 1974), where a point has no say, and how exactly any is followed


class Similar(NamedTuple):
    """Similarities of some pictures. ways: [n, 4], zoom less one, turn and shift, so that a place p goes by zoom p + turn (-p_y, p_x) + shift; scatter_px: of
    the points about that, [n]; weight: of them together, [n]; middle: of them, [n, 2]; spread: sum of their squared distances from there, [n]."""

    ways: Floats
    scatter_px: Floats
    weight: Floats
    middle: Floats
    spread: Floats

    def error_px(self, place: Floats) -> Floats:
        """Standard error of the way of a place: [n]. The farther it is from the points, the less they say of what a turn or a zoom does there."""
        return np.asarray(self.scatter_px * np.sqrt(1.0 / self.weight + ((place - self.middle) ** 2).sum(axis=1) / self.spread))


def similarities(at: Floats, move: Floats, seen: NDArray[np.bool_]) -> Similar:
    """What most points do in each picture: by least squares, points that go their own way left out. at: [p, 2]; move: [n, p, 2]; seen: [n, p], which were
    found."""
    weight, n = seen.astype(float), len(move)
    found = Similar(np.zeros((n, 4)), np.zeros(n), np.ones(n), np.zeros((n, 2)), np.ones(n))
    for _ in range(ROUNDS):
        whole = np.maximum(weight.sum(axis=1), 1e-9)
        middle, gone_by = weight @ at / whole[:, None], np.einsum("np,npx->nx", weight, move) / whole[:, None]
        own, gone = at - middle[:, None], move - gone_by[:, None]
        spread = np.maximum(np.einsum("np,npx->n", weight, own**2), 1e-9)
        zoom = np.einsum("np,npx,npx->n", weight, own, gone) / spread
        turn = np.einsum("np,np->n", weight, own[..., 0] * gone[..., 1] - own[..., 1] * gone[..., 0]) / spread
        off = np.hypot(*np.moveaxis(gone - way(zoom[:, None], turn[:, None], own), -1, 0))
        scatter = np.maximum(1.4826 * np.median(off, axis=1, keepdims=True), LEAST_SCATTER_PX)
        found = Similar(np.column_stack([zoom, turn, gone_by - way(zoom, turn, middle)]), scatter[:, 0], whole, middle, spread)
        weight = seen * np.clip(1.0 - (off / (FAR_OFF * scatter)) ** 2, 0.0, None) ** 2
    return found


def way(zoom: Floats, turn: Floats, place: Floats) -> Floats:
    """How far a zoom (less one) and a turn carry places: [..., 2]."""
    return np.asarray(zoom[..., None] * place + turn[..., None] * np.stack([-place[..., 1], place[..., 0]], axis=-1))
