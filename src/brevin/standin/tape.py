"""What every made clip shares: its sound, its file and the truth of its breaths."""

from collections.abc import Iterable
from pathlib import Path
from typing import Any

import av
import numpy as np

from brevin.core.plan.card import CountCard
from brevin.core.synth import Planted, Signals
from brevin.core.track import Floats

SOUND_HZ = 44100
FIRST_CLICK_S, AFTER_S = 0.8, 1.2  # before the count-in, and after the last breath


def planted_times(card: CountCard, breaths: int, rate_hz: float) -> tuple[float, float, Floats]:
    """When the first inhale is due, how long the clip is, and the times of its pictures [n], all seconds."""
    assert card.cycle_beats is not None
    first_s = FIRST_CLICK_S + card.countin_beats * card.beat_s
    length_s = first_s + breaths * card.cycle_beats * card.beat_s + AFTER_S
    return first_s, length_s, np.arange(0.0, length_s, 1.0 / rate_hz)


def sound(card: CountCard, planted: Signals, length_s: float, *, tone: bool, seed: int) -> np.ndarray:
    """Click track, the breath's own hush, and a plain tone while it goes out."""
    random = np.random.default_rng(seed)
    n = int(length_s * SOUND_HZ)
    t = np.arange(n) / SOUND_HZ
    heard = 0.002 * random.normal(size=n)
    click = np.exp(-np.arange(int(0.03 * SOUND_HZ)) / (0.006 * SOUND_HZ)) * np.sin(2 * np.pi * 1900 * np.arange(int(0.03 * SOUND_HZ)) / SOUND_HZ)
    for at in np.arange(FIRST_CLICK_S, length_s - 0.05, card.beat_s):
        i = int(at * SOUND_HZ)
        heard[i : i + len(click)] += 0.5 * click
    if tone:  # played by the student, or held for one who only breathes
        for breath in planted.planted:
            on = np.clip((t - breath.exhale_start_s - 0.06) / 0.05, 0, 1) * np.clip((breath.exhale_end_s - t) / 0.08, 0, 1)
            heard += on * sum(a * np.sin(2 * np.pi * 233.1 * k * t) for k, a in ((1, 0.10), (2, 0.05), (3, 0.03)))
    return np.clip(heard, -1, 1).astype(np.float32)


def write(clip: Path, pictures: Iterable[np.ndarray], heard: np.ndarray, *, rate_hz: int, size_px: tuple[int, int], crf: str, preset: str = "slow") -> None:
    """Code pictures [height, width, 3] and sound into one file. crf: x264's quality, 0 best; preset: its care, slow to ultrafast."""
    with av.open(str(clip), "w") as out:
        # Measured: with x264's look ahead along the pictures (mbtree) the same pictures gave another file each time, even on one thread.
        options = {"crf": crf, "preset": preset, "x264-params": "mbtree=0:threads=2"}
        video = out.add_stream("libx264", rate=rate_hz, options=options)
        video.width, video.height, video.pix_fmt = *size_px, "yuv420p"
        audio = out.add_stream("aac", rate=SOUND_HZ, layout="mono")
        for picture in pictures:
            out.mux(video.encode(av.VideoFrame.from_ndarray(picture, format="rgb24")))
        out.mux(video.encode(None))
        for start in range(0, len(heard), 1024):
            frame = av.AudioFrame.from_ndarray(heard[None, start : start + 1024], format="fltp", layout="mono")
            frame.sample_rate, frame.pts = SOUND_HZ, start
            out.mux(audio.encode(frame))
        out.mux(audio.encode(None))


def cycle(index: int, breath: Planted, card: CountCard, first_s: float, *, mm: float = 1000.0) -> dict[str, Any]:
    """Truth of one breath as the scorer reads it. mm: millimetres in one unit of the amplitudes."""
    due = first_s + index * (card.cycle_beats or 0) * card.beat_s
    a, c = breath.amplitude["abdomen"], breath.amplitude["chest"]
    return {
        "index": index,
        "nominal": {
            "inhale_start": due, "inhale_end": due + card.inhale_beats * card.beat_s,
            "exhale_start": due + (card.inhale_beats + card.pause_beats) * card.beat_s, "exhale_end": due + (card.cycle_beats or 0) * card.beat_s,
        },
        "inhale_start": breath.inhale_start_s, "inhale_end": breath.inhale_end_s,
        "exhale_start": breath.exhale_start_s, "exhale_end": breath.exhale_end_s,
        "amplitude_mm": {k: mm * v for k, v in breath.amplitude.items()},
        "chest_lag_t50_s": breath.half_s["chest"] - breath.half_s["abdomen"],
        "abdominal_share": a / (a + c),
    }  # fmt: skip
