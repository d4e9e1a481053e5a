"""What several pages ask for in the same moment, made once for all of them: a change is told to every open page, and all ask at once.

Who asks while an answer is being made does not get that one, which may be from before the change, but the next, as all who came meanwhile do. So nobody gets
anything older than the question, and however many ask, one answer is made at a time.
"""

from collections.abc import Callable, Hashable
from concurrent.futures import Future
from threading import Lock
from typing import Generic, TypeVar

Key = TypeVar("Key", bound=Hashable)
Answer = TypeVar("Answer")


class AtOnce(Generic[Key, Answer]):
    """Answers by what was asked for. Nothing is kept once it is given."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._coming: dict[Key, Future[Answer]] = {}
        self._making: dict[Key, Lock] = {}

    def made(self, key: Key, make: Callable[[], Answer]) -> Answer:
        """What ``make`` gives, of a call that began after this one. Raises what that call raises."""
        with self._lock:
            making = self._making.setdefault(key, Lock())
            shared = self._coming.get(key)
            own = self._coming.setdefault(key, Future())
        if shared is not None:
            return shared.result()
        with making:
            with self._lock:
                del self._coming[key]
            try:
                own.set_result(make())
            except BaseException as why:
                own.set_exception(why)
                raise
        return own.result()
