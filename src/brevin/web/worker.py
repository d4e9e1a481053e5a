"""The web server's worker: a connection that stops in the middle of a request, or of a clip, gives its place back, and costs nobody else time."""

import socket
import struct
import threading
from collections.abc import Callable

from gunicorn.workers.gthread import TConn, ThreadWorker


class PatientWorker(ThreadWorker):
    """Threads, each of which waits for the next byte for so long and no longer. Told to the kernel, since the server sets its own sockets to wait."""

    def handle(self, conn: TConn) -> object:  # pyrefly: ignore[bad-override]
        """Serve one connection that has something to say."""
        wait = struct.pack("ll", self.wsgi.config["BREVIN"].number("stalled_s"), 0)  # a C timeval
        for option in (socket.SO_RCVTIMEO, socket.SO_SNDTIMEO):
            conn.sock.setsockopt(socket.SOL_SOCKET, option, wait)
        conn.close = _Aside(conn.close)  # pyrefly: ignore[method-assign]
        return super().handle(conn)


class _Aside:
    """Closing a connection gracefully waits for the other side; the thread that takes in new ones must not."""

    def __init__(self, close: Callable[..., None]) -> None:
        self._close: Callable[..., None] = close._close if isinstance(close, _Aside) else close

    def __call__(self, graceful: bool = False) -> None:
        if graceful:
            threading.Thread(target=self._close, args=(True,), daemon=True).start()
        else:
            self._close()
