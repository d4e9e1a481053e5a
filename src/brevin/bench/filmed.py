"""What is filmed in the page against the same clip sent as a file: the browser's real camera, recorder and audio clock, with a clip as its camera.

The camera shows the clip over and over, and nobody knows where in it the filming began: the readings are laid over each other where their onsets agree best.
"""

import re
import tempfile
import time
from pathlib import Path
from statistics import median
from typing import Any

from brevin.bench import Measured
from brevin.bench.filming import film, sign_in, studio
from brevin.bench.served import READ_WITHIN_S, Client, served

TRIES = 4
SAME_BREATH_S = 0.5  # onsets nearer than that are of one breath
STUDENT = "Jonas"  # whose clip the camera shows
ONSETS = ("inhale_start_s", "exhale_start_s")


def measure() -> Measured:
    """Seconds between the onsets of a clip filmed in the page and of the same clip sent, beyond when the filming began; share of breaths named alike."""
    with served() as server, tempfile.TemporaryDirectory() as folder, studio(server.address, Path(folder)) as page:
        sign_in(page)
        client = Client(server.address)
        before = client.all_read()
        sent = _report(client, next(take["id"] for take in before if take["student"]["name"].startswith(STUDENT)))
        for _ in range(TRIES):
            _film_once_more(page)
        filmed = [_report(client, take) for take in _since(client, {take["id"] for take in before})]
    apart, alike = [], []
    for report in filmed:
        pairs = pairs_of(sent, report)
        by_onset = {key: [there[key] - here[key] for here, there in pairs if None not in (here[key], there[key])] for key in ONSETS}
        began_s = median(by_onset["inhale_start_s"])
        apart += [abs(s - began_s) for found in by_onset.values() for s in found]
        alike += [here["pattern"] == there["pattern"] for here, there in pairs]
    figures = {
        "filmed": len(filmed), "breaths": len(alike), "onset_median_s": median(apart), "onset_worst_s": max(apart), "named_alike": sum(alike) / len(alike),
    }  # fmt: skip
    return Measured("filmed", figures, {"filmed": (">=", TRIES), "onset_worst_s": ("<=", 0.05), "named_alike": (">=", 1.0)})


def pairs_of(sent: dict[str, Any], filmed: dict[str, Any]) -> list[tuple[dict[str, Any], dict[str, Any]]]:
    """Breaths of both readings that are the same one: (sent, filmed), the sent ones set to the filmed clip's clock but for a constant."""
    length_s = float(sent["clip"]["duration_s"])
    shown = [breath | {key: breath[key] + turn * length_s for key in ONSETS if breath[key] is not None} for turn in (0, 1) for breath in sent["breaths"]]
    starts = [breath for breath in filmed["breaths"] if breath["inhale_start_s"] is not None]
    tried = [[*_beside(shown, starts, there["inhale_start_s"] - here["inhale_start_s"])] for here in shown for there in starts]
    return max(tried, key=lambda pairs: (len(pairs), -_spread_s(pairs)), default=[])


def _beside(shown: list[dict[str, Any]], starts: list[dict[str, Any]], began_s: float) -> list[tuple[dict[str, Any], dict[str, Any]]]:
    return [(here, there) for here in shown for there in starts if abs(there["inhale_start_s"] - here["inhale_start_s"] - began_s) < SAME_BREATH_S]


def _spread_s(pairs: list[tuple[dict[str, Any], dict[str, Any]]]) -> float:
    apart = [there["inhale_start_s"] - here["inhale_start_s"] for here, there in pairs]
    return max(apart) - min(apart)


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
