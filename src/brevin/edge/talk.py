"""A limited child that stays: it is asked again and again, and answers in turn."""

from multiprocessing import Pipe
from multiprocessing.connection import Connection

from brevin.edge.limited import Child, Children, Died, Limits, Work


class Talk:
    """The asker's end of a line of questions."""

    def __init__(self, child: Child, line: Connection) -> None:
        self._child, self._line = child, line

    def ask(self, *parts: bytes, within_s: float) -> bytes:
        """The answer to a question of several parts. Raises Died where none comes; then this child is of no more use."""
        try:
            for part in parts:
                self._line.send_bytes(part)
            if self._line.poll(within_s):
                return self._line.recv_bytes()
        except (EOFError, OSError) as why:
            raise Died(str(why)) from why
        raise Died(f"no answer within {within_s} s")

    def end(self) -> None:
        """End the child."""
        self._line.close()
        self._child.kill()


def begin(children: Children, work: Work, *arguments: object, limits: Limits) -> Talk:
    """A child that stays: the work is given its end of the line, before the arguments."""
    ours, theirs = Pipe()
    child = children.start(work, theirs, *arguments, limits=limits)
    theirs.close()
    return Talk(child, ours)
