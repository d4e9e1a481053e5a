"""Being told to stop by a signal, so that it is not lost on the way."""

import signal
from types import FrameType

ENDS = (signal.SIGTERM, signal.SIGINT, signal.SIGHUP)


class Stop(SystemExit):
    """Told to stop: breaks off whatever is waited for."""


class Told:
    """A handler that raises ``Stop`` where the program stands, and keeps that it was told: a transaction that is broken off on a database which is stopping,
    too, ends in the database's error instead, and that would be taken for a database that comes back."""

    def __init__(self) -> None:
        self.stop = False

    def __call__(self, kind: int, frame: FrameType | None) -> None:
        self.stop = True
        raise Stop(0)

    def listen(self) -> None:
        """Hear every signal that asks for an end. Only in the main thread."""
        for kind in ENDS:
            signal.signal(kind, self)
