"""What is done with a camera's pictures in a limited child that stays: one picture in, its reading out, in turn. Nothing is kept."""

import json
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import asdict
from multiprocessing.connection import Connection
from pathlib import Path
from typing import Any

from brevin.core.errors import InvalidInput
from brevin.edge.limited import Limits, Told

LIVE_LIMITS = Limits(memory_mb=2600, cpu_s=40_000, wall_s=36_000.0, file_mb=1)
MOST_CAMERAS = 6


def watch(told: Told, asked: Connection, model: str) -> None:
    """Answer until the asker closes its end. Each question is a record (kind, camera, t_s, wanted, held) as JSON, then the picture as it was sent. kind:
    ready = whether filming now would give a readable clip; mirror = the three lanes of the last seconds; face = eyes and mouth."""
    from brevin.edge.face_mirror import FaceMirror
    from brevin.edge.live import Now
    from brevin.edge.mirror import Mirror
    from brevin.edge.pose_model import PoseModel

    networks: dict[bool, PoseModel] = {}

    def network(masks: bool) -> PoseModel:
        """Loaded once; one that can outline as well serves those who need no outlines, since loading another takes seconds while somebody waits."""
        if masks not in networks:
            networks[masks] = networks.get(True) or PoseModel(Path(model), masks=masks)
        return networks[masks]

    begun: dict[str, Callable[[], Any]] = {
        "ready": lambda: Now(network(False)),
        "mirror": lambda: Mirror(network(True)),
        "face": lambda: FaceMirror(network(False)),
    }
    cameras: OrderedDict[tuple[str, str], Any] = OrderedDict()
    while True:
        try:
            question: dict[str, Any] = json.loads(asked.recv_bytes())
            content = asked.recv_bytes()
        except EOFError:
            return
        kind = question["kind"]
        key = (kind, question["camera"])
        if key not in cameras:
            cameras[key] = begun[kind]()
        cameras.move_to_end(key)
        while len(cameras) > MOST_CAMERAS:
            cameras.popitem(last=False)
        asked.send_bytes(json.dumps(_answer(kind, cameras[key], question, content)).encode())


def _answer(kind: str, camera: Any, question: dict[str, Any], content: bytes) -> dict[str, Any]:
    from brevin.core.readiness import readiness
    from brevin.edge.live import picture_of

    try:
        picture = picture_of(content)
        found = camera.see(picture, float(question["t_s"]))
    except InvalidInput as why:
        return {"refused": why.code}
    if kind != "ready":
        return dict(found)
    lines = readiness(camera.stretch(), size_px=camera.size_px, wanted=question["wanted"], held=question["held"])
    return {"lines": [asdict(line) for line in lines]}
