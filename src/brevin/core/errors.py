"""The error tree of the core.

AnalysisError
    InvalidInput    a caller's bug: a value outside what the function takes
    ClipUnusable    the person can act: film again, choose another file

Errors carry a code and facts, never prose; the words for people are in ``core.verdict.reasons``.
"""

from collections.abc import Callable, Mapping

__all__ = ["AnalysisError", "ClipUnusable", "InvalidInput"]


class AnalysisError(Exception):
    """An analysis that ends without a report.

    code: one of the reason codes of ``core.verdict.reasons``; facts: values for its sentence.
    """

    def __init__(self, code: str, **facts: object) -> None:
        super().__init__(code, facts)
        self.code = code
        self.facts = facts

    def __reduce__(self) -> tuple[Callable[..., "AnalysisError"], tuple[object, ...]]:
        """Code and facts on the way to another process: by itself an exception is made anew from its arguments in a row."""
        return _again, (type(self), self.code, self.facts)


class InvalidInput(AnalysisError):
    """A parameter outside what is allowed."""


class ClipUnusable(AnalysisError):
    """A file that holds nothing to read: not a video, empty, cut off, sound only."""


def _again(kind: type[AnalysisError], code: str, facts: Mapping[str, object]) -> AnalysisError:
    return kind(code, **facts)
