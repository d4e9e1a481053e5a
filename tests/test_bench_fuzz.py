"""Clips spoiled at random: each spoil leaves a picture, a seed means the same clip again, and what fails is counted and told."""

from pathlib import Path

import numpy as np
import pytest

from brevin.bench import fuzz
from brevin.bench.fuzz import SPOILS, Outcome, judged, spoiled, tried
from brevin.ops import demo
from brevin.ops.settings import ROOT, model_path
from tests import clips


@pytest.fixture(scope="module")
def short(tmp_path_factory: pytest.TempPathFactory) -> list[Path]:
    """One second of a player."""
    return [clips.beginning(demo.CLIPS / "seated-low-then-wide.mp4", tmp_path_factory.mktemp("fuzz") / "clip.mp4", to_s=1.0)]


@pytest.mark.parametrize("spoil", SPOILS, ids=lambda one: one.__name__)
def test_a_spoil_changes_a_picture_and_leaves_its_size(spoil) -> None:
    picture = clips.pictures_of(demo.CLIPS / "seated-low-then-wide.mp4", 1)[0]
    for a, b in ((0.0, 0.0), (0.31, 0.87), (0.999, 0.999)):
        found = spoil(picture, a, b)
        assert found.shape == picture.shape and found.dtype == np.uint8 and not np.array_equal(found, picture)


def test_a_seed_makes_the_same_clip_again_and_another_another(short: list[Path], tmp_path: Path) -> None:
    first, again, other = (spoiled(short, tmp_path / name, seed).read_bytes() for name, seed in (("a.mp4", 3), ("b.mp4", 3), ("c.mp4", 4)))
    assert first == again != other


def test_a_clip_as_it_is_ends_in_a_report(short: list[Path]) -> None:
    assert judged(lambda *_: None, str(short[0]), str(model_path(ROOT)), 1) == "report"


def breaks(told, path: str, model: str, seed: int) -> str:
    raise ValueError("zero-size array")


def test_what_fails_is_told_and_what_is_refused_is_no_failure(short: list[Path], monkeypatch: pytest.MonkeyPatch, capsys) -> None:
    monkeypatch.setattr(fuzz, "spoiled", lambda _clips, target, _seed: target.write_bytes(b"no clip") and target)
    refused = tried(5)
    assert not refused.failed and refused.said not in ("", "report")
    monkeypatch.setattr(fuzz, "judged", breaks)
    failed = tried(6)
    assert failed.failed and "zero-size array" in failed.said

    class Pool:
        def __init__(self, _: int) -> None: ...
        def __enter__(self) -> "Pool":
            return self

        def __exit__(self, *_: object) -> None: ...
        def map(self, _work, seeds) -> list[Outcome]:
            return [failed if seed == 1 else refused for seed in list(seeds)[:3]]

    monkeypatch.setattr(fuzz, "ProcessPoolExecutor", Pool)
    found = fuzz.measure()
    assert found.figures["failed"] == 1.0 and not found.held and "seed 6: ValueError: zero-size array" in capsys.readouterr().err
