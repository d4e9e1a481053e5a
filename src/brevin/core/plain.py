"""A report as plain JSON values, as it is stored and handed out."""

import dataclasses
import math
from functools import cache
from typing import Any

from brevin.core.report import Report

DECIMALS = 4


def to_json(report: Report) -> dict[str, Any]:
    """The report as plain JSON values, numbers rounded to ``DECIMALS``. Raises ValueError on a number that is not finite."""
    return {name: _plain(getattr(report, name)) for name in _names(Report)}


def _plain(value: Any) -> Any:
    """A report holds thousands of values: what most of them are is asked first."""
    if isinstance(value, float):
        if not math.isfinite(value):
            raise ValueError("a number in the report is not finite")
        return round(value, DECIMALS)
    if value is None or isinstance(value, (str, int)):
        return value
    if isinstance(value, (list, tuple)):
        return [_plain(inner) for inner in value]
    if isinstance(value, dict):
        return {key: _plain(inner) for key, inner in value.items()}
    if dataclasses.is_dataclass(value):
        return {name: _plain(getattr(value, name)) for name in _names(type(value))}
    return value


@cache
def _names(kind: type) -> tuple[str, ...]:
    return tuple(one.name for one in dataclasses.fields(kind))
