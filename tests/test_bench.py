import json

import pytest

from brevin import bench
from brevin.bench.reading import repeated, stretched
from brevin.edge.video import probe
from tests.conftest import DEMO_CLIP


def shown(capsys: pytest.CaptureFixture, monkeypatch: pytest.MonkeyPatch, *, value: float, as_json: bool) -> tuple[int, str]:
    monkeypatch.setattr(bench, "benches", lambda: {"x": lambda: bench.Measured("x", {"wall_s": value}, {"wall_s": ("<=", 2.0)})})
    return bench.run("x", as_json=as_json), capsys.readouterr().out


def test_a_bar_that_holds_is_exit_0_and_one_that_does_not_is_1(capsys, monkeypatch) -> None:
    code, said = shown(capsys, monkeypatch, value=1.5, as_json=False)
    assert code == 0 and "held" in said and "NOT" not in said
    code, said = shown(capsys, monkeypatch, value=2.5, as_json=False)
    assert code == 1 and "NOT held" in said


def test_json_is_one_object_of_the_contract(capsys, monkeypatch) -> None:
    code, said = shown(capsys, monkeypatch, value=2.5, as_json=True)
    assert code == 1 and json.loads(said) == {"name": "x", "figures": {"wall_s": 2.5}, "bars": {"wall_s": "<= 2.0"}, "held": False}


def test_the_clip_that_is_timed_has_the_size_rate_and_length_it_says(tmp_path) -> None:
    stretched(DEMO_CLIP, tmp_path / "c.mp4", size=(1280, 720), length_s=2.0)
    facts = probe(tmp_path / "c.mp4")
    assert (facts.width_px, facts.height_px, round(facts.frame_rate_hz)) == (1280, 720, 30) and facts.duration_s == pytest.approx(2.0, abs=0.1)


def test_a_long_recording_is_as_long_as_its_parts(tmp_path) -> None:
    stretched(DEMO_CLIP, tmp_path / "c.mp4", size=(320, 180), length_s=1.0)
    repeated(tmp_path / "c.mp4", tmp_path / "long.mp4", times=5)
    assert probe(tmp_path / "long.mp4").duration_s == pytest.approx(5.0, abs=0.1)
