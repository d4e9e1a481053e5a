"""The parts of docs/method.md that are made: the drawing of a hinge with its constants, and the table of limits. ``python -m brevin.bench.method_page``."""

from collections.abc import Callable

import numpy as np

from brevin.core import filters
from brevin.core.breath import turns
from brevin.core.breath.turns import leaving
from brevin.core.synth import eased
from brevin.core.verdict.rules import LIMITS
from brevin.ops.settings import ROOT

PAGE = ROOT / "docs" / "method.md"
DRAWING = ROOT / "docs" / "method" / "hinge.svg"
INK, SOFT, WASH = "#15191C", "#5A6269", "#ECEEE8"
BEGIN, END = "<!-- limits: made, do not edit -->", "<!-- limits end -->"
WIDTH, HEIGHT, LEFT, RIGHT, TOP, BOTTOM = 980, 470, 60, 950, 40, 330
START_S, LENGTH_S, SIZE_PCT, EASE = 2.0, 2.4, 3.0, 0.15


def main() -> None:
    """Write both."""
    DRAWING.parent.mkdir(exist_ok=True)
    DRAWING.write_text(hinge_svg())
    PAGE.write_text(with_limits(PAGE.read_text()))


def with_limits(page: str) -> str:
    """The page with the table of limits as they stand in the code."""
    rows = [f"| `{name}` | {limit.value:g} | {limit.unit} | {limit.means} | {limit.source} |" for name, limit in LIMITS.items()]
    table = "\n".join([BEGIN, "| limit | value | unit | means | source |", "|---|---|---|---|---|", *rows, END])
    return page[: page.index(BEGIN)] + table + page[page.index(END) + len(END) :]


def hinge_svg() -> str:
    """A drawn rise with the hinge that is found in it, every constant at the place where it acts."""
    t_s = np.arange(0.0, 6.0, 1 / filters.GRID_HZ)
    wander = 0.035 * np.sin(2.1 * t_s) + 0.015 * np.random.default_rng(4).normal(size=len(t_s))
    values = filters.smooth(SIZE_PCT * eased((t_s - START_S) / LENGTH_S, ease=EASE) + wander)
    middle = int(np.flatnonzero(values >= 0.5 * SIZE_PCT)[0])
    found = leaving(t_s, values, from_i=0, middle_i=middle, noise=0.02, steady=True)

    def x(at_s: float) -> float:
        return LEFT + (RIGHT - LEFT) * at_s / 6.0

    def y(pct: float) -> float:
        return BOTTOM - (BOTTOM - TOP) * pct / (1.12 * SIZE_PCT)

    reach_s = float(t_s[np.flatnonzero(values >= turns.REACH_LEAVING * SIZE_PCT)[0]])
    rough_s = float(t_s[np.flatnonzero(values <= turns.ROUGH_LEVEL * SIZE_PCT)[-1]])
    ease_s = EASE * LENGTH_S
    path = " L".join(f"{x(t):.1f},{y(v):.1f}" for t, v in zip(t_s, values, strict=True))
    parts = [
        f'<rect x="{x(rough_s - turns.EARLIER_S):.0f}" y="{TOP}" width="{x(rough_s + turns.LATER_S) - x(rough_s - turns.EARLIER_S):.0f}" '
        f'height="{BOTTOM - TOP}" fill="{WASH}"/>',
        _text(x(rough_s - turns.EARLIER_S) + 6, TOP + 16, "1 turns are tried here: EARLIER_S before, LATER_S after the rough place"),
        f'<path d="M{path}" fill="none" stroke="{INK}" stroke-width="2.2"/>',
        *_level(x, y, turns.ROUGH_LEVEL, "2 ROUGH_LEVEL, the rough place"),
        *_level(x, y, turns.REACH_LEAVING, "3 REACH_LEAVING: what the hinge is fitted to"),
        *_level(x, y, 0.5, "half rise: from here the foot is looked for"),
        f'<path d="M{x(0.2):.1f},{y(0.0):.1f} H{x(found.t_s):.1f} Q{x(found.t_s + ease_s / 2):.1f},{y(0.0):.1f} {x(found.t_s + ease_s):.1f},'
        f'{y(0.5 * ease_s / (LENGTH_S - ease_s) * SIZE_PCT):.1f} L{x(reach_s):.1f},{y(turns.REACH_LEAVING * SIZE_PCT):.1f}" '
        f'fill="none" stroke="{SOFT}" stroke-width="4" stroke-dasharray="9 5"/>',
        f'<line x1="{x(found.t_s):.1f}" x2="{x(found.t_s):.1f}" y1="{TOP + 30}" y2="{BOTTOM + 40}" stroke="{INK}" stroke-width="2"/>',
        f'<line x1="{x(found.t_s - found.half_width_s):.1f}" x2="{x(found.t_s + found.half_width_s):.1f}" y1="{BOTTOM + 24}" y2="{BOTTOM + 24}" '
        f'stroke="{INK}" stroke-width="6" stroke-linecap="round"/>',
        _text(x(found.t_s + found.half_width_s) + 10, BOTTOM + 29, "4 the turn and its half width: CORRELATED, LEAST_HALF_WIDTH_S, UNSEEN_PCT"),
        f'<line x1="{x(found.t_s):.1f}" x2="{x(found.t_s + ease_s):.1f}" y1="{BOTTOM + 52}" y2="{BOTTOM + 52}" stroke="{INK}" stroke-width="1.5"/>',
        _text(x(found.t_s + ease_s) + 10, BOTTOM + 56, "5 ease, the speed grows: EASES, EASE_USUAL, EASE_SPREAD"),
        _text(x(0.2), BOTTOM + 82, "6 rest, or the movement before, with an ease of its own: REACH_BEFORE of it, at rest before the turn"),
        _text(x(0.2), BOTTOM + 108, "7 not earlier than PACE times its own pace says, less STEADY_EASE_S"),
        f'<line x1="{LEFT}" x2="{RIGHT}" y1="{BOTTOM}" y2="{BOTTOM}" stroke="{SOFT}"/>',
    ]  # fmt: skip
    head = f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH} {HEIGHT}" font-family="sans-serif" font-size="14">'
    title = "<title>A hinge: a trace in ink, the fitted rest, ease and pace dashed</title>"
    return head + title + f'<rect width="{WIDTH}" height="{HEIGHT}" fill="#F6F6F1"/>' + "".join(parts) + "</svg>\n"


def _text(x: float, y: float, words: str) -> str:
    return f'<text x="{x:.0f}" y="{y:.0f}" fill="{INK}">{words}</text>'


def _level(x: Callable[[float], float], y: Callable[[float], float], share: float, words: str) -> list[str]:
    at = y(share * SIZE_PCT)
    line = f'<line x1="{x(2.2):.0f}" x2="{RIGHT}" y1="{at:.1f}" y2="{at:.1f}" stroke="{SOFT}" stroke-dasharray="2 4"/>'
    return [line, _text(x(3.55), at - 5, words)]


if __name__ == "__main__":
    main()
