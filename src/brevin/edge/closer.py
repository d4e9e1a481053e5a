"""A closer look at a player's face and hands, where an outline is looked at as well."""

from dataclasses import replace
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from brevin.core.track import Body
from brevin.edge import face_model, hand_model


class Closer:
    """Loads the networks that lie beside the pose network; an installation of an older release lacks some: then nobody looked."""

    def __init__(self, pose_model: Path) -> None:
        face, hand = face_model.beside(pose_model), hand_model.beside(pose_model)
        self._faces = face_model.FaceModel(face) if face.exists() else None
        self._hands = hand_model.HandModel(hand) if hand.exists() else None

    def close(self) -> None:
        """Free the networks."""
        if self._hands is not None:
            self._hands.close()

    def see(self, rgb: NDArray[np.uint8], body: Body) -> Body:
        """The body with what was found of its face and hands. rgb: [height, width, 3]."""
        features = None if self._faces is None else self._faces.see(rgb, body)
        hands = None if self._hands is None else self._hands.see(rgb, body)
        return replace(body, features=features, hands=hands)
