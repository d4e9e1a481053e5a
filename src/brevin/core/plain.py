"""A report as plain JSON values, as it is stored and handed out."""

import dataclasses
import math
from typing import Any

from brevin.core.report import Report

DECIMALS = 4


def to_json(report: Report) -> dict[str, Any]:
    """The report as plain JSON values, numbers rounded to ``DECIMALS``. Raises ValueError on a number that is not finite."""
    return {one.name: _plain(getattr(report, one.name)) for one in dataclasses.fields(report)}


def _plain(value: Any) -> Any:
    if dataclasses.is_dataclass(value):
        return {one.name: _plain(getattr(value, one.name)) for one in dataclasses.fields(value)}
    if isinstance(value, dict):
        return {key: _plain(inner) for key, inner in value.items()}
    if isinstance(value, (list, tuple)):
        return [_plain(inner) for inner in value]
    if isinstance(value, float):
        if not math.isfinite(value):
            raise ValueError("a number in the report is not finite")
        return round(value, DECIMALS)
    return value
