"""docs/accuracy.md and its pictures, from what ``brevin.bench.accuracy`` found. Pictures are SVG: ink is what was read, pencil what was planted."""

from pathlib import Path
from statistics import median

from brevin.bench import accuracy_by, accuracy_hold
from brevin.bench.accuracy import BARS
from brevin.bench.tally import Found, ReadClip, Tally
from brevin.ops.settings import ROOT

PAGE = ROOT / "docs" / "accuracy.md"
PICTURES = ROOT / "docs" / "accuracy"
LOOKED_AT = Path(__file__).with_name("looked_at.md")  # what was seen in the worst breaths, by hand
WORST = 10
INK, PENCIL, RULE, BAR = "#1f2a44", "#8a8578", "#d9d3c4", "#b5452c"
LANES = (("shoulder", "shoulder"), ("chest", "chest"), ("abdomen", "abdomen"))
NAMES = {
    "inhale_start_s": "inhale onset, s", "exhale_start_s": "exhale onset, s", "inhale_beats": "inhale, beats", "pause_beats": "pause, beats",
    "exhale_beats": "exhale, beats", "empty_beats": "empty, beats", "inhale_offset_beats": "inhale against the card, beats",
    "abdominal_share": "abdominal share", "shoulder_rise": "shoulder rise, % of trunk", "chest_lag_s": "chest lag, s",
}  # fmt: skip


def write(tallies: list[Tally], halves: dict[str, list[ReadClip]]) -> None:
    """The page with its pictures. halves: all clips, those in sight and the unseen ones."""
    PICTURES.mkdir(exist_ok=True)
    for old in PICTURES.glob("*.svg"):
        old.unlink()
    lines = [
        "# How well the readings fit planted truth", "", "Made by `./brevin bench accuracy`; do not edit by hand. Breaths of side views; the sets are",
        "described in [method.md](method.md). Ink is what was read, pencil what was planted. Where \"readable\" ends: [gate.md](gate.md).",
    ]  # fmt: skip
    for number, tally in enumerate(tallies):
        lines += _section(tally, f"errors-{number + 1}.svg")
    lines += accuracy_by.section(halves)
    lines += _worst([(tally, breath) for tally in tallies for breath in tally.found])
    PAGE.write_text("\n".join(lines) + "\n")


def _section(tally: Tally, picture: str) -> list[str]:
    lines = ["", f"## {tally.name[0].upper()}{tally.name[1:]}", ""]
    refused = f" Not counted for the breath, as refused or no side view: {', '.join(tally.refused)}." if tally.refused else ""
    lines.append(f"{tally.clips} clips; {len(tally.found)} of {tally.planted} planted breaths found, {tally.extra} extra (F1 {tally.f1:.3f}).{refused}")
    lines += [f"Not found: {', '.join(tally.missed)}."] if tally.missed else []
    lines += [
        "",
        "| measure | bar | median error | 90th percentile | worst | in the 90 % interval | its half width | breaths |",
        "|---|---|---|---|---|---|---|---|",
    ]
    for key, bar in BARS.items():
        errors = tally.errors(key)
        if errors:
            covered, half = tally.covered(key), tally.half_width(key)
            lines.append(
                f"| {NAMES[key]} | {bar} | {median(errors):.3f} | {_at(errors, 0.9):.3f} | {errors[-1]:.3f} | "
                f"{'-' if half is None else f'{100 * (covered or 0):.0f} %'} | {'-' if half is None else f'{half:.3f}'} | {len(errors)} |"
            )
    (PICTURES / picture).write_text(_errors_picture(tally))
    lines += ["", f"![Errors of every breath over the bar of each measure](accuracy/{picture})", "", *_confusion(tally), *accuracy_hold.section(tally.held)]
    return lines


def _at(ordered: list[float], share: float) -> float:
    return ordered[int(share * (len(ordered) - 1))]


def _confusion(tally: Tally) -> list[str]:
    """Planted patterns down, read ones across."""
    across = sorted({str(read) for _, read in tally.patterns})
    lines = [f"| planted, read as | {' | '.join(across)} |", "|---" * (len(across) + 1) + "|"]
    for planted in sorted({planted for planted, _ in tally.patterns}):
        lines.append(f"| **{planted}** | " + " | ".join(str(tally.patterns.get((planted, read), "")) for read in across) + " |")
    return lines


def _worst(breaths: list[tuple[Tally, Found]]) -> list[str]:
    lines = ["", "## The worst breaths", "", f"The {WORST} breaths of all sets whose onsets lie farthest off, looked at frame by frame."]
    explained = _explained()
    for number, (tally, breath) in enumerate(sorted(breaths, key=lambda pair: -pair[1].worst_s)[:WORST]):
        picture = f"worst-{number + 1}.svg"
        (PICTURES / picture).write_text(_breath_picture(breath))
        title = f"{tally.name}: {breath.label}"
        off = f"inhale onset {breath.errors['inhale_start_s']:+.2f} s, exhale onset {breath.errors['exhale_start_s']:+.2f} s"
        lines += ["", f"### {title}", "", f"{off}. {explained.get(title, 'Not looked at yet.')}", "", f"![Traces of this breath](accuracy/{picture})"]
    return lines


def _explained() -> dict[str, str]:
    parts = LOOKED_AT.read_text().split("\n## ")[1:] if LOOKED_AT.exists() else []
    return {part.split("\n", 1)[0].strip(): " ".join(part.split("\n", 1)[1].split()) for part in parts}


def _errors_picture(tally: Tally) -> str:
    """One row a measure, one stroke a breath, in multiples of the bar."""
    keys = [key for key in BARS if tally.errors(key)]
    width, left, row_px, most = 760, 210, 26, 5.0
    across = (width - left - 20) / most
    parts = [f'<text x="{left}" y="14" class="s">0</text>']
    for times in range(1, int(most) + 1):
        x = left + across * times
        parts.append(f'<line x1="{x:.0f}" x2="{x:.0f}" y1="20" y2="{20 + row_px * len(keys)}" stroke="{BAR if times == 1 else RULE}"/>')
        parts.append(f'<text x="{x - 4:.0f}" y="14" class="s">{"bar" if times == 1 else f"{times} x"}</text>')
    for i, key in enumerate(keys):
        y = 20 + row_px * (i + 0.5)
        parts.append(f'<text x="0" y="{y + 4:.0f}">{NAMES[key]}</text>')
        for error in tally.errors(key):
            x = left + across * min(error / BARS[key], most)
            parts.append(f'<line x1="{x:.1f}" x2="{x:.1f}" y1="{y - 7:.0f}" y2="{y + 7:.0f}" stroke="{INK}" stroke-opacity="0.45" stroke-width="2"/>')
    return drawn_as_svg(width, 30 + row_px * len(keys), parts)


def _breath_picture(breath: Found) -> str:
    """Three lanes over the breath and two seconds around it: read traces in ink, planted in pencil; turns as lines."""
    from_s, to_s = breath.cycle["inhale_start"] - 2.0, breath.cycle["exhale_end"] + 2.0
    width, left, lane_px, per_pct = 760, 80, 110, 22.0

    def x(t: float) -> float:
        return left + (width - left - 10) * (t - from_s) / (to_s - from_s)

    parts = []
    for i, (name, said) in enumerate(LANES):
        base = 20 + lane_px * (i + 0.8)
        parts += [f'<text x="0" y="{base:.0f}">{said}</text>', f'<line x1="{left}" x2="{width - 10}" y1="{base:.0f}" y2="{base:.0f}" stroke="{RULE}"/>']
        for times, values, stroke in (
            (breath.planted_trace["t_s"], breath.planted_trace[name], f'stroke="{PENCIL}" stroke-dasharray="4 3"'),
            (breath.trace.t_s, getattr(breath.trace, name), f'stroke="{INK}" stroke-width="1.6"'),
        ):
            inside = [(t, v) for t, v in zip(times, values, strict=False) if from_s <= t <= to_s]
            if inside:
                rest = min(inside, key=lambda at: abs(at[0] - breath.cycle["inhale_start"]))[1]
                line = " ".join(f"{x(t):.1f},{base - per_pct * max(min(v - rest, 4.0), -1.0):.1f}" for t, v in inside)
                parts.append(f'<polyline points="{line}" fill="none" {stroke}/>')
    bottom = 20 + lane_px * len(LANES)
    for key in ("inhale_start", "inhale_end", "exhale_start", "exhale_end"):
        parts.append(f'<line x1="{x(breath.cycle[key]):.1f}" x2="{x(breath.cycle[key]):.1f}" y1="10" y2="{bottom}" stroke="{PENCIL}" stroke-dasharray="2 3"/>')
        found = getattr(breath.breath, f"{key}_s")
        if found is not None:
            parts.append(f'<line x1="{x(found):.1f}" x2="{x(found):.1f}" y1="10" y2="{bottom}" stroke="{BAR}"/>')
    return drawn_as_svg(width, bottom + 10, parts)


def drawn_as_svg(width: int, height: int, parts: list[str]) -> str:
    """A picture of its parts on the page's paper."""
    style = f"<style>text{{font:13px sans-serif;fill:{INK}}}.s{{font-size:11px;fill:{PENCIL}}}</style>"
    head = f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}" height="{height}" viewBox="0 0 {width} {height}">'
    return f'{head}{style}<rect width="100%" height="100%" fill="#fbf8f1"/>{"".join(parts)}</svg>\n'
