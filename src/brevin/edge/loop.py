"""The one decode loop: every video frame in order to every observer. A file looked at afterwards and a camera looked at live go through the same loop."""

from collections.abc import Iterable, Sequence
from typing import Protocol

from brevin.edge.video import VideoFrame


class Observer(Protocol):
    """Sees every frame once, in order of time, and remembers what it is for."""

    def see(self, frame: VideoFrame) -> None:
        """Look at the next frame. Raises ClipUnusable where going on makes no sense."""


def run(frames: Iterable[VideoFrame], observers: Sequence[Observer]) -> None:
    """Show all frames to all observers, to each in the order given."""
    for frame in frames:
        for observer in observers:
            observer.see(frame)
