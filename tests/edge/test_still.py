"""Stills that breathe: what is planted is what the pixels do."""

from dataclasses import replace

import av
import numpy as np
import pytest

from brevin.core.synth import Cycle
from brevin.core.track import Player
from brevin.edge.video import probe
from brevin.standin.still import TRUNK_MM, Still, Take, take
from brevin.standin.stills import COUNT, PATTERNS, UNSEEN, drawn, is_unseen

TRUNK_PX, HIP_X, HIP_Y = 120.0, 150.0, 230.0
DEEP = Cycle(abdomen=6.0, chest=3.0, shoulder=2.0, ease_share=0.2)
PLANTED = Take(name="deep", card="2-0-2@120x1", cycles=(DEEP,), sway_pct=0.0, noise=0.5, crf="12", rate_hz=10)


def still() -> Still:
    """A dark trunk before a light wall, face to the right."""
    height, width = 320, 320
    x, y = np.meshgrid(np.arange(width, dtype=float), np.arange(height, dtype=float))
    body = (np.abs(x - HIP_X) < 0.18 * TRUNK_PX) & (y > HIP_Y - 1.15 * TRUNK_PX) & (y < HIP_Y + 40)
    rgb = np.repeat(np.where(body, 60.0, 200.0)[..., None], 3, axis=2).astype(np.float32)
    player = Player(chosen=(0,), from_s=0.0, box_px=(100, 80, 200, 280), others=0, trunk_px=TRUNK_PX, hip_px=(HIP_X, HIP_Y), up=(0.0, -1.0), forward=(1.0, 0.0))
    return Still("drawn", rgb, body.astype(np.float32), player, "side-right", "seated", np.zeros((33, 2)))


def edge_px(picture: np.ndarray, up_pct: float) -> float:
    """Where the front of the trunk stands at a height, between the pixels."""
    row = int(HIP_Y - up_pct / 100 * TRUNK_PX)
    line = picture[row - 1 : row + 2, int(HIP_X) :].mean(axis=(0, 2))
    i = int(np.flatnonzero(line > 130)[0])
    return HIP_X + i - 1 + (130 - line[i - 1]) / (line[i] - line[i - 1])


def pictures_of(path) -> tuple[np.ndarray, list[np.ndarray]]:
    with av.open(str(path)) as found:
        frames = [(frame.time, frame.to_ndarray(format="rgb24").astype(float)) for frame in found.decode(video=0)]
    return np.array([t for t, _ in frames]), [picture for _, picture in frames]


def test_the_outline_goes_as_far_as_was_planted_at_its_heights(tmp_path) -> None:
    clip = take(still(), PLANTED, tmp_path)
    t_s, pictures = pictures_of(clip)
    assert probe(clip).has_sound and len(pictures) == pytest.approx(probe(clip).duration_s * PLANTED.rate_hz, abs=1)
    full = int(np.searchsorted(t_s, 0.8 + (4 + 2) * 60 / 120))  # after count-in and inhale
    for height, amplitude in ((PLANTED.abdomen[0], DEEP.abdomen), (PLANTED.chest[0], DEEP.chest)):
        moved_pct = (edge_px(pictures[full], height) - edge_px(pictures[5], height)) / TRUNK_PX * 100
        assert moved_pct == pytest.approx(amplitude, abs=0.4)
    back = [picture[int(HIP_Y - 0.24 * TRUNK_PX), int(HIP_X - 0.18 * TRUNK_PX) - 12 : int(HIP_X - 0.18 * TRUNK_PX) - 4].mean() for picture in pictures]
    assert np.ptp(back) < 8, "the wall behind the back stands still"


def test_the_truth_beside_the_clip_is_in_millimetres_of_a_known_trunk(tmp_path) -> None:
    import json

    truth = json.loads(take(still(), PLANTED, tmp_path).with_suffix(".json").read_text())
    [cycle] = truth["cycles"]
    assert cycle["amplitude_mm"]["abdomen"] == pytest.approx(0.06 * TRUNK_MM) and cycle["abdominal_share"] == pytest.approx(2 / 3)
    assert max(truth["per_frame"]["abdomen_mm"]) == pytest.approx(0.06 * TRUNK_MM, rel=0.01)
    assert truth["camera"]["px_per_mm_torso"] == pytest.approx(TRUNK_PX / TRUNK_MM)
    assert cycle["inhale_start"] == pytest.approx(truth["first_inhale_beat_s"])


def test_a_zoom_comes_in_the_middle_and_stays(tmp_path) -> None:
    _, pictures = pictures_of(take(still(), replace(PLANTED, zoom=1.1, cycles=(Cycle(0.01, 0.01, 0.0),)), tmp_path))
    before, after = (edge_px(pictures[i], 40.0) for i in (len(pictures) // 4, 3 * len(pictures) // 4))
    assert after - 160 == pytest.approx(1.1 * (before - 160), abs=0.3), "about the picture's middle"


def test_a_third_of_them_has_every_pattern_and_is_kept_unseen() -> None:
    kept = [number for number in range(COUNT) if is_unseen(drawn(number).name)]
    assert len(kept) == UNSEEN == COUNT // 3 and min(kept) == COUNT - UNSEEN
    assert {PATTERNS[number % len(PATTERNS)] for number in kept} == set(PATTERNS)


def test_takes_are_drawn_the_same_every_time_and_differ_from_each_other() -> None:
    takes = [drawn(i) for i in range(COUNT)]
    assert takes == [drawn(i) for i in range(COUNT)] and len({t.card for t in takes}) > 5
    assert any(t.fidget_pct for t in takes) and any(t.shake_px for t in takes) and any(not t.shake_px for t in takes)
    for number, planted in enumerate(takes):
        low = PATTERNS[number % len(PATTERNS)]
        assert all((c.abdomen < 0) == (low == "paradoxical") and c.chest > 0 for c in planted.cycles)
