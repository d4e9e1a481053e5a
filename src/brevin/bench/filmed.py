"""What is filmed in the page against the same clip sent as a file: the browser's real camera, recorder and audio clock, with a clip as its camera.

The clip is filmed once, finely, with requirements/standin.txt installed: ``python -m brevin.standin.make .build/fine standing-full-early --crf 12`` (a few
minutes). A camera's pictures were never coded before the browser gets them; in those of the small demo clip whatever moves slowly goes in steps, and another
coding of them moves an exhale's start by up to 0.15 s.

The camera shows the clip over and over, late where the machine is busy, and nobody knows where in it the filming began: each of its pictures carries its
number, and a moment of the sent clip is looked for where the filmed one shows it. Filmed while the camera stood still for a while, which no camera of a room
does, it is filmed again.
"""

import re
import sys
import tempfile
import time
from pathlib import Path
from statistics import median
from typing import Any

import numpy as np
from numpy.typing import NDArray

from brevin.bench import Measured
from brevin.bench.filming import CAMERA_HZ, CLIP, film, sign_in, studio
from brevin.bench.served import READ_WITHIN_S, Client, served
from brevin.bench.tally import SAME_BREATH_S, STARTS
from brevin.edge import video
from brevin.ops.settings import ROOT
from brevin.standin import numbered
from brevin.standin.device import as_camera

FINE = ROOT / ".build" / "fine" / CLIP.name
TRIES, MOST_TRIES = 4, 8  # that count, and in all
STOOD_STILL_S = 0.2  # how much later than it should a camera shows what it shows, from which a try does not count
ONSET_S = 0.05  # of an onset filmed and sent: no farther apart
STUDENT = "Jonas"  # whose clip the camera shows
Shown = NDArray[np.float64]
"""[pictures, 2]: seconds of the filmed clip, and of the clip that its camera showed then, which go on growing where that began anew."""


def measure() -> Measured:
    """Seconds between the onsets of a clip filmed in the page and where the same clip sent has them; shares of breaths that are there, and named alike."""
    if not FINE.exists():
        print("brevin: film the clip first: python -m brevin.standin.make .build/fine standing-full-early --crf 12", file=sys.stderr)
        return Measured("filmed", {"filmed": 0.0}, {"filmed": (">=", TRIES)})
    with served() as server, tempfile.TemporaryDirectory() as folder:
        client = Client(server.address)
        sent = _sent(client)
        with studio(server.address, as_camera(FINE, Path(folder), plain_hz=CAMERA_HZ, number=True)) as page:
            sign_in(page)
            tries = _tries(page, client, Path(folder), sent["clip"]["duration_s"])
    filmed = [(report, shown) for report, shown in tries if _late_s(shown) < STOOD_STILL_S]
    whole = [pair for report, shown in filmed for pair in pairs_of(sent, report, shown)]
    pairs = [(due, there) for due, there in whole if there is not None]
    apart = [abs(there[key] - due[key]) for due, there in pairs for key in STARTS if None not in (due[key], there[key])] or [np.inf]
    figures = {
        "filmed": len(filmed), "stood_still": len(tries) - len(filmed), "breaths": len(whole), "found": len(pairs) / max(len(whole), 1),
        "onset_median_s": median(apart), "onset_worst_s": max(apart), "onsets_within": float(np.mean(np.array(apart) <= ONSET_S)),
        "named_alike": sum(due["pattern"] == there["pattern"] for due, there in pairs) / max(len(whole), 1),
        "camera_late_s": max(_late_s(shown) for _, shown in tries), "camera_pictures_hz": min(len(shown) / np.ptp(shown[:, 0]) for _, shown in tries),
    }  # fmt: skip
    return Measured("filmed", figures, {"filmed": (">=", TRIES), "found": (">=", 1.0), "onset_worst_s": ("<=", ONSET_S), "named_alike": (">=", 1.0)})


def _sent(client: Client) -> dict[str, Any]:
    """The report of the clip, sent as a file for the chair that is filmed then."""
    chair = next(seat for seat in client("GET", "/api/today")["lesson"]["seats"] if seat["student"]["name"].startswith(STUDENT))
    take = client.send(FINE, student_id=chair["student"]["id"], seat_id=chair["id"])
    client.all_read()
    return _report(client, take)


def _tries(page: Any, client: Client, folder: Path, length_s: float) -> list[tuple[dict[str, Any], Shown]]:
    """The report of every try, with what it shows of the camera's clip: until enough of them count, or it is of no use."""
    tries: list[tuple[dict[str, Any], Shown]] = []
    while len(tries) < MOST_TRIES and sum(_late_s(shown) < STOOD_STILL_S for _, shown in tries) < TRIES:
        known = {take["id"] for take in client.all_read()}
        _film_once_more(page)
        take = _new(client, known)
        tries.append((_report(client, take), shown_in(client.clip(take, folder), length_s)))
    return tries


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
            onsets = {key: breath[key] + turn * sent["clip"]["duration_s"] for key in STARTS if breath[key] is not None}
            if len(onsets) == len(STARTS) and begins_s + SAME_BREATH_S < onsets["inhale_start_s"] and onsets["exhale_start_s"] + SAME_BREATH_S < ends_s:
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


def _new(client: Client, known: set[str]) -> str:
    """The take that came since, read."""
    until = time.monotonic() + READ_WITHIN_S
    while time.monotonic() < until:
        if new := [take["id"] for take in client.all_read() if take["id"] not in known]:
            return str(new[0])
        time.sleep(0.5)
    raise RuntimeError("what was filmed did not come")


def _report(client: Client, take: str) -> dict[str, Any]:
    found: dict[str, Any] = client("GET", f"/api/takes/{take}/report")
    return found
