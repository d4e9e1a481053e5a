"""The comparison with general-purpose libraries: how onsets are matched and clips chosen. The libraries themselves are not installed for the tests."""

from pathlib import Path

import pytest

from brevin.bench.peers import NEAR_S, matched, spread


@pytest.mark.parametrize(
    ("planted", "read", "errors"),
    [
        ([4.0, 10.0], [4.1, 9.8], [0.1, 0.2]),
        ([4.0, 10.0], [4.1, 4.3, 9.8], [0.1, 0.2]),
        ([4.0], [4.0 + NEAR_S + 0.01], []),
        ([4.0, 4.5], [4.4], [0.1]),
        ([], [1.0], []),
        ([1.0], [], []),
    ],
)
def test_each_planted_onset_is_found_once_by_its_nearest(planted: list[float], read: list[float], errors: list[float]) -> None:
    assert matched(planted, read) == pytest.approx(errors)


def test_of_many_clips_a_few_are_taken_from_all_over() -> None:
    clips = [Path(f"{i:02}.mp4") for i in range(18)]
    assert [int(clip.stem) for clip in spread(clips, 4)] == [0, 6, 11, 17]
    assert spread(clips[:2], 4) == clips[:2] and spread([], 4) == []
