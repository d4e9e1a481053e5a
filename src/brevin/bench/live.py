"""How soon the live view answers while clips are being read on the same machine: readiness before filming, and the mirror."""

import tempfile
import threading
import time
from pathlib import Path
from typing import Any

from brevin.bench import Measured
from brevin.bench.filming import CAMERA_HZ, CLIP, sign_in, studio
from brevin.bench.served import Client, served
from brevin.standin.device import as_camera

LOOKED_S = 12.0
SETTLE_S = 4.0  # the network is loaded, the player picked


def measure() -> Measured:
    """Seconds from a picture's sending to its answer, and answers a second, while one clip after another is read."""
    with served() as server, tempfile.TemporaryDirectory() as folder, studio(server.address, as_camera(CLIP, Path(folder), plain_hz=CAMERA_HZ)) as page:
        sign_in(page)
        took: dict[str, list[float]] = {"ready": [], "mirror": []}
        page.on("requestfinished", lambda request: _note(request, took))
        with _Reading(Client(server.address)):
            page.keyboard.press("f")
            ready, _ = _watched(page, took["ready"])
            page.keyboard.press("Escape")
            page.get_by_role("heading", name="Just read").wait_for()
            page.keyboard.press("m")
            page.get_by_test_id("lanes").wait_for()
            mirror, per_s = _watched(page, took["mirror"])
    figures = {"ready_p95_s": _p95(ready), "ready_median_s": _p50(ready), "mirror_per_s": per_s, "mirror_p95_s": _p95(mirror), "mirror_median_s": _p50(mirror)}
    return Measured("live", figures, {"ready_p95_s": ("<=", 0.7), "mirror_per_s": (">=", 10.0), "mirror_p95_s": ("<=", 0.4)})


def _note(request: Any, took: dict[str, list[float]]) -> None:
    for kind, times in took.items():
        if request.url.split("?")[0].endswith(f"/api/live/{kind}"):
            times.append(request.timing["responseEnd"] / 1000.0)


def _watched(page: Any, times: list[float]) -> tuple[list[float], float]:
    """Answers of a while, and how many a second."""
    page.wait_for_timeout(SETTLE_S * 1000)
    times.clear()
    began = time.monotonic()
    page.wait_for_timeout(LOOKED_S * 1000)
    found = sorted(times)
    return found, len(found) / (time.monotonic() - began)


def _p50(times: list[float]) -> float:
    return times[len(times) // 2]


def _p95(times: list[float]) -> float:
    return times[int(0.95 * len(times))]


class _Reading:
    """Reads the demo clips again and again, for as long as it is open."""

    def __init__(self, client: Client) -> None:
        self._client = client
        self._ended = threading.Event()
        self._thread = threading.Thread(target=self._run, daemon=True)

    def __enter__(self) -> None:
        self._thread.start()

    def __exit__(self, *_: object) -> None:
        self._ended.set()
        self._thread.join()

    def _run(self) -> None:
        while not self._ended.is_set():
            takes = self._client.all_read()
            self._client("POST", f"/api/takes/{next(t['id'] for t in takes if t['clip'])}/read-again")
            self._ended.wait(0.2)
