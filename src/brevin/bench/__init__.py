"""Figures measured on this machine: ``./brevin bench NAME``. Every figure in the documentation is printed by one of these."""

import json
import sys
from collections.abc import Callable
from dataclasses import dataclass


@dataclass(frozen=True)
class Measured:
    """figures: name to number; bars: name to (comparison, bound)."""

    name: str
    figures: dict[str, float]
    bars: dict[str, tuple[str, float]]

    @property
    def held(self) -> bool:
        """Whether every bar holds."""
        return all(holds(self.figures[key], bar) for key, bar in self.bars.items())


def holds(value: float, bar: tuple[str, float]) -> bool:
    """Whether a value keeps its bar."""
    return value <= bar[1] if bar[0] == "<=" else value >= bar[1]


def benches() -> dict[str, Callable[[], Measured]]:
    """All figure sets by name."""
    from brevin.bench import (
        accuracy,
        alike,
        bench_pages,
        blur,
        class_time,
        filmed,
        fuzz,
        gate,
        hold,
        hostile,
        lesson,
        live,
        peers,
        reading,
        recompute,
        take_page,
        today,
    )  # fmt: skip

    return {
        "accuracy": accuracy.measure, "reading": reading.measure, "recompute": recompute.measure, "take-page": take_page.measure, "today": today.measure,
        "hostile": hostile.measure, "class-time": class_time.measure, "live": live.measure, "lesson": lesson.measure, "peers": peers.measure,
        "bench-pages": bench_pages.measure, "hold": hold.measure, "filmed": filmed.measure, "gate": gate.measure,
        "alike": alike.measure, "blur": blur.measure, "fuzz": fuzz.measure,
    }  # fmt: skip


def run(name: str, *, as_json: bool) -> int:
    """Measure one set and print it; 0 where the bars hold, 1 where one does not, 2 for an unknown name."""
    known = benches()
    if name not in known:
        print(f"brevin: no figure set {name!r}; known are {', '.join(known)}", file=sys.stderr)
        return 2
    found = known[name]()
    if as_json:
        bars = {key: f"{op} {bound}" for key, (op, bound) in found.bars.items()}
        print(json.dumps({"name": found.name, "figures": found.figures, "bars": bars, "held": found.held}))
    else:
        for key, value in found.figures.items():
            bar = found.bars.get(key)
            said = "" if bar is None else f"   bar {bar[0]} {bar[1]:g}   {'held' if holds(value, bar) else 'NOT held'}"
            print(f"{key:34} {value:10.3f}{said}")
    return 0 if found.held else 1
