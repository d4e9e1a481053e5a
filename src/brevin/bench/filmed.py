"""What is filmed in the page against the same clip sent as a file: the browser's real camera, recorder and audio clock, with a clip as its camera.

The camera shows the clip over and over, late where the machine is busy, and nobody knows where in it the filming began: each of its pictures carries its
number, and a moment of the sent clip is looked for where the filmed one shows it.
"""

import re
import tempfile
import time
from pathlib import Path
from statistics import median
from typing import Any

import numpy as np
from numpy.typing import NDArray

from brevin.bench import Measured
from brevin.bench.filming import film, sign_in, studio
from brevin.bench.served import READ_WITHIN_S, Client, served
from brevin.edge import video
from brevin.standin import numbered
from brevin.standin.device import CAMERA_HZ

TRIES = 4
ONSET_S = 0.05  # of an onset filmed and sent: no farther apart
SAME_BREATH_S = 0.5  # onsets nearer than that are of one breath
STUDENT = "Jonas"  # whose clip the camera shows
ONSETS = ("inhale_start_s", "exhale_start_s")
Shown = NDArray[np.float64]
"""[pictures, 2]: seconds of the filmed clip, and of the clip that its camera showed then, which go on growing where that began anew."""


def measure() -> Measured:
    """Seconds between the onsets of a clip filmed in the page and where the same clip sent has them; shares of breaths that are there, and named alike."""
    with served() as server, tempfile.TemporaryDirectory() as folder, studio(server.address, Path(folder), number=True) as page:
        sign_in(page)
        client = Client(server.address)
        before = client.all_read()
        sent = _report(client, next(take["id"] for take in before if take["student"]["name"].startswith(STUDENT)))
        for _ in range(TRIES):
            _film_once_more(page)
        takes = _since(client, {take["id"] for take in before})
        filmed = [(_report(client, take), shown_in(client.clip(take, Path(folder)), sent["clip"]["duration_s"])) for take in takes]
    whole = [pair for report, shown in filmed for pair in pairs_of(sent, report, shown)]
    pairs = [(due, there) for due, there in whole if there is not None]
    apart = [abs(there[key] - due[key]) for due, there in pairs for key in ONSETS if None not in (due[key], there[key])] or [np.inf]
    figures = {
        "filmed": len(filmed), "breaths": len(whole), "found": len(pairs) / len(whole), "onset_median_s": median(apart), "onset_worst_s": max(apart),
        "onsets_within": float(np.mean(np.array(apart) <= ONSET_S)),
        "named_alike": sum(due["pattern"] == there["pattern"] for due, there in pairs) / len(whole),
        "camera_late_s": max(_late_s(shown) for _, shown in filmed), "camera_pictures_hz": min(len(shown) / np.ptp(shown[:, 0]) for _, shown in filmed),
    }  # fmt: skip
    return Measured("filmed", figures, {"filmed": (">=", TRIES), "found": (">=", 1.0), "onset_worst_s": ("<=", ONSET_S), "named_alike": (">=", 1.0)})


def shown_in(clip: Path, length_s: float) -> Shown:
    """What of the camera's clip, which lasts length_s, a filmed one shows when, by the numbers in its pictures; those without one are left out."""
    read = [(frame.t_s, numbered.read(frame.luma)) for frame in video.video_frames(clip, until_s=np.inf, fastest_hz=video.FASTEST_CAMERA_HZ)]
    turns, last = 0, 0
    shown = []
    for t_s, number in read:
        if number is None:
            continue
        turns += number < last - CAMERA_HZ
        shown.append((t_s, number / CAMERA_HZ + turns * length_s))
        last = number
    return np.array(shown, float).reshape(-1, 2)


def pairs_of(sent: dict[str, Any], filmed: dict[str, Any], shown: Shown) -> list[tuple[dict[str, Any], dict[str, Any] | None]]:
    """Each breath of the sent clip that the filmed one shows whole, its onsets where they are due in it, with the breath that was read there, or None."""
    begins_s, ends_s = shown[0, 1], shown[-1, 1]
    whole = []
    for turn in range(int(ends_s // sent["clip"]["duration_s"]) + 1):
        for breath in sent["breaths"]:
            onsets = {key: breath[key] + turn * sent["clip"]["duration_s"] for key in ONSETS if breath[key] is not None}
            if len(onsets) == len(ONSETS) and begins_s + SAME_BREATH_S < onsets["inhale_start_s"] and onsets["exhale_start_s"] + SAME_BREATH_S < ends_s:
                whole.append(breath | {key: float(np.interp(s, shown[:, 1], shown[:, 0])) for key, s in onsets.items()})
    return [(due, _read_at(filmed, due["inhale_start_s"])) for due in whole]


def _read_at(filmed: dict[str, Any], inhale_s: float) -> dict[str, Any] | None:
    starts = [breath for breath in filmed["breaths"] if breath["inhale_start_s"] is not None]
    near = min(starts, key=lambda breath: abs(breath["inhale_start_s"] - inhale_s), default=None)
    return near if near is not None and abs(near["inhale_start_s"] - inhale_s) < SAME_BREATH_S else None


def _late_s(shown: Shown) -> float:
    """How much longer the camera took for what it showed than the clip lasts."""
    return float(np.ptp(shown[:, 0]) - np.ptp(shown[:, 1]))


def _film_once_more(page: Any) -> None:
    page.get_by_role("button", name=re.compile(f"^{STUDENT}")).click()
    page.keyboard.press("f")
    film(page)
    page.keyboard.press("1")
    page.get_by_role("button", name="Start").wait_for()
    page.keyboard.press("Escape")


def _since(client: Client, known: set[str]) -> list[str]:
    """The takes that came since, all read."""
    until = time.monotonic() + READ_WITHIN_S
    while time.monotonic() < until:
        new = [take["id"] for take in client.all_read() if take["id"] not in known]
        if len(new) == TRIES:
            return new
        time.sleep(0.5)
    raise RuntimeError("what was filmed did not all come")


def _report(client: Client, take: str) -> dict[str, Any]:
    found: dict[str, Any] = client("GET", f"/api/takes/{take}/report")
    return found
