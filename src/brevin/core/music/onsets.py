"""How sharply the sound of a clip sets in, over time, in the band where clicks are heard."""

import math

import numpy as np

from brevin.core.track import Floats, Sound

HOP_S = 90 / 22050  # of the onset curve, a whole number of samples; a tempo grid is placed to about half of it
CLICK_BAND_HZ = (900.0, 9000.0)  # where any usual click has energy and a room's hum has none
PAD_S = 0.05  # of silence around the sound, so that its end does not ring into its start


def onset_curve(sound: Sound) -> Floats:
    """Rise of loudness in the click band, one value per ``HOP_S``, 0 and up; a held tone gives none."""
    band = _click_band(sound)
    hop = max(int(round(HOP_S * sound.rate_hz)), 1)
    power = (band[: len(band) // hop * hop].reshape(-1, hop) ** 2).mean(axis=1)
    loud = np.log10(power + 1e-7)
    rise = loud - np.minimum(np.roll(loud, 1), np.roll(loud, 3))
    rise[:3] = 0.0
    return np.maximum(rise, 0.0)


def _click_band(sound: Sound) -> Floats:
    """The sound between the edges of the click band: Butterworth's magnitude (1930), order 4 forward and backward, so that nothing moves in time."""
    low, high = CLICK_BAND_HZ[0], min(CLICK_BAND_HZ[1], 0.45 * sound.rate_hz)
    silence = int(PAD_S * sound.rate_hz)
    size = _quick_length(len(sound.samples) + 2 * silence)
    padded = np.zeros(size)
    padded[silence : silence + len(sound.samples)] = sound.samples
    hz = np.fft.rfftfreq(size, 1.0 / sound.rate_hz)
    off = (hz**2 - low * high) / np.maximum(hz * (high - low), 1e-9)
    for _ in range(3):  # to the eighth power: a general power of every number takes longer than both transforms
        off *= off
    kept = np.fft.irfft(np.fft.rfft(padded) / (1.0 + off), size)
    return kept[silence : silence + len(sound.samples)]


def _quick_length(least: int) -> int:
    """A length from ``least`` on that has small factors only: of a prime number of samples the transform takes thirty times as long."""
    return min(odd * 2 ** max(math.ceil(math.log2(least / odd)), 0) for odd in (1, 3, 5, 9, 15))
