"""What is done with a camera's pictures in a limited child that stays: one picture in, its reading out, in turn. Nothing is kept."""

from collections import OrderedDict
from dataclasses import asdict
from multiprocessing.connection import Connection
from pathlib import Path
from typing import Any

from brevin.core.errors import InvalidInput
from brevin.edge.limited import Limits, Told

LIVE_LIMITS = Limits(memory_mb=2600, cpu_s=40_000, wall_s=36_000.0, file_mb=1)
MOST_CAMERAS = 6


def watch(told: Told, asked: Connection, model: str) -> None:
    """Answer until the asker closes its end. Each question is a record (camera, t_s, wanted) as JSON, then the picture as it was sent."""
    import json

    from brevin.core.readiness import readiness
    from brevin.edge.live import Now, picture_of
    from brevin.edge.pose_model import PoseModel

    network = PoseModel(Path(model), masks=False)
    cameras: OrderedDict[str, Now] = OrderedDict()
    while True:
        try:
            question: dict[str, Any] = json.loads(asked.recv_bytes())
            content = asked.recv_bytes()
        except EOFError:
            return
        now = cameras.setdefault(question["camera"], Now(network))
        cameras.move_to_end(question["camera"])
        while len(cameras) > MOST_CAMERAS:
            cameras.popitem(last=False)
        try:
            now.see(picture_of(content), float(question["t_s"]))
            answer: dict[str, Any] = {"lines": [asdict(line) for line in readiness(now.stretch(), size_px=now.size_px, wanted=question["wanted"])]}
        except InvalidInput as why:
            answer = {"refused": why.code}
        asked.send_bytes(json.dumps(answer).encode())
