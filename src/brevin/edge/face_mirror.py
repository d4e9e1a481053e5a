"""The mirror for the face: where eyes and mouth are, picture by picture. Nothing is kept but the last few places."""

from collections import deque
from typing import Any

from brevin.core.pose import landmarks as lm
from brevin.core.pose.face import Face, face_of, steadied
from brevin.core.track import Floats
from brevin.edge.live import Rgb
from brevin.edge.pose_model import PoseModel

TOGETHER = 4  # pictures steadied into one: a third of a second
FORGET_S = 1.0  # after which an older place says nothing of now


class FaceMirror:
    """One camera's mirror for the face of the nearest person."""

    def __init__(self, network: PoseModel) -> None:
        self._network = network
        self._faces: deque[tuple[float, Face]] = deque(maxlen=TOGETHER)

    def see(self, rgb: Rgb, t_s: float) -> dict[str, Any]:
        """Look at the next picture. Returns ``state``: no_person, turn_face, or seen with eyes, across and mouth (shares of the picture's size)."""
        bodies = self._network.see(rgb, with_masks=False).bodies
        while self._faces and not 0.0 <= t_s - self._faces[0][0] <= FORGET_S:
            self._faces.popleft()
        if not bodies:
            return {"state": "no_person"}
        face = face_of(max(bodies, key=lambda body: float(lm.box_px(body)[3])))
        if face is None:
            return {"state": "turn_face"}
        self._faces.append((t_s, face))
        steady = steadied([one for _, one in self._faces])
        size = (rgb.shape[1], rgb.shape[0])
        return {"state": "seen", **{name: _share(getattr(steady, f"{name}_px"), size) for name in ("eyes", "across", "mouth")}}


def _share(px: Floats, size: tuple[int, int]) -> list[float]:
    return [round(float(px[0]) / size[0], 4), round(float(px[1]) / size[1], 4)]
